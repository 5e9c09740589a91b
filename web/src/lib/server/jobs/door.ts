/**
 * The one door through which a job's history grows: under a lock on its ticket the event is judged by what is recorded until then, written, and the
 * ticket closed with it if it says so, all or nothing. Two windows or two servers at once are one after the other here.
 */
import { contentHash } from '@orthos/core/ground';
import type { Step } from '@orthos/core/hands';
import { type GateResult, type JobEvent, judgeEvent, RunningJob, standsAt } from '@orthos/core/job';
import type { Database } from '../db/connect.ts';
import { appendNext } from '../repositories/jobEvents.ts';
import { photosOf } from '../repositories/photos.ts';
import { routinesOf } from '../repositories/routines.ts';
import { closeTicket, lockTicket, modelOfTicket } from '../repositories/tickets.ts';
import { currentLog, grown, knownLog, logOf, type Log } from './logs.ts';
import { groundOf, standingOn } from './standing.ts';

/** An event that may not be written: the sentence, and the field where the event itself is wrong. */
export class EventRefused extends Error {
  readonly status: 400 | 404 | 409;
  readonly field: string | undefined;
  constructor(status: 400 | 404 | 409, message: string, field?: string) {
    super(field ? `${field}: ${message}` : message);
    this.name = 'EventRefused';
    this.status = status;
    this.field = field;
  }
}

/** What became of an event that was judged by a log as far as it was known. */
type Outcome = { refused: EventRefused } | { behind: true } | { written: { seq: number; after: number } | null };

/** Judges an event by a log and writes it behind the last entry of that log, under the ticket's lock. */
async function writeOn(
  tx: Database,
  { closed, ground }: { closed: boolean; ground: Awaited<ReturnType<typeof groundOf>> },
  { job: log, seq }: Log,
  event: JobEvent,
): Promise<Outcome> {
  const { body } = event;
  const refused = (...why: ConstructorParameters<typeof EventRefused>) => ({ refused: new EventRefused(...why) });
  const stored = log.events.find((e) => e.id === event.id);
  if (stored)
    return contentHash(stored.body) === contentHash(body)
      ? { written: null }
      : refused(409, 'An event of this id is stored with another content.', 'id');
  // the answer to its beginning was lost, and it was begun once more as without a server
  if (body.type === 'run-begun' && log.hasRun(body.runId)) return { written: null };
  const { version, state, gates, plan } = await standingOn(tx, ground, log);
  const routines = body.type === 'routine-step' ? await routinesOf(tx, await modelOfTicket(tx, ground.ticket.id)) : [];
  const namesPhotos = body.type === 'photo-placed' || body.type === 'orientation-checked';
  const photos = new Set(namesPhotos ? (await photosOf(tx, ground.ticket.id)).map((p) => p.id) : []);
  const refusal = judgeEvent(body, {
    closed,
    state,
    gates,
    board: version.doc,
    hasEvent: (id) => log.hasEvent(id),
    hasRun: (id) => log.hasRun(id),
    plan: plan && { id: plan.id, methods: Object.keys(plan.results) },
    hasRoutineStep: (id, step) => routines.some((r) => r.id === id && r.steps.some((s) => s.id === step)),
    hasPhoto: (id) => photos.has(id),
  });
  if (refusal) return refused(refusal.field ? 400 : 409, refusal.message, refusal.field);
  const after = log.events.length;
  const written = await appendNext(tx, ground.ticket.id, event, seq);
  return written === undefined ? { behind: true } : { written: { seq: written, after } };
}

/** Writes one event; the same again changes nothing, another content under the same id is refused. */
export async function appendJudged(
  db: Database,
  ticketId: string,
  event: JobEvent,
  now: Date,
): Promise<{ gates: GateResult[]; step: Step }> {
  const { ground, written } = await db.transaction(async (tx) => {
    const locked = await lockTicket(tx, ticketId);
    if (!locked) throw new EventRefused(404, 'There is no such job.');
    const job = { closed: locked.closed, ground: await groundOf(tx, locked) };
    // what this process knows of the log is nearly always all of it; where it is behind, nothing that was judged by it counts
    const known = knownLog(ticketId);
    let outcome = known && (await writeOn(tx, job, known, event));
    if (!outcome || !('written' in outcome)) outcome = await writeOn(tx, job, await currentLog(tx, ticketId), event);
    if ('refused' in outcome) throw outcome.refused;
    if ('behind' in outcome) throw new EventRefused(409, 'An event of this id is stored with another job.', 'id');
    if (outcome.written && event.body.type === 'released') await closeTicket(tx, ticketId, now);
    return { ground: job.ground, written: outcome.written };
  });
  // what was written under the lock is the next of its log: it need not be read again
  const log = (written && grown(ticketId, written, event)) ?? (await logOf(db, ticketId));
  const { gates, state } = await standingOn(db, ground, log);
  return { gates, step: standsAt(state, ground.ticket.kind) };
}

/**
 * Writes events to the logs of several jobs, each judged after those before it: all of them, or none. Locks are taken in one order, so that two who write to the same
 * jobs wait for one another. Throws `EventRefused` with the first that may not be written.
 */
export async function appendAll(
  db: Database,
  entries: readonly { ticketId: string; event: JobEvent }[],
): Promise<void> {
  await db.transaction(async (tx) => {
    const jobs = new Map<string, { job: Parameters<typeof writeOn>[1]; log: Log }>();
    for (const ticketId of [...new Set(entries.map((e) => e.ticketId))].toSorted()) {
      const locked = await lockTicket(tx, ticketId);
      if (!locked) throw new EventRefused(404, 'There is no such job.');
      const { job, seq } = await currentLog(tx, ticketId);
      // what is written here may still be undone: no other request sees it
      const log = { job: new RunningJob(job.events), seq };
      jobs.set(ticketId, { job: { closed: locked.closed, ground: await groundOf(tx, locked) }, log });
    }
    for (const { ticketId, event } of entries) {
      const own = jobs.get(ticketId);
      if (!own) continue;
      const outcome = await writeOn(tx, own.job, own.log, event);
      if ('refused' in outcome) throw outcome.refused;
      if ('behind' in outcome) throw new EventRefused(409, 'An event of this id is stored with another job.', 'id');
      if (!outcome.written) continue;
      own.log.job.append([event]);
      own.log.seq = outcome.written.seq;
    }
  });
}
