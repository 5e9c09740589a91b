import { modelHistoryOf } from '$lib/server/modelHistoryOf';
import { modelNames } from '$lib/server/repositories/boardModels';
import { ticketById } from '$lib/server/repositories/tickets';
import { error } from '@sveltejs/kit';

/** Steps that look at earlier jobs. */
const READERS = new Set(['intake', 'diagnose']);

/** Earlier jobs on this kind of board, and the kinds there are: read once per job, not with every event. */
export const load = async ({ locals, params }) => {
  const found = await ticketById(locals.db, params.id);
  if (!found) error(404, 'There is no such job.');
  const [history, models] = await Promise.all([
    READERS.has(params.step) ? modelHistoryOf(locals.db, found.modelId, params.id) : null,
    params.step === 'diagnose' ? modelNames(locals.db) : [],
  ]);
  return { history, models };
};
