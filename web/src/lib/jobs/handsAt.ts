/** What hands have to know of a job besides the part: what is in the joints, the shop's rule, what lies on the bench. */
import type { Work } from '@orthos/core/hands';
import type { PlanInputs } from './view.ts';

export const handsAt = (
  inputs: Pick<PlanInputs, 'settings' | 'flood' | 'bench' | 'fitBy'>,
): Required<Pick<Work, 'joints' | 'surroundings' | 'flood' | 'supplies'>> & Pick<Work, 'fitBy'> => ({
  ...(inputs.fitBy ? { fitBy: inputs.fitBy } : {}),
  joints: inputs.settings.surroundings?.joints ?? [],
  surroundings: inputs.settings.surroundings ?? {},
  flood: inputs.flood,
  supplies: inputs.bench.supplies,
});
