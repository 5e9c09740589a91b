import { loadJob } from '$lib/jobs/loadJob';
import type { JobView } from '$lib/jobs/view';

export const load = async ({ data, params, fetch, depends }) => {
  depends('job:view');
  const { fixed, ...page } = data;
  const view: JobView = { ...fixed, ...(await loadJob(params.id, fetch)) };
  return { ...page, view };
};
