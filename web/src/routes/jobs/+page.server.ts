import { eventsOfMany } from '$lib/server/repositories/jobEvents';
import { listTickets, PAGE_SIZE } from '$lib/server/repositories/tickets';
import { summarise } from '$lib/server/jobSummary';
import { redirect } from '@sveltejs/kit';

/** What a scanned label says. */
const LABEL = /\/jobs\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})$/i;

export const load = async ({ locals, url }) => {
  const search = (url.searchParams.get('q') ?? '').slice(0, 100);
  const scanned = LABEL.exec(search);
  if (scanned) redirect(303, `/jobs/${scanned[1]}`);
  const closed = url.searchParams.get('closed') === '1';
  const page = Math.min(10_000, Math.max(1, Math.floor(Number(url.searchParams.get('page'))) || 1));
  const { rows, total } = await listTickets(locals.db, { search, closed, page });
  const logs = await eventsOfMany(
    locals.db,
    rows.map((r) => r.id),
  );
  return {
    search,
    closed,
    page,
    pages: Math.max(1, Math.ceil(total / PAGE_SIZE)),
    total,
    jobs: rows.map((row) => ({ ...row, ...summarise(logs.get(row.id) ?? [], row.kind) })),
  };
};
