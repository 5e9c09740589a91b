import { modelHistoryOf } from '$lib/server/modelHistoryOf';
import { modelNames } from '$lib/server/repositories/boardModels';
import { ticketById } from '$lib/server/repositories/tickets';
import { error } from '@sveltejs/kit';

/** Earlier jobs on this kind of board, and the kinds there are: read once per job, not with every event. */
export const load = async ({ locals, params }) => {
  const found = await ticketById(locals.db, params.id);
  if (!found) error(404, 'There is no such job.');
  const [history, models] = await Promise.all([
    modelHistoryOf(locals.db, found.modelId, params.id),
    modelNames(locals.db),
  ]);
  return { history, models };
};
