/** Logs of jobs, folded, as far as they have been asked for: only what was written since is read. */
import { type JobEvent, RunningJob } from '@orthos/core/job';
import type { Database } from '../db/connect.ts';
import { Kept } from '../kept.ts';
import { eventsAfter } from '../repositories/jobEvents.ts';

export interface Log {
  job: RunningJob;
  /** Order of the last event taken up. */
  seq: number;
}
/** More than the open jobs of a day's list and the earlier jobs of a kind of board. */
const kept = new Kept<Log>(1500);

/**
 * The logs of these jobs by ticket. Not to be changed by who gets them.
 * @param enough which logs need not be looked after: what is wanted of them does not change any more
 */
export async function logsOf(
  db: Database,
  ticketIds: readonly string[],
  enough: (job: RunningJob) => boolean = () => false,
): Promise<Map<string, RunningJob>> {
  const logs = new Map(ticketIds.map((id): [string, Log] => [id, kept.get(id) ?? { job: new RunningJob(), seq: 0 }]));
  const asked = [...logs].flatMap(([ticketId, { job, seq }]) => (enough(job) ? [] : [{ ticketId, seq }]));
  const rows = await eventsAfter(db, asked);
  const fresh = new Map<Log, typeof rows>();
  for (const row of rows) {
    const log = logs.get(row.ticketId);
    // another request may have taken it up meanwhile
    if (!log || row.seq <= log.seq) continue;
    const news = fresh.get(log) ?? [];
    news.push(row);
    fresh.set(log, news);
  }
  for (const [log, news] of fresh) {
    log.job.append(news.map((r) => r.event));
    log.seq = news[news.length - 1].seq;
  }
  for (const [id, log] of logs) kept.set(id, log);
  return new Map([...logs].map(([id, { job }]) => [id, job]));
}

export async function logOf(db: Database, ticketId: string): Promise<RunningJob> {
  return (await logsOf(db, [ticketId])).get(ticketId) ?? new RunningJob();
}

/** A log as this process knows it, which may be behind; nothing when it was never asked for. */
export function knownLog(ticketId: string): Log | undefined {
  const log = kept.get(ticketId);
  return log && { ...log };
}

/** A log up to its last event. */
export async function currentLog(db: Database, ticketId: string): Promise<Log> {
  await logOf(db, ticketId);
  return knownLog(ticketId) ?? { job: new RunningJob(), seq: 0 };
}

/** A log with one event more, written under its ticket's lock when it had `after`; nothing when it has grown otherwise meanwhile. */
export function grown(
  ticketId: string,
  { seq, after }: { seq: number; after: number },
  event: JobEvent,
): RunningJob | undefined {
  const log = kept.get(ticketId);
  if (!log || log.job.events.length !== after) return undefined;
  log.job.append([event]);
  log.seq = seq;
  return log.job;
}
