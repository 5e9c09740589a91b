/**
 * What a rework does besides melting joints, until the part is lifted at the first chance: to the lands, the target's own body, small parts in the wind, ceramics, and what
 * hangs on the other side. Watched while it runs, read off at the end. Bounds marked so are estimates.
 */
import { z } from 'zod';
import { boxOnBoard, solderedTerminals, type PlacedPart } from '../board/index.ts';
import { classOfPart } from '../diagnosis/compare.ts';
import { LAMINATE } from '../materials/laminate.ts';
import { NEIGHBOUR_LIMITS } from '../materials/limits.ts';
import { SOLDER_ALLOYS } from '../materials/solder.ts';
import { packageById, type PackageModel } from '../packages/index.ts';
import { overlapOnMesh, type BoardMesh } from '../thermal/boardMesh.ts';
import type { HeatRun } from '../thermal/heatRun.ts';
import { blowAway } from '../thermal/jetForms.ts';
import type { Lumps } from './lumps.ts';
import type { AirMethod } from './method.ts';
import type { PlanInput } from './planForm.ts';

const celsius = z.number();
export const outcomesSchema = z.strictObject({
  /** Each land of the target: time above the laminate's Tg, and how far above for how long. */
  lands: z.array(
    z.strictObject({ terminal: z.string(), aboveTg_s: z.number(), exposure_K_s: z.number(), peak_C: celsius }),
  ),
  /** The land that suffers most: force if it alone were still solid at the lift, over what its bond then holds. */
  padStress: z.strictObject({
    terminal: z.string(),
    exposure_K_s: z.number(),
    force_N: z.number(),
    bond_N: z.number(),
    index: z.number(),
    says: z.enum(['easy', 'careful', 'tears']),
  }),
  /** The target's own body against its class, for parts that have to live. */
  body: z.strictObject({ peak_C: celsius, limit_C: celsius, over: z.boolean() }),
  /** Small neighbours in the wind, once their own solder is molten. */
  wind: z.array(
    z.strictObject({
      partId: z.string(),
      N: z.number(),
      loosens_s: z.number().nullable(),
      verdict: z.enum(['stays', 'skews', 'flies']),
    }),
  ),
  /** Ceramics that stay: steepest rise over a second. Advisory. */
  ceramics: z.array(
    z.strictObject({ partId: z.string(), ramp_K_s: z.number(), grade: z.enum(['gentle', 'fair', 'harsh']) }),
  ),
  /** Parts on the other side, at their lands. */
  farSide: z.array(
    z.strictObject({
      partId: z.string(),
      peak_C: celsius,
      limit_C: celsius,
      heavy: z.boolean(),
      verdict: z.enum(['holds', 'loosens', 'falls']),
    }),
  ),
});
export type Outcomes = z.infer<typeof outcomesSchema>;

/** Bond of foil to laminate, N/mm²: cold, and the part of it that is left above Tg (estimates). */
const BOND_COLD = 7;
const BOND_HOT_SHARE = 0.12;
/** Exposure above Tg after which the hot bond has fallen to 1/e, K·s (estimate). */
const BOND_EXPOSURE = 1500;
/** What tweezers pull while one joint is still solid, N (estimate of a light hand). */
const PULL_N = 0.25;
/** Index from which one has to be careful, and from which the land tears. */
const [CAREFUL, TEARS] = [0.3, 1];

/** Body classes by thickness and volume, °C (J-STD-020, lead-free). */
export function bodyClass_C({ l, w, h }: { l: number; w: number; h: number }): number {
  const volume = l * w * h;
  const column = volume < 350 ? 0 : volume <= 2000 ? 1 : 2;
  const row = h < 1.6 ? [260, 260, 260] : h <= 2.5 ? [260, 250, 245] : [250, 245, 245];
  return row[column];
}

/** Parts up to this length are small enough for the wind, mm. */
const SMALL_MM = 3.3;
/** Steepest rise that a ceramic takes gently, and fairly, times its length, K·mm/s: 4 and 8 K/s at 3.2 mm (advisory). */
const [GENTLE, FAIR] = [13, 26];
/** More mass than this hangs on a square millimetre of land: it falls when it melts, g/mm² (rule of thumb, 30 g per square inch). */
const HANGS = 0.0465;
/** Heat capacity of parts, J/(g·K): turns the heat capacity of a body into its mass. */
const PART_HEAT = 0.9;
/** A heavy part on the far side has to stay below its solidus by this, K. */
const FAR_MARGIN = 15;

/** Chip resistors are of ceramic too, but do not crack from heat. */
function isCapacitor(part: PlacedPart): boolean {
  return part.ref ? classOfPart(part).startsWith('mlcc') : part.package.startsWith('C');
}

const landArea = (part: PlacedPart) => solderedTerminals(part).reduce((sum, t) => sum + t.land.w * t.land.h, 0);

interface FarPart {
  part: PlacedPart;
  pkg: PackageModel;
  cells: number[];
  peak_C: number;
}

export class OutcomeWatch {
  private readonly input: PlanInput;
  private readonly lumps: Lumps;
  private readonly lands: { aboveTg_s: number; exposure_K_s: number; peak_C: number }[];
  private readonly far: FarPart[] = [];
  private readonly ceramics: {
    partId: string;
    nodes: number[];
    before: number[];
    steepest: number;
    length_mm: number;
  }[];
  private body_C: number;
  private elapsed = 0;

  constructor(input: PlanInput, mesh: BoardMesh, lumps: Lumps, target: PlacedPart) {
    this.input = input;
    this.lumps = lumps;
    this.body_C = input.ambient_C;
    this.lands = lumps.joints.map(() => ({ aboveTg_s: 0, exposure_K_s: 0, peak_C: input.ambient_C }));
    const bottom = (mesh.grid.dz.length - 1) * mesh.columns;
    for (const part of input.board.parts) {
      if (part.side === target.side) continue;
      const cells: number[] = [];
      for (const t of solderedTerminals(part))
        overlapOnMesh(mesh, boxOnBoard(part, t.land), (column) => cells.push(column + bottom));
      if (cells.length > 0) this.far.push({ part, pkg: packageById(part.package), cells, peak_C: input.ambient_C });
    }
    this.ceramics = lumps.neighbours.flatMap(({ part, nodes }) => {
      const pkg = packageById(part.package);
      if (pkg.texture !== 'ceramic' || !isCapacitor(part)) return [];
      const before = nodes.map(() => input.ambient_C);
      return [{ partId: part.partId, nodes, before, steepest: 0, length_mm: pkg.body.l }];
    });
  }

  /** Looks at the run after `dt` more seconds. */
  note(run: HeatRun, dt: number): void {
    const T = (run.kernel as NonNullable<HeatRun['kernel']>).T;
    const Tg = LAMINATE.softensAt.value;
    this.lumps.joints.forEach((j, i) => {
      let hottest = -Infinity;
      for (const c of j.columns) hottest = Math.max(hottest, T[c]);
      const land = this.lands[i];
      land.peak_C = Math.max(land.peak_C, hottest);
      if (hottest <= Tg) return;
      land.aboveTg_s += dt;
      land.exposure_K_s += (hottest - Tg) * dt;
    });
    this.body_C = Math.max(this.body_C, run.T[this.lumps.body]);
    for (const f of this.far) for (const c of f.cells) f.peak_C = Math.max(f.peak_C, T[c]);
    this.elapsed += dt;
    if (this.elapsed < 1 - 1e-9) return;
    for (const c of this.ceramics)
      c.nodes.forEach((node, i) => {
        c.steepest = Math.max(c.steepest, (run.T[node] - c.before[i]) / this.elapsed);
        c.before[i] = run.T[node];
      });
    this.elapsed = 0;
  }

  /** `loosens`: when each neighbour's own joints melt. */
  result(loosens: ReadonlyMap<string, number | null>, aim: { x: number; y: number }): Outcomes {
    const { lumps, input } = this;
    const target = input.board.parts.find((p) => p.partId === input.target) as PlacedPart;
    const { body } = packageById(target.package);
    const limit_C = bodyClass_C(body);
    return {
      lands: lumps.joints.map((j, i) => ({ terminal: j.terminal.id, ...this.lands[i] })),
      padStress: this.padStress(),
      body: { peak_C: this.body_C, limit_C, over: this.body_C > limit_C },
      wind: input.method.kind === 'air' ? this.wind(input.method, loosens, aim) : [],
      ceramics: this.ceramics.map(({ partId, steepest, length_mm }) => {
        const strain = steepest * length_mm;
        const grade = strain <= GENTLE ? 'gentle' : strain <= FAIR ? 'fair' : 'harsh';
        return { partId, ramp_K_s: steepest, grade };
      }),
      farSide: this.farSide(),
    };
  }

  private padStress(): Outcomes['padStress'] {
    const stressed = this.lumps.joints.map((j, i) => {
      const { exposure_K_s, peak_C } = this.lands[i];
      const area = j.terminal.land.w * j.terminal.land.h;
      const hot = peak_C > LAMINATE.softensAt.value;
      const bond_N = BOND_COLD * area * (hot ? BOND_HOT_SHARE * Math.exp(-exposure_K_s / BOND_EXPOSURE) : 1);
      return { terminal: j.terminal.id, exposure_K_s, bond_N, index: PULL_N / Math.max(bond_N, 1e-6) };
    });
    const worst = stressed.reduce((a, b) => (b.index > a.index ? b : a));
    const says = worst.index < CAREFUL ? 'easy' : worst.index < TEARS ? 'careful' : 'tears';
    return { ...worst, force_N: PULL_N, says };
  }

  private wind(method: AirMethod, loosens: ReadonlyMap<string, number | null>, aim: { x: number; y: number }) {
    const settings = [method, ...(method.stages ?? []).map((s) => ({ ...method, ...s }))];
    return this.lumps.neighbours.flatMap(({ part }) => {
      const { body } = packageById(part.package);
      if (Math.max(body.l, body.w) > SMALL_MM) return [];
      // the hand comes as near as its circle lets it
      const away = Math.hypot(part.x_mm - 1000 * aim.x, part.y_mm - 1000 * aim.y);
      const judged = settings.map((s) =>
        blowAway({
          Q_L_min: s.flow_L_min,
          D_mm: s.nozzle_mm,
          H_mm: s.standoff_mm,
          Tset_C: s.set_C,
          Tamb_C: this.input.ambient_C,
          efficiency: this.input.station.efficiency,
          part: { l_mm: body.l, w_mm: body.w, h_mm: body.h },
          r_mm: Math.max(0, away - s.sweep_mm),
          wet: 1,
        }),
      );
      const worst = judged.reduce((a, b) => (b.N > a.N ? b : a));
      const loosens_s = loosens.get(part.partId) ?? null;
      return [
        {
          partId: part.partId,
          N: worst.N,
          loosens_s,
          verdict: loosens_s === null ? ('stays' as const) : worst.verdict,
        },
      ];
    });
  }

  private farSide(): Outcomes['farSide'] {
    const solidus = SOLDER_ALLOYS.get(this.input.board.jointAlloy)?.Ts.value ?? 217;
    return this.far.map(({ part, pkg, peak_C }) => {
      const heavy = pkg.C_J_K / PART_HEAT / Math.max(landArea(part), 1e-6) > HANGS;
      const balls = pkg.terminals.some((t) => t.kind === 'ball');
      const limit_C = balls
        ? (NEIGHBOUR_LIMITS.get(part.limit ?? pkg.limit)?.limit.value ?? solidus - FAR_MARGIN)
        : solidus - (heavy ? FAR_MARGIN : 0);
      const verdict = peak_C < limit_C ? 'holds' : heavy && peak_C >= solidus ? 'falls' : 'loosens';
      return { partId: part.partId, peak_C, limit_C, heavy, verdict } as const;
    });
  }
}
