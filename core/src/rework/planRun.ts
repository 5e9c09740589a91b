/** One procedure on one target until its window has closed: a `ReworkRun` from beginning to end, phase by phase, with pictures on the way. */
import { type CalcContext, CancelledError } from '../ground/index.ts';
import { asFineAsNeeded } from './bench/finer.ts';
import { frameRecorder } from './bench/frames.ts';
import { ReworkRun } from './bench/reworkRun.ts';
import { LIFT_S, type PlanRun } from './bench/runForm.ts';
import { stintsOf } from './stints.ts';
import type { PlanInput } from './planForm.ts';

/** What was put on is watched for so long while it freezes, s. */
const FREEZES_S = 120;
/** Go on this long after all joints are wet, to find the window's end, s; less once it has closed this long ago. */
const [AFTER_WET, AFTER_HURT, HURT_S] = [60, 8, 5];

/**
 * Computes one procedure. `input.target` must be a part of the board with terminals. `untilShut`: no further than a little after its window has shut
 * for good, joints solid or not. Throws `OutOfBoundsError` rather than tell a temperature that is not possible.
 */
export function runPlan(input: PlanInput, context: CalcContext, untilShut = false): Promise<PlanRun> {
  return asFineAsNeeded((finer) =>
    drive(new ReworkRun(input, stintsOf(input.phases), { finer }), input, context, untilShut),
  );
}

async function drive(run: ReworkRun, input: PlanInput, context: CalcContext, untilShut: boolean): Promise<PlanRun> {
  const { limit_s } = run;
  const recorder = input.frames ? frameRecorder(run.mesh, limit_s) : undefined;
  let pictured = -0.1;
  while (run.time < limit_s - 1e-9) {
    const looked = run.step();
    recorder?.take(run.time, run.heat.cells_C);
    if (run.steps % 50 === 0) {
      if (context.signal?.aborted) throw new CancelledError();
      // an early picture each tenth of the way
      const done = run.time / limit_s;
      const picture = recorder && done >= pictured + 0.1;
      if (picture) pictured = done;
      context.progress?.(done, picture ? recorder.frames() : undefined);
      await context.breathe?.();
    }
    if (looked && (isOver(run, input) || (untilShut && isShut(run)) || !goesOn(run))) break;
  }
  const told = { ...run.result(), ...(recorder ? { frames: recorder.frames() } : {}) };
  return input.fitting && told.allWet_s !== null ? { ...told, sets: await freeze(run, context) } : told;
}

/** The heat leaves what was put on: when it holds, and when nothing of it is liquid any more. */
async function freeze(run: ReworkRun, context: CalcContext): Promise<NonNullable<PlanRun['sets']>> {
  run.leave();
  const left_s = run.time;
  const all = (through?: true) => run.joints.joints.every((_, i) => run.joints.isSet(i, through));
  let frozen_s: number | null = null;
  while (run.time < left_s + FREEZES_S) {
    run.step();
    if (frozen_s === null && all()) frozen_s = run.time - left_s;
    if (frozen_s !== null && all(true)) return { frozen_s, solid_s: run.time - left_s };
    if (run.steps % 50 !== 0) continue;
    if (context.signal?.aborted) throw new CancelledError();
    await context.breathe?.();
  }
  return { frozen_s, solid_s: null };
}

/** Hands over where a phase has come to its end; false where the work ends there, with joints that hold. */
function goesOn(run: ReworkRun): boolean {
  const over = run.phaseIsOver();
  // once all are loose the part is lifted in this phase
  return over === 'no' || run.joints.allLoose_s !== null || run.next(over);
}

/** Whether a neighbour was hurt a while ago, and joints are still solid. */
function isShut(run: ReworkRun): boolean {
  if (run.joints.allLoose_s !== null) return false;
  const end = run.closes();
  return end !== null && run.time > end.at_s + AFTER_HURT;
}

/** Whether all that a plan tells has been seen. */
function isOver(run: ReworkRun, { fitting }: Pick<PlanInput, 'fitting'>): boolean {
  const { allLoose_s: allWet, frozen_s } = run.joints;
  // what is soldered joint by joint is done with the last; what melts all together is left to settle
  if (fitting) return allWet !== null && run.time > allWet + (run.joints.allFreed ? 0 : LIFT_S);
  if (frozen_s !== null) return true;
  if (allWet === null) return false;
  if (run.isDone) return run.time > allWet + LIFT_S;
  const end = run.closes();
  return run.time > allWet + (end && run.time > end.at_s + HURT_S ? AFTER_HURT : AFTER_WET);
}
