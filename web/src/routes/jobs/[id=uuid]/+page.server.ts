import { openingStep } from '$lib/server/jobs/jobView';
import { redirect } from '@sveltejs/kit';

export const load = async ({ locals, params, url }) =>
  redirect(307, `/jobs/${params.id}/${await openingStep(locals.db, params.id)}${url.search}`);
