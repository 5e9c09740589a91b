/** The log of a job. Written and read with every mark: the statements are written out, which costs a third of building them. */
import { EVENT_VERSION, type JobEvent, jobEventSchema } from '@orthos/core/job';
import { asc, eq, sql } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { jobEvents } from '../db/schema.ts';

/** Appends events; one that is already there (same id, sent twice) changes nothing. The order of those written. */
export async function appendEvents(db: Database, ticketId: string, events: JobEvent[]): Promise<number[]> {
  if (events.length === 0) return [];
  const values = events.map(
    (e) =>
      sql`(${e.id}, ${ticketId}, ${new Date(e.at).toISOString()}, ${e.actor}, ${e.v}, ${JSON.stringify(e.body)}::jsonb)`,
  );
  const { rows } = await db.execute<{ seq: number }>(
    sql`insert into job_events (id, ticket_id, at, actor, v, body) values ${sql.join(values, sql`, `)} on conflict do nothing returning seq`,
  );
  return rows.map((r) => r.seq);
}

/** Appends an event to a log that ends at `after` and gives its order; nothing when the log goes on behind that, or the id is taken. */
export async function appendNext(
  db: Database,
  ticketId: string,
  { id, at, actor, v, body }: JobEvent,
  after: number,
): Promise<number | undefined> {
  const { rows } = await db.execute<{ seq: number }>(
    sql`insert into job_events (id, ticket_id, at, actor, v, body)
      select ${id}::uuid, ${ticketId}::uuid, ${new Date(at).toISOString()}::timestamptz, ${actor}, ${v}::int, ${JSON.stringify(body)}::jsonb
      where not exists (select 1 from job_events where ticket_id = ${ticketId} and seq > ${after})
      on conflict do nothing returning seq`,
  );
  return rows[0]?.seq;
}

/** A job's log in the order of writing. */
export async function eventsOf(db: Database, ticketId: string): Promise<JobEvent[]> {
  const rows = await db.select().from(jobEvents).where(eq(jobEvents.ticketId, ticketId)).orderBy(asc(jobEvents.seq));
  return rows.map((row) => eventOf({ ...row, ms: row.at.getTime() }));
}

/** What was written to the logs of jobs after `seq` of each, in the order of writing. */
export async function eventsAfter(
  db: Database,
  known: readonly { ticketId: string; seq: number }[],
): Promise<{ ticketId: string; seq: number; event: JobEvent }[]> {
  if (known.length === 0) return [];
  const ids = sql.param(known.map((k) => k.ticketId));
  const seqs = sql.param(known.map((k) => k.seq));
  const { rows } = await db.execute<Stored & { ticketId: string; seq: number }>(
    sql`select e.ticket_id as "ticketId", e.seq, e.id, (extract(epoch from e.at) * 1000)::float8 as ms, e.actor, e.v, e.body
      from unnest(${ids}::uuid[], ${seqs}::int[]) as known(id, after)
      join job_events e on e.ticket_id = known.id and e.seq > known.after
      order by e.seq`,
  );
  return rows.map((row) => ({ ticketId: row.ticketId, seq: row.seq, event: eventOf(row) }));
}

interface Stored extends Record<string, unknown> {
  id: string;
  ms: number;
  actor: string;
  v: number;
  body: unknown;
}
const eventOf = ({ id, ms, actor, v, body }: Stored): JobEvent => ({
  id,
  at: Math.round(ms),
  actor,
  v: v === 1 ? 1 : EVENT_VERSION,
  body: jobEventSchema.parse(body),
});
