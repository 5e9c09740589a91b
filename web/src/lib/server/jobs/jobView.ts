/** One job as its pages see it: the board it is about, and where it stands now. */
import type { Step } from '@orthos/core/hands';
import { type JobEvent, standsAt } from '@orthos/core/job';
import { error } from '@sveltejs/kit';
import type { BoardView, JobAnswer, JobView } from '../../jobs/view.ts';
import { viewOf } from '../../jobs/viewOf.ts';
import type { Database } from '../db/connect.ts';
import { boardVersionById } from '../repositories/boardModels.ts';
import { photosOf } from '../repositories/photos.ts';
import { reopeningsOf, ticketById } from '../repositories/tickets.ts';
import { leadWasUsed } from './lead.ts';
import { logOf } from './logs.ts';
import { standingOf } from './standing.ts';

const noJob = () => error(404, 'There is no such job.');

/** The board of a job; 404 when there is no such job. */
export async function boardView(db: Database, id: string): Promise<BoardView> {
  const found = (await ticketById(db, id)) ?? noJob();
  const version = await boardVersionById(db, found.ticket.boardVersionId);
  if (!version) throw new Error(`Ticket ${found.ticket.number} pins a board version that does not exist`);
  const { doc, number, hash } = version;
  return { board: doc, boardVersion: { id: version.id, number, hash }, modelId: found.modelId };
}

/** The step a job opens at: where it stands, a closed one at its end; 404 when there is no such job. */
export async function openingStep(db: Database, id: string): Promise<Step> {
  const { ticket } = (await ticketById(db, id)) ?? noJob();
  return ticket.closedAt ? 'release' : standsAt((await logOf(db, id)).state, ticket.kind);
}

/** What was written to a log after an event; all of it where there is no such event. */
function newsOf(events: readonly JobEvent[], after: string | null): JobAnswer['log'] {
  const at = after === null ? -1 : events.findLastIndex((e) => e.id === after);
  return { after: at < 0 ? null : after, events: events.slice(at + 1) };
}

/** Where a job stands now, with its log after an event; 404 when there is no such job. */
export async function jobAnswer(db: Database, id: string, after: string | null): Promise<JobAnswer> {
  const found = (await ticketById(db, id)) ?? noJob();
  const { ticket, customer, serial } = found;
  const [{ log, state, gates, inputs, plan, freshness, inUse, layOut, hotNeighbours, target }, photos, reopenings] =
    await Promise.all([standingOf(db, found), photosOf(db, id), reopeningsOf(db, ticket)]);
  return {
    ticket: {
      id,
      number: ticket.number,
      kind: ticket.kind,
      boardVersionId: ticket.boardVersionId,
      boardId: ticket.boardId,
      device: ticket.device,
      complaint: ticket.complaint,
      inBox: ticket.inBox,
      waitsFor: ticket.waitsFor,
      promisedOn: ticket.promisedOn,
      createdAt: ticket.createdAt.getTime(),
      closedAt: ticket.closedAt?.getTime() ?? null,
      version: ticket.version,
    },
    customer: { name: customer.name, contact: customer.contact },
    serial,
    step: standsAt(state, ticket.kind),
    gates,
    inputs,
    plan: plan && { id: plan.id, results: plan.results, whole: plan.whole },
    freshness,
    inUse,
    layOut,
    hotNeighbours,
    leadUsed: leadWasUsed(state, target?.package, inputs?.flood),
    photos: photos.map(({ id: photoId, taken, width, height }) => ({ id: photoId, taken, width, height })),
    reopenings,
    log: newsOf(log.events, after),
  };
}

/** Board and job at once, as the record prints them. */
export async function jobView(db: Database, id: string): Promise<JobView> {
  const board = await boardView(db, id);
  const { log, ...standing } = await jobAnswer(db, id, null);
  return viewOf(board, { ...standing, events: log.events });
}
