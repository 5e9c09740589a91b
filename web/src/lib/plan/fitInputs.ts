import type { JobView, PlanInputs } from '$lib/jobs/view';
import { landsAfter, preparedLands } from '@orthos/core/hands';
import { type Attempt } from '@orthos/core/job';
import type { Method, MethodChoice } from '@orthos/core/rework';

/** It was put on before, and stands on its lands: what is done now is done in place. */
export const standsThere = ({ runs }: Pick<Attempt, 'runs'>): boolean => {
  const last = runs.findLast((r) => r.op !== 'prepare' && r.ended?.outcome === 'finished');
  return last?.op === 'fit';
};

/** The ways that come into question for a part that stands there, or does not. */
export const fitsFor = (fits: readonly MethodChoice[], again: boolean): MethodChoice[] =>
  fits.filter((c) => (c.again ?? false) === again);

/** What a plan of putting a part on is computed from: lands as they are once made ready, after it came off by `by`; or, in place, its joints as they were made. */
export function fitInputs(
  { board, inputs }: Pick<JobView, 'board'> & { inputs: PlanInputs },
  by: Method | undefined,
  again = false,
): PlanInputs {
  const { settings, fits, flood } = inputs;
  const { joints: left, reused: _, ...around } = settings.surroundings ?? {};
  const target = board.parts.find((p) => p.partId === inputs.target);
  const made = preparedLands({ board, flood });
  const bare =
    target && by ? landsAfter({ target, board, method: by, flood, ...(left ? { joints: left } : {}) }) : made;
  const joints = again ? made.map((j) => ({ ...j, volume: 1 })) : bare;
  return {
    ...inputs,
    methods: fitsFor(fits, again),
    settings: { ...settings, surroundings: { ...around, joints } },
    fitting: true,
  };
}
