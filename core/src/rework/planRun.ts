/** One procedure on one target until its window has closed: a `ReworkRun` from beginning to end, phase by phase, with pictures on the way. */
import { type CalcContext, CancelledError } from '../ground/index.ts';
import { asFineAsNeeded } from './bench/finer.ts';
import { frameRecorder } from './bench/frames.ts';
import { ReworkRun } from './bench/reworkRun.ts';
import type { PlanRun } from './bench/runForm.ts';
import { LIFT_S } from './bench/runTimes.ts';
import { stintsOf } from './stints.ts';
import { Hopeless } from './hopeless.ts';
import type { PlanInput } from './planForm.ts';

/** Solder is watched for so long while it freezes, s. */
const FREEZES_S = 120;
/** Go on this long after all joints are wet, to find the window's end, s; less once it has closed this long ago. */
const [AFTER_WET, AFTER_HURT, HURT_S] = [60, 8, 5];

/**
 * How far a run goes: until all that a plan tells was seen; no further than a little after its window has shut for good, joints solid or not, or until it is sure
 * that they stay so, their peaks then as they would have become; until the part
 * is lifted and what is left on its lands has frozen.
 */
export type Until = 'told' | 'shut' | 'frozen';

/** Computes one procedure. `input.target` must be a part of the board with terminals. Throws `OutOfBoundsError` rather than tell a temperature that is not possible. */
export function runPlan(input: PlanInput, context: CalcContext, until: Until = 'told'): Promise<PlanRun> {
  const as = asItGoesOn(input);
  return asFineAsNeeded((finer) => drive(new ReworkRun(as, stintsOf(as.phases), { finer }), as, context, until));
}

/** What most sockets for chips are moulded of. */
const SOCKET = 'pbt-gf';

/** Where a socket goes on instead of the part, its own plastic is what has to live. */
function asItGoesOn(input: PlanInput): PlanInput {
  if (!input.phases.some((p) => p.kind === 'place' && p.settings.socket)) return input;
  const parts = input.board.parts.map((part) => {
    if (part.partId !== input.target) return part;
    // the chip's own papers say nothing of the socket
    const { ownLimit: _, ...chip } = part;
    return { ...chip, limit: SOCKET };
  });
  return { ...input, board: { ...input.board, parts } };
}

async function drive(run: ReworkRun, input: PlanInput, context: CalcContext, until: Until): Promise<PlanRun> {
  // what goes on is always watched until it holds
  const freezes = input.fitting || until === 'frozen';
  const { limit_s } = run;
  const recorder = input.frames ? frameRecorder(run.mesh, limit_s) : undefined;
  const hopeless = until === 'shut' ? new Hopeless() : undefined;
  let never = false;
  let pictured = -0.1;
  while (run.time < limit_s - 1e-9) {
    const looked = run.step();
    never = hopeless?.look(run) ?? false;
    if (never) break;
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
    if (looked && (isOver(run, freezes) || (until === 'shut' && isShut(run)) || !run.goesOn())) break;
  }
  const result = never && hopeless ? hopeless.asIfTold(run) : run.result();
  const told = { ...result, ...(recorder ? { frames: recorder.frames() } : {}) };
  if (!freezes || told.allWet_s === null) return told;
  run.leave();
  const left_s = run.time;
  const all = (is: (i: number) => boolean) => run.joints.joints.every((_, i) => is(i));
  const frozen_s = await watched(run, context, left_s, () => all((i) => run.joints.isSet(i)));
  const solid_s = await watched(run, context, left_s, () => all((i) => run.joints.isSet(i, true)));
  if (input.fitting) return { ...told, sets: { frozen_s, solid_s } };
  const isCool = () => all((i) => !run.joints.isHalfWay(i, input.ambient_C));
  return { ...told, sets: { frozen_s, solid_s, warm_s: await watched(run, context, left_s, isCool) } };
}

/** Goes on without heat until something is so: how long that took since the heat left, s; null where it takes too long. */
async function watched(
  run: ReworkRun,
  context: CalcContext,
  left_s: number,
  is: () => boolean,
): Promise<number | null> {
  while (!is()) {
    if (run.time >= left_s + FREEZES_S) return null;
    run.step();
    if (run.steps % 50 !== 0) continue;
    if (context.signal?.aborted) throw new CancelledError();
    await context.breathe?.();
  }
  return run.time - left_s;
}

/** Whether a neighbour was hurt a while ago, and joints are still solid. */
function isShut(run: ReworkRun): boolean {
  if (run.joints.allLoose_s !== null) return false;
  const end = run.closes();
  return end !== null && run.time > end.at_s + AFTER_HURT;
}

/** Whether all that a plan tells has been seen. */
function isOver(run: ReworkRun, freezes: boolean): boolean {
  const { allLoose_s: allWet, frozen_s } = run.joints;
  // what is soldered joint by joint is done with the last; what melts all together is left to settle
  if (freezes) return allWet !== null && run.time > allWet + (run.joints.allFreed ? 0 : LIFT_S);
  if (frozen_s !== null) return true;
  if (allWet === null) return false;
  if (run.isDone) return run.time > allWet + LIFT_S;
  const end = run.closes();
  return run.time > allWet + (end && run.time > end.at_s + HURT_S ? AFTER_HURT : AFTER_WET);
}
