import { loadJob } from '$lib/jobs/loadJob';
import type { JobView } from '$lib/jobs/view';

export const load = async ({ params, fetch, depends, parent }) => {
  depends('job:view');
  const [{ fixed }, job] = await Promise.all([parent(), loadJob(params.id, fetch)]);
  const view: JobView = { ...fixed, ...job };
  return { view };
};
