import { loadJob } from '$lib/jobs/loadJob';
import { viewOf } from '$lib/jobs/viewOf';

export const load = async ({ data, params, fetch, depends }) => {
  depends('job:view');
  const { fixed, ...page } = data;
  return { ...page, view: viewOf(fixed, await loadJob(params.id, fetch)) };
};
