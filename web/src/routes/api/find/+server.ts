import type { Found } from '$lib/jobs/found';
import { boardModelsNamed } from '$lib/server/repositories/boardModels';
import { listTickets, partsOfOpenJobs } from '$lib/server/repositories/tickets';
import { json } from '@sveltejs/kit';

/** What may be a part's reference. */
const REFERENCE = /^[a-z]{1,4}\d{1,5}[a-z]?$/i;

export const GET = async ({ locals, url }) => {
  const search = (url.searchParams.get('q') ?? '').trim().slice(0, 100);
  const [{ rows }, boards, parts] = await Promise.all([
    listTickets(locals.db, { search }),
    boardModelsNamed(locals.db, search, 12),
    REFERENCE.test(search) ? partsOfOpenJobs(locals.db, search) : [],
  ]);
  const jobs = rows
    .slice(0, 20)
    .map(({ id, number, device, customer, complaint }) => ({ id, number, device, customer, complaint }));
  return json({ search, jobs, boards, parts } satisfies Found);
};
