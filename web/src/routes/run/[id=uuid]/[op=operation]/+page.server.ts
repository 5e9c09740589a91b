import { jobView } from '$lib/server/jobs/jobView';
import { env } from '$env/dynamic/private';

export const load = async ({ locals, params, depends }) => {
  depends('job:view');
  return { view: await jobView(locals.db, params.id), op: params.op, demo: env.ORTHOS_DEMO === '1' };
};
