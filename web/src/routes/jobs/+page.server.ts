import { now } from '$lib/server/clock';
import { summarise } from '$lib/server/jobSummary';
import { logsOf } from '$lib/server/jobs/logs';
import { suggestionsOf } from '$lib/server/repositories/suggestions';
import {
  listAwaitingPickUp,
  listOpenTickets,
  listTickets,
  PAGE_SIZE,
  partNames,
} from '$lib/server/repositories/tickets';
import type { Database } from '$lib/server/db/connect';
import { currentAttempt, RunningJob } from '@orthos/core';
import { redirect } from '@sveltejs/kit';

/** What a scanned label says. */
const LABEL = /\/jobs\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})$/i;
/** Released jobs stand in the list until they are fetched, for so long. */
const FETCHED_WITHIN_MS = 14 * 86_400_000;

const EMPTY = new RunningJob();

type Row = Awaited<ReturnType<typeof listOpenTickets>>[number];

async function summaries(db: Database, rows: Row[]) {
  const logs = await logsOf(
    db,
    rows.map((r) => r.id),
  );
  const suspects = rows.flatMap(({ id }) => {
    const { suspect } = currentAttempt((logs.get(id) ?? EMPTY).state);
    return suspect ? [{ ticketId: id, partId: suspect.partId }] : [];
  });
  const names = await partNames(db, suspects);
  return rows.map((row) => ({
    ...row,
    ...summarise(logs.get(row.id) ?? EMPTY, row, (partId) => names.get(row.id) ?? partId),
  }));
}

export const load = async ({ locals, url }) => {
  const search = (url.searchParams.get('q') ?? '').slice(0, 100);
  const scanned = LABEL.exec(search);
  if (scanned) redirect(303, `/jobs/${scanned[1]}`);
  const closed = url.searchParams.get('closed') === '1';
  const page = Math.min(10_000, Math.max(1, Math.floor(Number(url.searchParams.get('page'))) || 1));
  if (!search && !closed) {
    const open = await listOpenTickets(locals.db);
    const back = await listAwaitingPickUp(locals.db, new Date(now().getTime() - FETCHED_WITHIN_MS));
    return {
      ...{ search, closed, page, pages: 1, total: open.length, today: true },
      jobs: await summaries(locals.db, [...open, ...back]),
      suggestions: await suggestionsOf(locals.db),
    };
  }
  const { rows, total } = await listTickets(locals.db, { search, closed, page });
  return {
    ...{ search, closed, page, pages: Math.max(1, Math.ceil(total / PAGE_SIZE)), total, today: false },
    jobs: await summaries(locals.db, rows),
    suggestions: [],
  };
};
