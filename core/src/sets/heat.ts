/** The heat of one leg: a run from what the board has come to, until the part is off, or every joint of it made. */
import { type CalcContext, CancelledError } from '../ground/index.ts';
import {
  asFineAsNeeded,
  LIFT_S,
  type PlanRun,
  type ReworkCase,
  ReworkRun,
  type RunState,
  stintsOf,
} from '../rework/index.ts';
import type { Leg } from './legs.ts';

export interface Heated {
  run: ReworkRun;
  /** All loose, or all made; null where it never is. */
  loose_s: number | null;
  neighbours: PlanRun['neighbours'];
}

/** What is found at the bench, whichever part is worked at. */
export type Bench = Omit<ReworkCase, 'target' | 'covers' | 'reused' | 'fitting'>;

/** `absent`: parts that are off the board meanwhile; `most_s`: the heat is off by then, for so it went. Throws `OutOfBoundsError` rather than tell what is not possible. */
export function heatLeg(
  bench: Bench,
  leg: Leg,
  {
    start,
    absent,
    lives,
    most_s = Infinity,
  }: { start?: RunState; absent: readonly string[]; lives: boolean; most_s?: number },
  context: CalcContext,
): Promise<Heated> {
  const fitting = leg.op === 'fit';
  const input: ReworkCase = {
    ...bench,
    target: leg.part.partId,
    absent: [...(bench.absent ?? []), ...absent],
    ...(leg.covers ? { covers: leg.covers } : {}),
    ...(lives ? { reused: true } : {}),
    ...(fitting ? { fitting: true } : {}),
  };
  return asFineAsNeeded((finer) =>
    drive(new ReworkRun(input, stintsOf(leg.phases ?? []), { start, finer }), most_s, context),
  );
}

async function drive(run: ReworkRun, most_s: number, context: CalcContext): Promise<Heated> {
  while (run.time < Math.min(run.limit_s, most_s) - 1e-9) {
    const looked = run.step();
    if (run.steps % 50 === 0) {
      if (context.signal?.aborted) throw new CancelledError();
      await context.breathe?.();
    }
    const { allLoose_s } = run.joints;
    if (allLoose_s !== null && run.time >= allLoose_s + LIFT_S) break;
    if (looked && !run.goesOn()) break;
  }
  return { run, loose_s: run.joints.allLoose_s, neighbours: run.result().neighbours };
}

/** Watched so long after the part is off, as if the heat stayed on: when the window would have closed, s. */
const LATER_S = 30;

/** Goes on with the heat until the window closes, or long enough: what the run then tells. What it left has to be taken before. */
export async function watchedOn(
  { run, loose_s }: Heated,
  context: CalcContext,
): Promise<ReturnType<ReworkRun['result']>> {
  const until_s = run.time + LATER_S;
  while (loose_s !== null && run.time < until_s && run.closes() === null && run.joints.frozen_s === null) {
    run.step();
    if (run.steps % 50 !== 0) continue;
    if (context.signal?.aborted) throw new CancelledError();
    await context.breathe?.();
  }
  return run.result();
}

/** Left to the limits of neighbours, K. */
export const RESERVE_K = 5;

/** Who is nearest to its limit, and by how much, K; null where nobody has one. */
export function worstOf({ neighbours }: Pick<Heated, 'neighbours'>): { partId: string; margin_K: number } | null {
  const worst = neighbours.find((n) => typeof n.margin_K === 'number');
  return worst ? { partId: worst.partId, margin_K: worst.margin_K as number } : null;
}
