import { boardView } from '$lib/server/jobs/jobView';
import { env } from '$env/dynamic/private';

export const load = async ({ locals, params, depends }) => {
  depends('job:board');
  return { fixed: await boardView(locals.db, params.id), op: params.op, demo: env.ORTHOS_DEMO === '1' };
};
