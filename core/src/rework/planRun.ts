/** One method on one target, from cold until its window has closed: a `ReworkRun` from beginning to end, with pictures on the way. */
import { type CalcContext, CancelledError } from '../ground/index.ts';
import { OutOfBoundsError } from '../thermal/index.ts';
import { frameRecorder } from './frames.ts';
import type { PlanInput, PlanRun } from './planForm.ts';
import { ReworkRun } from './reworkRun.ts';

/** Go on this long after all joints are wet, to find the window's end, s; less once it has closed this long ago. */
const [AFTER_WET, AFTER_HURT, HURT_S] = [60, 8, 5];
/** A run that leaves its bounds is done again with finer steps, up to so many times as fine; then it is an error. */
const FINEST = 4;

/**
 * Computes one method. `input.target` must be a part of the board with terminals. Throws `OutOfBoundsError` rather than tell a temperature that is
 * not possible.
 */
export async function runPlan(input: PlanInput, context: CalcContext): Promise<PlanRun> {
  for (let finer = 1; ; finer *= 2)
    try {
      return await runWith(input, context, finer);
    } catch (e) {
      if (!(e instanceof OutOfBoundsError) || finer >= FINEST) throw e;
    }
}

async function runWith(input: PlanInput, context: CalcContext, finer: number): Promise<PlanRun> {
  const { limit_s } = input.method;
  const run = new ReworkRun(input, finer);
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
    if (looked && isOver(run)) break;
  }
  return { ...run.result(), ...(recorder ? { frames: recorder.frames() } : {}) };
}

/** Whether all that a plan tells has been seen. */
function isOver(run: ReworkRun): boolean {
  const { allLoose_s: allWet, frozen_s } = run.joints;
  if (frozen_s !== null) return true;
  if (allWet === null) return false;
  const end = run.closes();
  return run.time > allWet + (end && run.time > end.at_s + HURT_S ? AFTER_HURT : AFTER_WET);
}
