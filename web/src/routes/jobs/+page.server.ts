import { now } from '$lib/server/clock';
import { summarise, type Block } from '$lib/jobs/jobSummary';
import { logsOf } from '$lib/server/jobs/logs';
import { boardVersionsById } from '$lib/server/repositories/boardModels';
import { suggestionsOf } from '$lib/server/repositories/suggestions';
import { listAwaitingPickUp, listOpenTickets, listTickets, type TicketRow } from '$lib/server/repositories/tickets';
import type { Database } from '$lib/server/db/connect';
import { RunningJob } from '@orthos/core';
import { redirect } from '@sveltejs/kit';

/** What a scanned label says. */
const LABEL = /\/jobs\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})$/i;
/** Released jobs stand in the list until they are fetched, for so long. */
const FETCHED_WITHIN_MS = 14 * 86_400_000;
/** Jobs of each kind that a day's list shows. */
const SHOWN = 40;
const BLOCKS: Block[] = ['hands', 'answer', 'part', 'pick-up'];

const EMPTY = new RunningJob();

/** Rows with what their logs and boards say. */
async function summaries(db: Database, rows: TicketRow[]) {
  const [logs, versions] = await Promise.all([
    logsOf(
      db,
      rows.map((r) => r.id),
    ),
    boardVersionsById(
      db,
      rows.map((r) => r.boardVersionId),
    ),
  ]);
  return rows.map(({ boardVersionId, closedAt, ...row }) => {
    const board = versions.get(boardVersionId)?.doc;
    const nameOf = (partId: string) => board?.parts.find((p) => p.partId === partId)?.ref ?? partId;
    return { ...row, closedAt: closedAt?.getTime() ?? null, ...summarise(logs.get(row.id) ?? EMPTY, row, nameOf) };
  });
}

/** What is on the bench, by what it waits for. */
async function today(db: Database) {
  const [open, back, suggestions] = await Promise.all([
    listOpenTickets(db),
    listAwaitingPickUp(db, new Date(now().getTime() - FETCHED_WITHIN_MS)),
    suggestionsOf(db),
  ]);
  const jobs = await summaries(db, [...open, ...back]);
  const blocks = BLOCKS.map((id) => {
    const mine = jobs.filter((j) => j.block === id);
    return {
      ...{ id, jobs: mine.slice(0, SHOWN), total: mine.length },
      minutes: mine.reduce((sum, j) => sum + j.minutes, 0),
    };
  });
  return { blocks, suggestions };
}

const numberIn = (params: URLSearchParams, name: string) => {
  const text = params.get(name) ?? '';
  return /^\d{1,9}$/.test(text) ? Number(text) : undefined;
};

export const load = async ({ locals, url }) => {
  const search = (url.searchParams.get('q') ?? '').slice(0, 100);
  const scanned = LABEL.exec(search);
  if (scanned) redirect(303, `/jobs/${scanned[1]}`);
  const closed = url.searchParams.get('closed') === '1';
  const listed = closed || search !== '' || url.searchParams.get('all') === '1';
  if (!listed) return { search, closed, today: await today(locals.db), page: null };
  const [before, after] = [numberIn(url.searchParams, 'before'), numberIn(url.searchParams, 'after')];
  const { rows, ...page } = await listTickets(locals.db, { search, closed, before, after });
  const jobs = (await summaries(locals.db, rows)).map(
    ({ id, number, kind, device, complaint, customer, waitsFor, promisedOn, closedAt, step, about, attempt }) => ({
      ...{ id, number, kind, device, complaint, customer, waitsFor, promisedOn, closedAt },
      ...{ step, about, attempt },
    }),
  );
  return { search, closed, today: null, page: { ...page, jobs } };
};
