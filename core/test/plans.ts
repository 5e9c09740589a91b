/** Usual phases and plans for tests. */
import type { BoardModel } from '../src/board/boardModel.ts';
import type { ReworkCase } from '../src/rework/bench/caseForm.ts';
import type { PlanRun } from '../src/rework/bench/runForm.ts';
import { expressBoard, type ExpressAnswers } from '../src/rework/expressBoard.ts';
import { methodsFor } from '../src/rework/methods/choose.ts';
import { mainPhase, phaseOf } from '../src/rework/methods/method.ts';
import type { KindName, Phase, PhaseOf, SettingsOf } from '../src/rework/phases/schema.ts';
import type { PlanInput } from '../src/rework/planForm.ts';
import { runPlan } from '../src/rework/planRun.ts';
import { DEFAULT_STATION } from '../src/rework/station.ts';

/** Settings to change, and after how long the phase is given up, s. */
export type Change<K extends KindName> = Partial<SettingsOf<K>> & { limit_s?: number };

/** A phase with some of its settings changed. */
export function changed<P extends Phase>(phase: P, { limit_s = phase.giveUp_s, ...change }: Change<P['kind']>): P {
  return { ...phase, giveUp_s: limit_s, settings: { ...phase.settings, ...change } };
}

const phase = <K extends KindName>(kind: K, settings: SettingsOf<K>, giveUp_s: number) =>
  ({ id: kind, kind, settings, until: { loose: 'all' }, giveUp_s }) as PhaseOf<K>;

/** Usual hot air. */
export const air = (change: Change<'air'> = {}) =>
  changed(phase('air', { set_C: 400, flow_L_min: 45, nozzle_mm: 8, standoff_mm: 10, sweep_mm: 4 }, 150), change);

/** A usual bead of low-melt alloy. */
export const bead = (change: Change<'stroke'> = {}) =>
  changed(
    phase('stroke', { set_C: 350, bead_mm3_mm: 1.2, tip_mm: 3, contact: 1, power_W: 70, stroke_s: 25 }, 60),
    change,
  );

const TIP = { set_C: 360, tip_mm: 3, contact: 1, power_W: 60 };
/** Usual irons without a bead. */
export const tweezers = (change: Change<'tweezers'> = {}) => changed(phase('tweezers', TIP, 60), change);
export const vacuum = (change: Change<'vacuum'> = {}) => changed(phase('vacuum', { ...TIP, dwell_s: 1 }, 60), change);
/** Leaded solder worked in. */
export const spike = (change: Change<'spike'> = {}): PhaseOf<'spike'> => ({
  ...changed(phase('spike', { ...TIP, tip: 'chisel', ratio: 1, most_s: 5 }, 120), change),
  until: { told: true },
});

/** What takes a package off by a recipe: its last phase. */
export function phaseFor(packageId: string, recipe: string): Phase {
  const found = methodsFor(packageId).find((m) => m.method.id === recipe);
  if (!found) throw new Error(`${packageId} has no ${recipe}`);
  return mainPhase(found.method);
}
/** All phases of a recipe for a package. */
export function phasesFor(packageId: string, recipe: string): Phase[] {
  const found = methodsFor(packageId).find((m) => m.method.id === recipe);
  if (!found || found.unfit) throw new Error(`${packageId} has no ${recipe}`);
  return found.method.phases;
}
/** The bead of a package as one phase: what the recipe lays lies there before the iron comes. */
export function beadFor(packageId: string): PhaseOf<'stroke'> {
  const method = methodsFor(packageId).find((m) => m.method.id === 'bead')?.method;
  const [laid, stroked] = [method && phaseOf(method, 'alloy'), method && phaseOf(method, 'stroke')];
  if (!laid || !stroked) throw new Error(`${packageId} has no bead`);
  return changed(stroked, { bead_mm3_mm: laid.settings.bead_mm3_mm });
}

/** A part in the middle of a board, plastic 6 mm away if any. */
export const boardOf = (
  pkg: string,
  boardKind: ExpressAnswers['boardKind'] = 'two-layer',
  plastic: ExpressAnswers['plastic'] = 'none',
): BoardModel => expressBoard({ package: pkg, boardKind, plastic, distance_mm: 6 });

/** A quick plan of the board's target from 22 °C with an unknown station. */
export const planOf = (
  board: BoardModel,
  phases: Phase | Phase[],
  more: Partial<ReworkCase> & { frames?: boolean } = {},
): PlanInput => ({
  board,
  target: 'target',
  phases: [phases].flat(),
  station: DEFAULT_STATION,
  ambient_C: 22,
  quality: 'search',
  frames: false,
  ...more,
});

/** Computes it once. */
export const runOf = (
  board: BoardModel,
  phases: Phase | Phase[],
  more: Partial<ReworkCase> & { frames?: boolean } = {},
): Promise<PlanRun> => runPlan(planOf(board, phases, more), { now: () => 0 });
