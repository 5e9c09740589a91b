import { jobEventSchema, type JobEvent } from '@orthos/core';
import { asc, eq, inArray } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { jobEvents } from '../db/schema.ts';

const toEvent = (row: typeof jobEvents.$inferSelect): JobEvent => ({
  id: row.id,
  at: row.at.getTime(),
  actor: row.actor,
  v: 1,
  body: jobEventSchema.parse(row.body),
});

/** Appends events; one that is already there (same id, sent twice) changes nothing. */
export async function appendEvents(db: Database, ticketId: string, events: JobEvent[]): Promise<void> {
  if (events.length === 0) return;
  await db
    .insert(jobEvents)
    .values(events.map((e) => ({ id: e.id, ticketId, at: new Date(e.at), actor: e.actor, v: e.v, body: e.body })))
    .onConflictDoNothing();
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
