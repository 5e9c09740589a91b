import { jobEventSchema, type JobEvent } from '@orthos/core';
import { asc, eq, getTableColumns, sql } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { jobEvents } from '../db/schema.ts';

const toEvent = (row: typeof jobEvents.$inferSelect): JobEvent => ({
  id: row.id,
  at: row.at.getTime(),
  actor: row.actor,
  v: 1,
  body: jobEventSchema.parse(row.body),
});

/** Appends events; one that is already there (same id, sent twice) changes nothing. The order of those written. */
export async function appendEvents(db: Database, ticketId: string, events: JobEvent[]): Promise<number[]> {
  if (events.length === 0) return [];
  const written = await db
    .insert(jobEvents)
    .values(events.map((e) => ({ id: e.id, ticketId, at: new Date(e.at), actor: e.actor, v: e.v, body: e.body })))
    .onConflictDoNothing()
    .returning({ seq: jobEvents.seq });
  return written.map((w) => w.seq);
}

/** A job's log in the order of writing. */
export async function eventsOf(db: Database, ticketId: string): Promise<JobEvent[]> {
  const rows = await db.select().from(jobEvents).where(eq(jobEvents.ticketId, ticketId)).orderBy(asc(jobEvents.seq));
  return rows.map(toEvent);
}

/** What was written to the logs of jobs after `seq` of each, in the order of writing. */
export async function eventsAfter(
  db: Database,
  known: readonly { ticketId: string; seq: number }[],
): Promise<{ ticketId: string; seq: number; event: JobEvent }[]> {
  if (known.length === 0) return [];
  const ids = sql.param(known.map((k) => k.ticketId));
  const seqs = sql.param(known.map((k) => k.seq));
  const rows = await db
    .select(getTableColumns(jobEvents))
    .from(sql`unnest(${ids}::uuid[], ${seqs}::int[]) as known(id, after)`)
    .innerJoin(jobEvents, sql`${jobEvents.ticketId} = known.id and ${jobEvents.seq} > known.after`)
    .orderBy(asc(jobEvents.seq));
  return rows.map((row) => ({ ticketId: row.ticketId, seq: row.seq, event: toEvent(row) }));
}
