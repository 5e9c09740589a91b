/** Usual methods and plans for tests. */
import { DEFAULT_STATION } from '../src/rework/defaults.ts';
import { expressBoard, type ExpressAnswers } from '../src/rework/expressBoard.ts';
import type { AirMethod, LowMeltMethod, Method } from '../src/rework/method.ts';
import type { PlanInput, PlanRun } from '../src/rework/planForm.ts';
import { runPlan } from '../src/rework/planRun.ts';
import type { BoardModel } from '../src/board/boardModel.ts';

/** A usual hot-air method. */
export const air = (change: Partial<AirMethod> = {}): AirMethod => ({
  kind: 'air',
  label: 'air',
  set_C: 400,
  flow_L_min: 45,
  nozzle_mm: 8,
  standoff_mm: 10,
  sweep_mm: 4,
  limit_s: 150,
  ...change,
});

/** A usual bead of low-melt alloy. */
export const bead = (change: Partial<LowMeltMethod> = {}): LowMeltMethod => ({
  kind: 'low-melt',
  label: 'bead',
  set_C: 350,
  bead_mm3_mm: 1.2,
  tip_mm: 3,
  contact: 1,
  power_W: 70,
  stroke_s: 25,
  limit_s: 60,
  ...change,
});

/** A part in the middle of a board, plastic 6 mm away if any. */
export const boardOf = (
  pkg: string,
  boardKind: ExpressAnswers['boardKind'] = 'two-layer',
  plastic: ExpressAnswers['plastic'] = 'none',
): BoardModel => expressBoard({ package: pkg, boardKind, plastic, distance_mm: 6 });

/** A quick plan of the board's target from 22 °C with an unknown station. */
export const planOf = (board: BoardModel, method: Method, more: Partial<PlanInput> = {}): PlanInput => ({
  board,
  target: 'target',
  method,
  station: DEFAULT_STATION,
  ambient_C: 22,
  quality: 'search',
  frames: false,
  ...more,
});

/** Computes it once. */
export const runOf = (board: BoardModel, method: Method, more: Partial<PlanInput> = {}): Promise<PlanRun> =>
  runPlan(planOf(board, method, more), { now: () => 0 });
