import { jobView } from '$lib/server/jobs/jobView';

export const load = async ({ locals, params }) => ({ view: await jobView(locals.db, params.id) });
