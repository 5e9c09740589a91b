import { jobEventSchema, type JobEvent } from '@orthos/core';
import { and, asc, eq, gt, inArray } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { jobEvents } from '../db/schema.ts';

const toEvent = (row: typeof jobEvents.$inferSelect): JobEvent => ({
  id: row.id,
  at: row.at.getTime(),
  actor: row.actor,
  v: 1,
  body: jobEventSchema.parse(row.body),
});

/** Appends events; one that is already there (same id, sent twice) changes nothing. How many were written. */
export async function appendEvents(db: Database, ticketId: string, events: JobEvent[]): Promise<number> {
  if (events.length === 0) return 0;
  const written = await db
    .insert(jobEvents)
    .values(events.map((e) => ({ id: e.id, ticketId, at: new Date(e.at), actor: e.actor, v: e.v, body: e.body })))
    .onConflictDoNothing()
    .returning({ id: jobEvents.id });
  return written.length;
}

/** What was written to a job's log after `seq`, in the order of writing. */
export async function eventsAfter(
  db: Database,
  ticketId: string,
  seq: number,
): Promise<{ seq: number; event: JobEvent }[]> {
  const rows = await db
    .select()
    .from(jobEvents)
    .where(and(eq(jobEvents.ticketId, ticketId), gt(jobEvents.seq, seq)))
    .orderBy(asc(jobEvents.seq));
  return rows.map((row) => ({ seq: row.seq, event: toEvent(row) }));
}

/** A job's log in the order of writing. */
export async function eventsOf(db: Database, ticketId: string): Promise<JobEvent[]> {
  const rows = await db.select().from(jobEvents).where(eq(jobEvents.ticketId, ticketId)).orderBy(asc(jobEvents.seq));
  return rows.map(toEvent);
}

/** The logs of several jobs in one query. */
export async function eventsOfMany(db: Database, ticketIds: string[]): Promise<Map<string, JobEvent[]>> {
  const logs = new Map<string, JobEvent[]>(ticketIds.map((id) => [id, []]));
  if (ticketIds.length === 0) return logs;
  const rows = await db
    .select()
    .from(jobEvents)
    .where(inArray(jobEvents.ticketId, ticketIds))
    .orderBy(asc(jobEvents.seq));
  for (const row of rows) logs.get(row.ticketId)?.push(toEvent(row));
  return logs;
}
