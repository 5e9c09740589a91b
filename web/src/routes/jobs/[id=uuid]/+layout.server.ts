import { jobView } from '$lib/server/jobs/jobView';

export const load = async ({ locals, params, depends }) => {
  depends('job:view');
  return { view: await jobView(locals.db, params.id) };
};
