import { loadJob } from '$lib/jobs/loadJob';
import { viewOf } from '$lib/jobs/viewOf';

export const load = async ({ params, fetch, depends, parent }) => {
  depends('job:view');
  const [{ fixed }, job] = await Promise.all([parent(), loadJob(params.id, fetch)]);
  return { view: viewOf(fixed, job) };
};
