import type { JobView, PlanInputs } from '$lib/jobs/view';
import type { BoardModel } from '@orthos/core/board';
import { landsAfter, preparedLands } from '@orthos/core/hands';
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

/** The same of putting it on: from lands as they are once they were made ready, after it came off by `by`. */
export function fitInputs(
  { board, inputs }: Pick<JobView, 'board'> & { inputs: PlanInputs },
  by: Method | undefined,
): PlanInputs {
  const { settings, fits, flood } = inputs;
  const { joints: left, reused: _, ...around } = settings.surroundings ?? {};
  const target = board.parts.find((p) => p.partId === inputs.target);
  const joints =
    target && by
      ? landsAfter({ target, board, method: by, flood, ...(left ? { joints: left } : {}) })
      : preparedLands({ board, flood });
  return { ...inputs, methods: fits, settings: { ...settings, surroundings: { ...around, joints } }, fitting: true };
}
