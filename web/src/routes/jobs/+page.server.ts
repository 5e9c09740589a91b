import { now } from '$lib/server/clock';
import { summarise } from '$lib/server/jobSummary';
import { logsOf } from '$lib/server/jobs/logs';
import { boardVersionsById } from '$lib/server/repositories/boardModels';
import { suggestionsOf } from '$lib/server/repositories/suggestions';
import {
  countOpenTickets,
  listAwaitingPickUp,
  listOpenTickets,
  listTickets,
  PAGE_SIZE,
  type TicketRow,
} from '$lib/server/repositories/tickets';
import type { Database } from '$lib/server/db/connect';
import { RunningJob } from '@orthos/core';
import { redirect } from '@sveltejs/kit';

/** What a scanned label says. */
const LABEL = /\/jobs\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})$/i;
/** Released jobs stand in the list until they are fetched, for so long. */
const FETCHED_WITHIN_MS = 14 * 86_400_000;

const EMPTY = new RunningJob();

/** Rows with what their logs and boards say. */
async function summaries(db: Database, rows: TicketRow[]) {
  const logs = await logsOf(
    db,
    rows.map((r) => r.id),
  );
  const versions = await boardVersionsById(
    db,
    rows.map((r) => r.boardVersionId),
  );
  return rows.map((row) => {
    const board = versions.get(row.boardVersionId)?.doc;
    const nameOf = (partId: string) => board?.parts.find((p) => p.partId === partId)?.ref ?? partId;
    return { ...row, board: board?.name ?? '', ...summarise(logs.get(row.id) ?? EMPTY, row, nameOf) };
  });
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
      ...{ search, closed, page, pages: 1, total: await countOpenTickets(locals.db), today: true },
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
