/**
 * Parts round the target while a run goes on: what each has been through, when one is hurt, comes loose, or falls off. Bodies with lumps are read at their segments, at the
 * face the air meets, or at their lands, as the limits table says; all others take the temperature of the board beside them.
 */
import { bodyRect, boxOnBoard, gapBetween, type PlacedPart, solderedTerminals } from '../../board/index.ts';
import { Exposure, judge, rate } from '../../materials/index.ts';
import { SOLDER_ALLOYS } from '../../alloys/index.ts';
import { packageById } from '../../packages/index.ts';
import { type BoardMesh, columnAt, type HeatRun, overlapOnMesh } from '../../thermal/index.ts';
import { limitOf, type Limit } from './limitOf.ts';
import type { Lumps } from './lumps.ts';
import type { ReworkCase } from './caseForm.ts';
import type { PlanRun } from './runForm.ts';
import { heatsFromBelow } from './surroundings.ts';
import { type Wind, worst } from './wind.ts';

/** The face that heat comes to is hotter than the middle of a body, by a tenth of its rise, at most so much, K (until bodies have a skin). */
const SKIN = { share: 0.1, most_K: 10 };
/** More mass than this hangs on a square millimetre of land: it falls when it melts, g/mm² (rule of thumb, 30 g per square inch). */
const HANGS = 0.0465;
/** What hangs has to stay below its solidus by this, K. */
const HANGS_MARGIN = 15;
/** Heat capacity of parts, J/(g·K): turns the heat capacity of a body into its mass. */
const PART_HEAT = 0.9;

/** Nothing of a tip's heat strays further, mm. */
const IRON_REACH = 12;

/** What of the tools matters to neighbours: winds that blow, the hottest set-point, °C. */
export interface Tools {
  winds: readonly Wind[];
  hottest_C: number;
}

interface Watched {
  part: PlacedPart;
  limit: Limit;
  distance_mm: number;
  far: boolean;
  nodes: readonly number[];
  /** Cells it takes its temperature from: of its lands where these are what counts, else beside it. */
  cells: readonly number[];
  /** Cells under each of its lands. */
  lands: readonly (readonly number[])[];
  hangs: boolean;
  /** Its face counts, and the model knows only the middle. */
  skinned: boolean;
  exposure: Exposure;
  dose: number;
  peak_C: number;
  atWet_C: number;
  over_s: number | null;
  loosens_s: number | null;
}

const landArea = (part: PlacedPart) => solderedTerminals(part).reduce((sum, t) => sum + t.land.w * t.land.h, 0);

export class NeighbourWatch {
  private readonly watched: Watched[] = [];
  private readonly input: ReworkCase;
  private readonly solidus_C: number;
  private readonly tools: Tools;

  constructor(input: ReworkCase, mesh: BoardMesh, lumps: Lumps, target: PlacedPart, tools: Tools) {
    this.input = input;
    this.tools = tools;
    this.solidus_C = SOLDER_ALLOYS.get(input.board.jointAlloy)?.Ts.value ?? 217;
    const watch = (part: PlacedPart, limit: Limit, nodes: readonly number[], distance_mm: number, reached: boolean) => {
      const far = part.side !== target.side;
      const slab = far ? (mesh.grid.dz.length - 1) * mesh.columns : 0;
      const cellsUnder = (box: ReturnType<typeof boxOnBoard>) => {
        const cells: number[] = [];
        overlapOnMesh(mesh, box, (column) => cells.push(column + slab));
        return cells;
      };
      const lands = reached ? solderedTerminals(part).map((t) => cellsUnder(boxOnBoard(part, t.land))) : [];
      const atLand = limit.at === 'land' && lands.some((l) => l.length > 0);
      const beside = () => {
        const cells = cellsUnder(boxOnBoard(part, bodyRect(part)));
        return cells.length > 0 ? cells : [columnAt(mesh, part.x_mm, part.y_mm) + slab];
      };
      this.watched.push({
        part,
        limit,
        distance_mm,
        far,
        nodes: atLand ? [] : nodes,
        cells: atLand ? lands.flat() : nodes.length > 0 ? [] : beside(),
        lands: lands.filter((l) => l.length > 0),
        hangs:
          far &&
          lands.length > 0 &&
          packageById(part.package).C_J_K / PART_HEAT / Math.max(landArea(part), 1e-6) > HANGS,
        skinned: limit.at === 'face' && nodes.length > 0,
        exposure: new Exposure(),
        dose: 0,
        peak_C: input.ambient_C,
        atWet_C: input.ambient_C,
        over_s: null,
        loosens_s: null,
      });
    };
    for (const { part, limit, nodes, distance_mm } of lumps.neighbours) watch(part, limit, nodes, distance_mm, true);
    if (!heatsFromBelow(input.under)) return;
    // heat from below reaches the whole board
    const known = new Set([target.partId, ...(input.absent ?? []), ...lumps.neighbours.map((n) => n.part.partId)]);
    for (const part of input.board.parts) {
      if (known.has(part.partId)) continue;
      const limit = limitOf(part, input);
      if (limit.law.kind !== 'none') watch(part, limit, [], gapBetween(target, part), false);
    }
  }

  /** How hot each has been, °C. */
  get peaks(): readonly { peak_C: number }[] {
    return this.watched;
  }

  /** As if all had gone on for so long, each getting hotter by so much until then, as under steady heat: soon at first. */
  goesOn(rest_K: (i: number) => number, time: number, left_s: number): void {
    const [slices, soon] = [8, 3];
    for (const [i, w] of this.watched.entries()) {
      const from_C = w.peak_C;
      for (let n = 0; n < slices; n++) {
        const C = from_C + rest_K(i) * (1 - Math.exp((-soon * (n + 0.5)) / slices));
        w.exposure.add(C, left_s / slices);
        w.dose += (rate(w.limit.law, C) * left_s) / slices;
        if (w.dose >= 1) w.over_s ??= time + (left_s * (n + 1)) / slices;
        w.peak_C = Math.max(w.peak_C, C);
      }
      w.atWet_C = w.peak_C;
    }
  }

  /** Looks after `dt` more seconds. `judged`: the part is not off yet, so this counts for the verdict. */
  note(run: HeatRun, dt: number, judged: boolean): void {
    const T = run.cells_C;
    for (const w of this.watched) {
      let C = -Infinity;
      for (const node of w.nodes) C = Math.max(C, run.T[node]);
      for (const cell of w.cells) C = Math.max(C, T[cell]);
      if (w.skinned) C += this.skin(C);
      w.peak_C = Math.max(w.peak_C, C);
      if (judged) {
        w.exposure.add(C, dt);
        w.atWet_C = w.peak_C;
      }
      if (w.over_s === null) {
        w.dose += rate(w.limit.law, C) * dt;
        if (w.dose >= 1) w.over_s = run.time;
      }
      const lets_C = this.solidus_C - (w.hangs ? HANGS_MARGIN : 0);
      if (w.loosens_s === null && w.lands.length > 0 && w.lands.every((land) => hottest(T, land) >= lets_C))
        w.loosens_s = run.time;
    }
  }

  /** How much hotter the face of a body is than its middle at `C`, K: never hotter than the tool. */
  private skin(C: number): number {
    const rise = Math.min(SKIN.share * (C - this.input.ambient_C), SKIN.most_K, (this.tools.hottest_C - C) / 2);
    return Math.max(0, rise);
  }

  /** What comes first: a limit, a small part loose in the wind, a heavy one falling off the other side. */
  closes(): PlanRun['closes'] {
    const ends = this.watched.flatMap((w): NonNullable<PlanRun['closes']>[] => {
      // what has to be taken out first is not compared with anything
      if (w.limit.takeOut) return [];
      const { partId } = w.part;
      const over = w.over_s === null ? [] : [{ partId, at_s: w.over_s, why: 'limit' as const }];
      if (w.loosens_s === null) return over;
      if (w.hangs) return [...over, { partId, at_s: w.loosens_s, why: 'falls' as const }];
      const verdict = worst(this.tools.winds, w.part)?.verdict;
      return verdict === undefined || verdict === 'stays' || w.far
        ? over
        : [...over, { partId, at_s: w.loosens_s, why: 'wind' as const }];
    });
    return ends.sort((a, b) => a.at_s - b.at_s)[0] ?? null;
  }

  /** Harm to each, as shares of what it stands: as its limit says, and with the limit lower by what it may be off. Those that nothing harms are left out. */
  doses() {
    return this.watched.flatMap(({ part, limit, exposure, over_s }) => {
      if (limit.law.kind === 'none') return [];
      const { says, dose, margin_K } = judge(exposure, limit.law, limit.plusMinus_K);
      if (says === 'clear') return [];
      return [
        {
          partId: part.partId,
          at: limit.at,
          dose: finite(dose),
          dose_shifted: finite(exposure.dose(limit.law, limit.plusMinus_K)),
          margin_K,
          hurt_s: over_s,
          word: says,
          limit: { id: limit.id, K: limit.plusMinus_K },
        },
      ];
    });
  }

  /** All within reach, and of the others those that heat from below comes near to; the least margin first. */
  result(): PlanRun['neighbours'] {
    const strays = this.tools.winds.length > 0 || heatsFromBelow(this.input.under);
    return this.watched
      .map((w): PlanRun['neighbours'][number] => {
        const { law, plusMinus_K } = w.limit;
        const { says, dose, margin_K } = judge(w.exposure, law, plusMinus_K);
        return {
          partId: w.part.partId,
          distance_mm: w.distance_mm,
          ...(w.far ? { far: true } : {}),
          ...(w.hangs ? { hangs: true } : {}),
          ...(w.limit.takeOut && (strays || w.distance_mm <= IRON_REACH) ? { takeOut: true } : {}),
          limit_C: law.kind === 'dose' || law.kind === 'threshold' ? law.Tp_C : null,
          limitPlusMinus_C: plusMinus_K,
          says,
          dose: finite(dose),
          margin_K,
          atWet_C: w.atWet_C,
          peak_C: w.peak_C,
          over_s: w.over_s,
          loosens_s: w.loosens_s,
        };
      })
      .filter((n, i) => this.watched[i].lands.length > 0 || this.watched[i].nodes.length > 0 || n.says !== 'clear')
      .sort((a, b) => (a.margin_K ?? Infinity) - (b.margin_K ?? Infinity));
  }
}

/** JSON has no Infinity: null where it is harmed at once. */
const finite = (dose: number) => (Number.isFinite(dose) ? dose : null);

function hottest(T: Float64Array, cells: readonly number[]): number {
  let most = -Infinity;
  for (const c of cells) most = Math.max(most, T[c]);
  return most;
}
