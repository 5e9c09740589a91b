/**
 * What a rework does besides melting joints, until the part is lifted at the first chance: to the lands and the laminate, the target's own
 * body, small parts in the wind, ceramics. Watched while it runs, read off at the end. Bounds marked so are estimates.
 */
import { classOfPart, type PlacedPart } from '../../board/index.ts';
import {
  Exposure,
  judge,
  type Judgement,
  LAMINATE_KINDS,
  LAMINATE_SPREAD,
  type Law,
  rate,
} from '../../materials/index.ts';
import { packageById } from '../../packages/index.ts';
import type { HeatRun } from '../../thermal/index.ts';
import { DAMP_SHARE, limitOf, type Limit } from './limitOf.ts';
import type { Lumps } from './lumps.ts';
import type { ReworkCase } from './caseForm.ts';
import type { PlanRun } from './runForm.ts';
import type { SideEffects } from './sideEffectsForm.ts';
import type { RunState } from './runState.ts';
import { tornLand } from './tornLand.ts';
import { type Wind, worst, worstOf } from './wind.ts';

/** Steepest rise that a ceramic takes gently, and fairly, times its length, K·mm/s: 4 and 8 K/s at 3.2 mm. */
const [GENTLE, FAIR] = [13, 26];
/** Most that a tip may be hotter than a ceramic it touches, K: up to 3.3 mm of length and 1.7 mm of width; larger ones no tip should touch. */
const STEP_K = 150;
const IRON_UP_TO = { l: 3.3, w: 1.7 };

type Ceramic = { part: PlacedPart; nodes: number[]; before: number[]; steepest: number; step_K: number };

/** Chip resistors are of ceramic too, but do not crack from heat. */
function isCapacitor(part: PlacedPart): boolean {
  if (packageById(part.package).texture !== 'ceramic') return false;
  return part.ref ? classOfPart(part).startsWith('mlcc') : part.package.startsWith('C');
}

export class SideEffectWatch {
  private readonly input: ReworkCase;
  private readonly lumps: Lumps;
  private readonly target: PlacedPart;
  private readonly tip_C: number | undefined;
  private readonly lands: { aboveTg_s: number; exposure_K_s: number; peak_C: number; now_C: number }[];
  private readonly ceramics: Ceramic[];
  private readonly Tg_C: number;
  private readonly laminate: Law;
  private readonly ownLimit: Limit;
  private body = new Exposure();
  private board = new Exposure();
  private bodyDose = 0;
  private elapsed = 0;
  /** When the target's own body is hurt, s. */
  hurt_s: number | null = null;

  /** `tip_C`: set-point of the hottest tip that touches the target; absent where none does. */
  constructor(input: ReworkCase, lumps: Lumps, target: PlacedPart, tip_C: number | undefined) {
    this.input = input;
    this.lumps = lumps;
    this.target = target;
    this.tip_C = tip_C;
    this.lands = lumps.joints.map(() => ({
      aboveTg_s: 0,
      exposure_K_s: 0,
      peak_C: input.ambient_C,
      now_C: input.ambient_C,
    }));
    const laminate = input.board.laminate ?? 'standard';
    this.Tg_C = LAMINATE_KINDS[laminate].Tg_C;
    this.laminate = {
      kind: 'laminate',
      laminate,
      damp_K: DAMP_SHARE[input.moisture ?? 'unknown'] * LAMINATE_SPREAD.damp_K,
    };
    this.ownLimit = limitOf(target, input, true);
    const ceramic = (part: PlacedPart, nodes: number[]): Ceramic[] =>
      isCapacitor(part) ? [{ part, nodes, before: nodes.map(() => input.ambient_C), steepest: 0, step_K: 0 }] : [];
    this.ceramics = [
      ...lumps.neighbours.filter((n) => !n.far).flatMap(({ part, nodes }) => ceramic(part, nodes)),
      ...ceramic(target, [lumps.body]),
    ];
    for (const c of this.ceramics) if (c.part === target && tip_C !== undefined) c.step_K = tip_C - input.ambient_C;
  }

  /** What it all has been through, to go on from. */
  history(): Pick<RunState, 'lands' | 'body' | 'board'> {
    return {
      lands: this.lumps.joints.map(({ terminal }, i) => {
        const { aboveTg_s, exposure_K_s, peak_C } = this.lands[i];
        return { terminal: terminal.id, aboveTg_s, exposure_K_s, peak_C };
      }),
      body: this.body.record(),
      board: this.board.record(),
    };
  }

  /** Goes on from what earlier work did to the same target. */
  goOn({ target, lands, body, board }: RunState): void {
    if (target !== this.target.partId) return;
    for (const [i, { terminal }] of this.lumps.joints.entries()) {
      const before = lands.find((l) => l.terminal === terminal.id);
      if (!before) continue;
      const { aboveTg_s, exposure_K_s, peak_C } = before;
      Object.assign(this.lands[i], { aboveTg_s, exposure_K_s, peak_C });
    }
    [this.body, this.board] = [new Exposure(body), new Exposure(board)];
    this.bodyDose = this.body.dose(this.ownLimit.law);
  }

  /** Looks at the run after `dt` more seconds. */
  note(run: HeatRun, dt: number): void {
    const T = run.cells_C;
    let hottestLand = -Infinity;
    this.lumps.joints.forEach((j, i) => {
      let hottest = -Infinity;
      for (const c of j.columns) hottest = Math.max(hottest, T[c]);
      hottestLand = Math.max(hottestLand, hottest);
      const land = this.lands[i];
      land.now_C = hottest;
      land.peak_C = Math.max(land.peak_C, hottest);
      if (hottest <= this.Tg_C) return;
      land.aboveTg_s += dt;
      land.exposure_K_s += (hottest - this.Tg_C) * dt;
    });
    const body_C = run.T[this.lumps.body];
    this.body.add(body_C, dt);
    this.board.add(hottestLand, dt);
    this.bodyDose += rate(this.ownLimit.law, body_C) * dt;
    if (this.bodyDose >= 1) this.hurt_s ??= run.time;
    this.elapsed += dt;
    if (this.elapsed < 1 - 1e-9) return;
    for (const c of this.ceramics)
      c.nodes.forEach((node, i) => {
        c.steepest = Math.max(c.steepest, (run.T[node] - c.before[i]) / this.elapsed);
        c.before[i] = run.T[node];
      });
    this.elapsed = 0;
  }

  /** `neighbours` as they came out; `winds` of the air that blew; `heat_s`: how long the tool is at it. */
  result(neighbours: PlanRun['neighbours'], winds: readonly Wind[], heat_s: number): SideEffects {
    const { lumps, target } = this;
    const lands = lumps.joints.map(({ terminal }, i) => ({ terminal, ...this.lands[i] }));
    const body = judge(this.body, this.ownLimit.law, this.ownLimit.plusMinus_K);
    const { law } = this.ownLimit;
    const board = judge(this.board, this.laminate, LAMINATE_SPREAD.harm_K);
    return {
      lands: lands.map(({ terminal, aboveTg_s, exposure_K_s, peak_C }) => ({
        terminal: terminal.id,
        aboveTg_s,
        exposure_K_s,
        peak_C,
      })),
      torn: tornLand(
        lands.map((l) => ({ terminal: l.terminal, lift_C: l.now_C, exposure_K_s: l.exposure_K_s })),
        target.package,
        this.tip_C,
        heat_s,
        this.Tg_C,
      ),
      laminate: { peak_C: this.board.peak_C, ...finite(board) },
      body: {
        peak_C: this.body.peak_C,
        limit_C: law.kind === 'dose' || law.kind === 'threshold' ? law.Tp_C : null,
        over: body.says === 'hurts',
        says: body.says,
        margin_K: body.margin_K,
        dose: finite(body).dose,
        why: this.ownLimit.why,
      },
      wind: winds.length > 0 ? this.wind(winds, neighbours) : [],
      ceramics: this.ceramics.map((c) => ceramicOf(c, target)),
    };
  }

  private wind(winds: readonly Wind[], neighbours: PlanRun['neighbours']): SideEffects['wind'] {
    const { board, fitting } = this.input;
    const laid = fitting ? worstOf(winds.map((w) => w.onLaid(this.target))) : undefined;
    return [
      ...(laid ? [{ partId: this.target.partId, ...laid, loosens_s: 0 }] : []),
      ...neighbours.flatMap(({ partId, far, loosens_s }) => {
        const part = far ? undefined : board.parts.find((p) => p.partId === partId);
        const found = part && worst(winds, part);
        if (!found) return [];
        return [{ partId, N: found.N, loosens_s, verdict: loosens_s === null ? ('stays' as const) : found.verdict }];
      }),
    ];
  }
}

/** JSON has no Infinity. */
const finite = ({ says, dose, margin_K }: Judgement) => ({ says, margin_K, dose: Number.isFinite(dose) ? dose : null });

function ceramicOf({ part, steepest, step_K }: Ceramic, target: PlacedPart): SideEffects['ceramics'][number] {
  const { l, w } = packageById(part.package).body;
  const touched = part === target && step_K > 0;
  const large = Math.max(l, w) > IRON_UP_TO.l || Math.min(l, w) > IRON_UP_TO.w;
  const strain = steepest * l;
  const harsh = strain > FAIR || (touched && (large || step_K > STEP_K));
  const grade = harsh ? 'harsh' : strain > GENTLE ? 'fair' : 'gentle';
  return { partId: part.partId, ramp_K_s: steepest, ...(touched ? { step_K } : {}), grade };
}
