import { now } from '$lib/server/clock';
import { summarise, type Block, type JobSummary } from '$lib/jobs/jobSummary';
import { logsOf } from '$lib/server/jobs/logs';
import { boardVersionsById } from '$lib/server/repositories/boardModels';
import { suggestionsOf } from '$lib/server/repositories/suggestions';
import { listAwaitingPickUp, listOpenTickets, listTickets, type TicketRow } from '$lib/server/repositories/tickets';
import type { Database } from '$lib/server/db/connect';
import { UntilWritten } from '$lib/server/db/untilWritten';
import { RunningJob } from '@orthos/core/job';
import { redirect } from '@sveltejs/kit';

/** What a scanned label says. */
const LABEL = /\/jobs\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})$/i;
/** Released jobs stand in the list until they are fetched, for so long. */
const FETCHED_WITHIN_MS = 14 * 86_400_000;
/** Jobs of each kind that a day's list shows. */
const SHOWN = 25;
const BLOCKS: Block[] = ['hands', 'answer', 'part', 'pick-up'];

const EMPTY = new RunningJob();

/** What logs and boards say of rows. A job that was released stays what it is, whatever is still written to it. */
async function summariesOf(db: Database, rows: TicketRow[]): Promise<Map<string, JobSummary>> {
  const [logs, versions] = await Promise.all([
    logsOf(
      db,
      rows.map((r) => r.id),
      (job) => job.state.released !== undefined,
    ),
    boardVersionsById(
      db,
      rows.map((r) => r.boardVersionId),
    ),
  ]);
  return new Map(
    rows.map((row) => {
      const board = versions.get(row.boardVersionId)?.doc;
      const nameOf = (partId: string) => board?.parts.find((p) => p.partId === partId)?.ref ?? partId;
      return [row.id, summarise(logs.get(row.id) ?? EMPTY, row, nameOf)];
    }),
  );
}
const summaryIn = (summaries: Map<string, JobSummary>, { id }: TicketRow): JobSummary => {
  const summary = summaries.get(id);
  if (!summary) throw new Error(`No summary of ticket ${id}`);
  return summary;
};

/** What every list says of a job. */
const rowOf = ({ id, number, kind, device, complaint, customer, promisedOn, closedAt }: TicketRow) => ({
  ...{ id, number, kind, device, complaint, customer, promisedOn },
  closedAt: closedAt?.getTime() ?? null,
});

/** What is on the bench, by what it waits for. */
async function today(db: Database) {
  const [open, back, suggestions] = await Promise.all([
    listOpenTickets(db),
    listAwaitingPickUp(db, new Date(now().getTime() - FETCHED_WITHIN_MS), SHOWN),
    suggestionsOf(db),
  ]);
  const summaries = await summariesOf(db, [...open, ...back.rows]);
  const blocks = BLOCKS.map((id) => {
    const mine = open.filter((row) => summaryIn(summaries, row).block === id);
    const rows = id === 'pick-up' ? [...mine, ...back.rows] : mine;
    return {
      id,
      total: id === 'pick-up' ? mine.length + back.total : mine.length,
      minutes: rows.reduce((sum, row) => sum + summaryIn(summaries, row).minutes, 0),
      jobs: rows.slice(0, SHOWN).map((row) => {
        const { next, minutes, attempt } = summaryIn(summaries, row);
        return { ...rowOf(row), next, minutes, attempt };
      }),
    };
  });
  return { suggestions, blocks };
}

/** One page of a list, by what was asked for. */
async function pageOf(db: Database, asked: Parameters<typeof listTickets>[1]) {
  const { rows, ...page } = await listTickets(db, asked);
  const summaries = await summariesOf(db, rows);
  const jobs = rows.map((row) => {
    const { step, about, attempt, block, next } = summaryIn(summaries, row);
    const waitsFor = asked.closed || block === 'hands' ? row.waitsFor : next.replace(/^waits for /, '');
    return { ...rowOf(row), waitsFor, step, about, attempt };
  });
  return { ...page, jobs };
}

const days = new UntilWritten<Awaited<ReturnType<typeof today>>>(1);
const pages = new UntilWritten<Awaited<ReturnType<typeof pageOf>>>(50);

const numberIn = (params: URLSearchParams, name: string) => {
  const text = params.get(name) ?? '';
  return /^\d{1,9}$/.test(text) ? Number(text) : undefined;
};

export const load = async ({ locals: { db }, url }) => {
  const search = (url.searchParams.get('q') ?? '').slice(0, 100);
  const scanned = LABEL.exec(search);
  if (scanned) redirect(303, `/jobs/${scanned[1]}`);
  const closed = url.searchParams.get('closed') === '1';
  if (closed || search !== '' || url.searchParams.get('all') === '1') {
    const [before, after] = [numberIn(url.searchParams, 'before'), numberIn(url.searchParams, 'after')];
    const asked = { search, closed, before, after };
    return { search, closed, today: null, page: await pages.read(db, JSON.stringify(asked), () => pageOf(db, asked)) };
  }
  // who waits to be fetched also goes by the clock
  const minute = String(Math.floor(now().getTime() / 60_000));
  return { search, closed, today: await days.read(db, minute, () => today(db)), page: null };
};
