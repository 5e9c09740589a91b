import { listTickets, partsOfOpenJobs } from '$lib/server/repositories/tickets';
import { json } from '@sveltejs/kit';

/** What may be a part's reference. */
const REFERENCE = /^[a-z]{1,4}\d{1,5}[a-z]?$/i;

/** Open jobs that match, and parts so called on their boards, for the command palette. */
export const GET = async ({ locals, url }) => {
  const search = (url.searchParams.get('q') ?? '').trim().slice(0, 100);
  const [{ rows }, parts] = await Promise.all([
    listTickets(locals.db, { search }),
    REFERENCE.test(search) ? partsOfOpenJobs(locals.db, search) : [],
  ]);
  const jobs = rows
    .slice(0, 20)
    .map(({ id, number, device, customer, complaint }) => ({ id, number, device, customer, complaint }));
  return json({ search, jobs, parts });
};
