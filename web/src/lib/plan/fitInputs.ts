import type { JobView, PlanInputs } from '$lib/jobs/view';
import { landsAfter, preparedLands } from '@orthos/core/hands';
import type { Method } from '@orthos/core/rework';

/** What a plan of putting a part on is computed from: from lands as they are once they were made ready, after it came off by `by`. */
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
