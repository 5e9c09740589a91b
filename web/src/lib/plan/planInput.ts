import type { PlanInputs } from '$lib/jobs/view';
import type { BoardModel } from '@orthos/core/board';
import type { Method, PlanInput } from '@orthos/core/rework';

/** What the calculation of one method of a job is asked. */
export function planInputOf(
  board: BoardModel,
  inputs: PlanInputs,
  { phases }: Pick<Method, 'phases'>,
  frames: boolean,
): PlanInput {
  const { target, station, settings, limits, fitting } = inputs;
  const { ambient_C, surroundings } = settings;
  return {
    ...{ board, target, phases, station, ambient_C, ...surroundings, limits, quality: 'plan', frames },
    ...(fitting ? { fitting } : {}),
  };
}
