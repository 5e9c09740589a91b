import { asMeasured } from '@orthos/core/job';
import { stateOf } from '$lib/jobs/stateOf';
import { loadJob } from '$lib/jobs/loadJob';
import type { JobView } from '$lib/jobs/view';

export const load = async ({ params, fetch, depends, parent }) => {
  depends('job:view');
  const [{ fixed }, job] = await Promise.all([parent(), loadJob(params.id, fetch)]);
  const view: JobView = { ...fixed, ...job, board: asMeasured(fixed.board, stateOf(job.events)) };
  return { view };
};
