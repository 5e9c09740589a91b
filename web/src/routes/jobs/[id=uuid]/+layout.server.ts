import { boardView } from '$lib/server/jobs/jobView';
import { circuitsOf } from '$lib/server/repositories/circuits';

/** What stays while a job is open: its board, and the circuits drawn for that kind of board. Read again only when one of them is another. */
export const load = async ({ locals, params, depends }) => {
  depends('job:board');
  const fixed = await boardView(locals.db, params.id);
  return { fixed, circuits: await circuitsOf(locals.db, fixed.modelId) };
};
