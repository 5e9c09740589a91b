import { jobAnswer } from '$lib/server/jobs/jobView';
import { json } from '@sveltejs/kit';

/** Where a job stands; `after`: the newest entry of its log that the page has. */
export const GET = async ({ locals, params, url }) =>
  json(await jobAnswer(locals.db, params.id, url.searchParams.get('after')));
