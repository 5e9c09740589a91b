/**
 * The lowest set-point of an iron whose bead keeps every joint liquid for a lift after the iron has left, on this board: by halving over quick
 * runs in which the tip is as much colder than its dial as the iron may be. A colder tip spares flux, lands and laminate.
 */
import type { CalcContext } from '../ground/index.ts';
import type { PlanRun } from './bench/runForm.ts';
import { LIFT_S } from './bench/runTimes.ts';
import type { Phase, PhaseOf } from './phases/schema.ts';
import type { PlanInput } from './planForm.ts';
import { runPlan } from './planRun.ts';

/** Set-points tried, °C: what irons can be set to for soldering, by the step people set. */
const TRIED = { from_C: 220, to_C: 420, step_K: 10 };

/** Whether all joints melt at once and stay so for a lift after the iron has left. */
function holds({ allWet_s, hold_s, ended_s, phases }: PlanRun, stroke_s: number): boolean {
  if (allWet_s === null) return false;
  const left_s = (phases?.at(-1)?.from_s ?? 0) + stroke_s;
  return (hold_s ?? ended_s - left_s) >= LIFT_S;
}

/** °C of the dial; null where the hottest tried does not: such a part is lifted while the iron strokes. */
export async function lowestTip(
  input: PlanInput,
  phase: PhaseOf<'stroke'>,
  context: CalcContext,
): Promise<number | null> {
  const { from_C, to_C, step_K } = TRIED;
  const steps = (to_C - from_C) / step_K;
  const rounds = Math.ceil(Math.log2(steps + 1));
  let done = 0;
  const does = async (step: number): Promise<boolean> => {
    const set_C = from_C + step * step_K - input.station.ironPlusMinus_K;
    const run = await runPlan(
      {
        ...input,
        // the same iron lays the alloy
        phases: input.phases.map(
          (p) => ('set_C' in p.settings ? { ...p, settings: { ...p.settings, set_C } } : p) as Phase,
        ),
        quality: 'search',
        frames: false,
        books: false,
      },
      { ...context, progress: undefined },
    );
    context.progress?.(Math.min(1, ++done / rounds));
    return holds(run, phase.settings.stroke_s);
  };
  // the lowest step that does is above `no`, at or below `yes`; one past the last stands for none
  let [no, yes] = [-1, steps + 1];
  while (yes - no > 1) {
    const middle = Math.floor((no + yes) / 2);
    if (await does(middle)) yes = middle;
    else no = middle;
  }
  return yes > steps ? null : from_C + yes * step_K;
}
