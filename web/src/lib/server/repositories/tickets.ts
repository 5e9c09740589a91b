import { and, count, desc, eq, gte, isNull, ne, notExists, or, sql, type SQL } from 'drizzle-orm';
import { v7 } from 'uuid';
import type { DonorChoice } from '../../jobs/donorView.ts';
import type { PlanSettings } from '../../plan/stored.ts';
import type { Database } from '../db/connect.ts';
import { boardModels, boards, boardVersions, customers, jobEvents, tickets } from '../db/schema.ts';
import { containing } from './containing.ts';
import { ConflictError } from './conflict.ts';
import { SHOP } from './settings.ts';

export type Ticket = typeof tickets.$inferSelect;

export interface NewTicket {
  kind: Ticket['kind'];
  customer: string;
  contact?: string;
  device: string;
  serial?: string;
  complaint: string;
  inBox?: string;
  modelId: string;
  boardVersionId: string;
  waitsFor?: string;
  promisedOn?: string | null;
  createdAt?: Date;
  /** The closed ticket that this one takes up again: same physical board. */
  reopens?: { id: string; boardId: string };
}

/** Takes a board in: customer (known by name or new), physical board and ticket in one transaction. */
export async function createTicket(db: Database, t: NewTicket): Promise<Ticket> {
  return db.transaction(async (tx) => {
    // two new jobs of one new customer at once: the second finds the first one's
    await tx.execute(sql`select pg_advisory_xact_lock(hashtext(${`customer ${t.customer}`}))`);
    const [known] = await tx.select().from(customers).where(eq(customers.name, t.customer)).limit(1);
    const customerId = known?.id ?? v7();
    if (!known) await tx.insert(customers).values({ id: customerId, name: t.customer, contact: t.contact ?? '' });
    const boardId = t.reopens?.boardId ?? v7();
    if (!t.reopens)
      await tx.insert(boards).values({ id: boardId, modelId: t.modelId, customerId, serial: t.serial ?? '' });
    const [ticket] = await tx
      .insert(tickets)
      .values({
        id: v7(),
        kind: t.kind,
        customerId,
        boardId,
        boardVersionId: t.boardVersionId,
        device: t.device,
        complaint: t.complaint,
        inBox: t.inBox ?? '',
        waitsFor: t.waitsFor ?? '',
        promisedOn: t.promisedOn ?? null,
        reopensId: t.reopens?.id ?? null,
        ...(t.createdAt ? { createdAt: t.createdAt } : {}),
      })
      .returning();
    return ticket;
  });
}

/** What of a ticket its job is judged by, besides its log. */
export interface Judged {
  ticket: Pick<Ticket, 'id' | 'number' | 'version' | 'kind' | 'complaint' | 'boardVersionId' | 'planSettings'>;
  /** The plan computed last for it. */
  latestPlanId: string | null;
  /** Changes whenever kit or settings of the shop do. */
  shopStamp: string;
}
const latestPlanId = sql<
  string | null
>`(select p.id from plans p where p.ticket_id = tickets.id order by p.created_at desc, p.id desc limit 1)`;
const shopStamp = sql<string>`(
  (select md5(coalesce(string_agg(k.id || ' ' || k.version, ',' order by k.id), '')) from kit_items k) ||
  coalesce((select md5(s.value::text) from settings s where s.key = ${SHOP}), ''))`;

export async function ticketById(db: Database, id: string) {
  const [row] = await db
    .select({
      ...{ ticket: tickets, customer: customers, serial: boards.serial, modelId: boards.modelId },
      ...{ latestPlanId, shopStamp },
    })
    .from(tickets)
    .innerJoin(customers, eq(customers.id, tickets.customerId))
    .innerJoin(boards, eq(boards.id, tickets.boardId))
    .where(eq(tickets.id, id));
  return row;
}

/** The ticket under a lock until the transaction ends; undefined when there is no such ticket. */
export async function lockTicket(tx: Database, id: string): Promise<(Judged & { closed: boolean }) | undefined> {
  const { rows } = await tx.execute<Judged['ticket'] & Omit<Judged, 'ticket'> & { closed: boolean }>(
    sql`select id, number, version, kind, complaint, board_version_id as "boardVersionId", plan_settings as "planSettings", closed_at is not null as closed,
        ${latestPlanId} as "latestPlanId", ${shopStamp} as "shopStamp"
      from tickets where id = ${id} for update`,
  );
  if (rows.length === 0) return undefined;
  const { closed, latestPlanId: plan, shopStamp: stamp, ...ticket } = rows[0];
  return { ticket, closed, latestPlanId: plan, shopStamp: stamp };
}

/** The kind of board of a ticket; empty when there is no such ticket. */
export async function modelOfTicket(db: Database, id: string): Promise<string> {
  const [row] = await db
    .select({ modelId: boards.modelId })
    .from(tickets)
    .innerJoin(boards, eq(boards.id, tickets.boardId))
    .where(eq(tickets.id, id));
  return row?.modelId ?? '';
}

const PAGE_SIZE = 30;
/** Boards that are offered to bring parts from, at most. */
const MOST_DONORS = 60;

const TICKET_ROW = {
  id: tickets.id,
  number: tickets.number,
  kind: tickets.kind,
  device: tickets.device,
  complaint: tickets.complaint,
  customer: customers.name,
  boardVersionId: tickets.boardVersionId,
  waitsFor: tickets.waitsFor,
  promisedOn: tickets.promisedOn,
  closedAt: tickets.closedAt,
};
const ticketRows = (db: Database) =>
  db.select(TICKET_ROW).from(tickets).innerJoin(customers, eq(customers.id, tickets.customerId));
export type TicketRow = Awaited<ReturnType<typeof ticketRows>>[number];

/** Each way of finding a ticket by words as a condition of its own: joined by "or" none of them could use its index. */
function waysTo(search: string): SQL[] {
  const like = containing(search);
  return [
    // as the index of words has it
    sql`(device || ' ' || complaint) ilike ${like}`,
    sql`customer_id in (select id from customers where name ilike ${like})`,
    ...(/^\d{1,9}$/.test(search) ? [sql`number::text like ${`${search}%`}`] : []),
  ];
}

/** Rows of one page, newest first, and whether there are older and newer ones. */
interface TicketPage {
  rows: TicketRow[];
  older: boolean;
  newer: boolean;
}

/**
 * Jobs as rows, newest first, a page at a time: the newest, those before a number, or those after it; `search` looks at number, device, customer and
 * complaint.
 */
export async function listTickets(
  db: Database,
  asked: { search?: string; closed?: boolean; before?: number; after?: number },
): Promise<TicketPage> {
  const { search = '', closed = false, before, after } = asked;
  const open = closed ? sql`closed_at is not null` : sql`closed_at is null`;
  const ways = search ? waysTo(search) : [sql`true`];
  const found = sql.join(
    ways.map((way) => sql`select number from tickets where ${open} and ${way}`),
    sql` union `,
  );
  const edge =
    after !== undefined ? sql`number > ${after}` : before !== undefined ? sql`number < ${before}` : sql`true`;
  const order = after === undefined ? sql`desc` : sql`asc`;
  const page = sql`(select number from (${found}) as found where ${edge} order by number ${order} limit ${PAGE_SIZE + 1})`;
  const rows = await ticketRows(db)
    .where(sql`${tickets.number} in ${page}`)
    .orderBy(desc(tickets.number));
  const more = rows.length > PAGE_SIZE;
  return after === undefined
    ? { rows: rows.slice(0, PAGE_SIZE), older: more, newer: before !== undefined }
    : { rows: more ? rows.slice(1) : rows, older: true, newer: more };
}

/** Open jobs that a day's list takes up at most. */
const MOST_OPEN = 1000;

/** All open jobs as rows, the promised ones first, the nearest date before. */
export async function listOpenTickets(db: Database): Promise<TicketRow[]> {
  return ticketRows(db)
    .where(isNull(tickets.closedAt))
    .orderBy(sql`${tickets.promisedOn} asc nulls last`, tickets.number)
    .limit(MOST_OPEN);
}

/** Jobs closed since then that nobody has been given back yet: the oldest as rows, and how many there are. */
export async function listAwaitingPickUp(
  db: Database,
  since: Date,
  most: number,
): Promise<{ rows: TicketRow[]; total: number }> {
  const fetched = db
    .select({ one: sql`1` })
    .from(jobEvents)
    .where(and(eq(jobEvents.ticketId, tickets.id), sql`${jobEvents.body} ->> 'type' = 'handed-over'`));
  const rows = await db
    .select({ ...TICKET_ROW, total: sql<number>`(count(*) over ())::int` })
    .from(tickets)
    .innerJoin(customers, eq(customers.id, tickets.customerId))
    .where(and(gte(tickets.closedAt, since), notExists(fetched)))
    .orderBy(tickets.closedAt)
    .limit(most);
  return { rows, total: rows.length > 0 ? rows[0].total : 0 };
}

/** Parts so called on the boards of open jobs. */
export async function partsOfOpenJobs(db: Database, ref: string) {
  const { rows } = await db.execute<{
    id: string;
    number: number;
    device: string;
    part_id: string;
    ref: string;
    what: string | null;
  }>(sql`
    with found as (
      select v.id as version_id, p ->> 'partId' as part_id, p ->> 'ref' as ref, coalesce(p ->> 'what', p ->> 'value') as what
      from (select distinct board_version_id from ${tickets} where closed_at is null) o
      join ${boardVersions} v on v.id = o.board_version_id
      cross join lateral jsonb_array_elements(v.doc -> 'parts') p
      where lower(p ->> 'ref') = lower(${ref})
    )
    select t.id, t.number, t.device, found.part_id, found.ref, found.what
    from found join ${tickets} t on t.board_version_id = found.version_id and t.closed_at is null
    order by t.number desc limit 12`);
  return rows.map(({ id, number, device, part_id, ref: called, what }) => ({
    ...{ id, number, device, ref: called },
    partId: part_id,
    what: what ?? '',
  }));
}

/** Open jobs whose boards may give parts to this one, those of its kind of board first. */
export async function donorChoices(db: Database, ticketId: string): Promise<DonorChoice[]> {
  const own = await modelOfTicket(db, ticketId);
  const sameModel = sql<boolean>`${boards.modelId} = ${own}`;
  return db
    .select({
      ...{ id: tickets.id, number: tickets.number, device: tickets.device, serial: boards.serial },
      ...{ board: boardModels.name, sameModel },
    })
    .from(tickets)
    .innerJoin(boards, eq(boards.id, tickets.boardId))
    .innerJoin(boardModels, eq(boardModels.id, boards.modelId))
    .where(and(isNull(tickets.closedAt), ne(tickets.id, ticketId)))
    .orderBy(desc(sameModel), desc(tickets.number))
    .limit(MOST_DONORS);
}

export async function countTickets(db: Database): Promise<number> {
  const [{ total }] = await db.select({ total: count() }).from(tickets);
  return total;
}

/** Stores the settings plans are computed from; refused when the ticket changed since `version`. */
export async function savePlanSettings(
  db: Database,
  id: string,
  version: number,
  planSettings: PlanSettings,
): Promise<number> {
  const [saved] = await db
    .update(tickets)
    .set({ planSettings, version: sql`${tickets.version} + 1` })
    .where(and(eq(tickets.id, id), eq(tickets.version, version)))
    .returning({ version: tickets.version });
  if (!saved) throw new ConflictError('The job', (await ticketById(db, id))?.ticket.planSettings);
  return saved.version;
}

export type TicketChange = Pick<Ticket, 'kind' | 'device' | 'complaint' | 'inBox' | 'waitsFor' | 'promisedOn'>;

/** Changes what was taken in; refused when the ticket changed since `version`. */
export async function saveTicket(db: Database, id: string, version: number, change: TicketChange): Promise<number> {
  const [saved] = await db
    .update(tickets)
    .set({ ...change, version: sql`${tickets.version} + 1` })
    .where(and(eq(tickets.id, id), eq(tickets.version, version)))
    .returning({ version: tickets.version });
  if (!saved) throw new ConflictError('The ticket', (await ticketById(db, id))?.ticket);
  return saved.version;
}

/** The ticket that this one takes up again, and those that took this one up. */
export async function reopeningsOf(db: Database, ticket: Ticket) {
  // only a closed one is taken up again
  if (!ticket.closedAt && !ticket.reopensId) return { earlier: null, later: [] };
  const rows = await db
    .select({ id: tickets.id, number: tickets.number, reopensId: tickets.reopensId })
    .from(tickets)
    .where(or(eq(tickets.reopensId, ticket.id), ticket.reopensId ? eq(tickets.id, ticket.reopensId) : undefined))
    .orderBy(tickets.number);
  return {
    earlier: rows.find((r) => r.id === ticket.reopensId) ?? null,
    later: rows.filter((r) => r.reopensId === ticket.id),
  };
}

/**
 * Takes a closed ticket up again as a new one for the same board. Of several at once all get the same: one that is still open is given again. Null
 * while the ticket itself is open.
 */
export async function reopenTicket(db: Database, ticketId: string): Promise<{ id: string } | null> {
  return db.transaction(async (tx) => {
    await tx.select({ id: tickets.id }).from(tickets).where(eq(tickets.id, ticketId)).for('update');
    const found = await ticketById(tx, ticketId);
    if (!found?.ticket.closedAt) return null;
    const { ticket, customer, modelId } = found;
    const [going] = await tx
      .select({ id: tickets.id })
      .from(tickets)
      .where(and(eq(tickets.reopensId, ticketId), isNull(tickets.closedAt)));
    if (going) return going;
    return createTicket(tx, {
      kind: ticket.kind === 'fit-only' ? 'repair' : ticket.kind,
      customer: customer.name,
      device: ticket.device,
      complaint: `Came back: ${ticket.complaint}`.slice(0, 2000),
      modelId,
      boardVersionId: ticket.boardVersionId,
      reopens: { id: ticket.id, boardId: ticket.boardId },
    });
  });
}

/** Closes a ticket for good; a later release of the same ticket changes nothing. */
export async function closeTicket(db: Database, id: string, at: Date): Promise<void> {
  await db
    .update(tickets)
    .set({ closedAt: at, version: sql`${tickets.version} + 1` })
    .where(and(eq(tickets.id, id), isNull(tickets.closedAt)));
}
