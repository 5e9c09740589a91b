/** Parts that go from the board of one job to that of another: both logs say so, or neither. */
import { partName, type PlacedPart } from '@orthos/core/board';
import { EVENT_VERSION, type JobEventBody, type SetSaid } from '@orthos/core/job';
import { v7 } from 'uuid';
import type { DonorView } from '../../jobs/donorView.ts';
import type { Database } from '../db/connect.ts';
import { boardVersionById } from '../repositories/boardModels.ts';
import { createTicket, ticketById } from '../repositories/tickets.ts';
import { appendAll, EventRefused } from './door.ts';
import { boardView } from './jobView.ts';
import { logOf } from './logs.ts';
import { benchInputs } from './standing.ts';

/** Whose boards from the shelf are. */
const OWN = 'Own stock';

async function jobOf(db: Database, id: string) {
  const found = await ticketById(db, id);
  if (!found) throw new EventRefused(404, 'There is no such job.');
  return found;
}

/** The board that parts of this job come from, with its log; null where none was named. */
export async function donorOf(db: Database, ticketId: string): Promise<DonorView | null> {
  const own = await jobOf(db, ticketId);
  const { donor } = (await logOf(db, ticketId)).state;
  const found = donor && (await ticketById(db, donor.ticketId));
  if (!found) return null;
  const { ticket, serial, modelId } = found;
  const [{ board }, log, inputs] = await Promise.all([
    boardView(db, ticket.id),
    logOf(db, ticket.id),
    benchInputs(db, own),
  ]);
  return {
    ...{ id: ticket.id, number: ticket.number, device: ticket.device, serial, board },
    closed: ticket.closedAt !== null,
    sameModel: modelId === own.modelId,
    events: log.events,
    inputs,
  };
}

/** A board from the shelf gets a job of its own, since what is done to it is work like any other. Its id. */
export async function shelveDonor(db: Database, ticketId: string, serial: string): Promise<string> {
  return db.transaction(async (tx) => {
    const { ticket, modelId } = await jobOf(tx, ticketId);
    const donor = await createTicket(tx, {
      ...{ kind: 'transplant', customer: OWN, device: ticket.device, serial, modelId },
      ...{ boardVersionId: ticket.boardVersionId, complaint: `Gives parts to No. ${ticket.number}` },
    });
    await nameDonor(tx, ticketId, donor.id);
    return donor.id;
  });
}

const eventOf = (body: JobEventBody) => ({ id: v7(), at: Date.now(), actor: 'unsigned', v: EVENT_VERSION, body });

/** Names the job whose board gives parts; null: none does. */
export async function nameDonor(db: Database, ticketId: string, donorId: string | null): Promise<void> {
  if (donorId === ticketId) throw new EventRefused(400, 'A board gives no parts to itself.', 'from');
  const donor = donorId === null ? null : (await jobOf(db, donorId)).ticket;
  const from = donor && { ticketId: donor.id, number: donor.number };
  await appendAll(db, [{ ticketId, event: eventOf({ type: 'donor', from }) }]);
}

export interface Brought {
  from: string;
  items: { partId: string; from: string; place?: true | undefined }[];
  /** The other board is a good one: it gets its parts back, by that day. */
  owed?: { until?: string | undefined } | undefined;
}

/** Lists parts in both sets: here as what goes on, there as what comes off. A good board waits for one in its place. */
export async function bring(db: Database, ticketId: string, { from, items, owed }: Brought): Promise<void> {
  if (from === ticketId) throw new EventRefused(400, 'A board gives no parts to itself.', 'from');
  const [here, there] = [await jobOf(db, ticketId), await jobOf(db, from)];
  const [mine, theirs] = await Promise.all([partsOf(db, here), partsOf(db, there)]);
  const named = ({ ticket }: typeof here, partId: string) => ({ ticketId: ticket.id, number: ticket.number, partId });
  const on: SetSaid[] = [];
  const off: SetSaid[] = [];
  for (const [n, item] of items.entries()) {
    const [to, of] = [mine.get(item.partId), theirs.get(item.from)];
    const field = `items.${n}`;
    if (!to) throw new EventRefused(400, `the board has no part "${item.partId}"`, `${field}.partId`);
    if (!of) throw new EventRefused(400, `the other board has no part "${item.from}"`, `${field}.from`);
    if (to.package !== of.package)
      throw new EventRefused(400, `${partName(of)} has another package than ${partName(to)}`, `${field}.from`);
    const name = partName(of);
    on.push({
      ...{ partId: to.partId, side: to.side, do: item.place ? 'place' : 'renew', from: named(there, of.partId) },
      substitute: `${name} of No. ${there.ticket.number}`,
    });
    const back = owed ? { do: 'lend' as const, missing: true as const } : { do: 'move' as const };
    off.push({ ...{ partId: of.partId, side: of.side, to: named(here, to.partId) }, ...back });
  }
  const debt =
    owed &&
    (await debtOf(
      db,
      from,
      off.map((i) => i.partId),
      theirs,
    ));
  await appendAll(db, [
    { ticketId, event: eventOf({ type: 'set-parts', items: on }) },
    { ticketId: from, event: eventOf({ type: 'set-parts', items: off }) },
    ...(debt
      ? [
          {
            ticketId: from,
            event: eventOf({
              ...{ type: 'waits', for: 'part', what: `${debt}, lent to No. ${here.ticket.number}`.slice(0, 200) },
              ...(owed?.until ? { until: owed.until } : {}),
            }),
          },
        ]
      : []),
  ]);
}

/** All that a board has lent, with these parts, by name; nothing where its job waits for something else, which stays so. */
async function debtOf(
  db: Database,
  ticketId: string,
  partIds: readonly string[],
  parts: ReadonlyMap<string, PlacedPart>,
): Promise<string | undefined> {
  const { set, intake } = (await logOf(db, ticketId)).state;
  if (intake.waits && intake.waits.for !== 'part') return undefined;
  const lent = [...(set?.items.values() ?? [])].filter((i) => i.do === 'lend' && i.missing).map((i) => i.partId);
  const all = [...new Set([...lent, ...partIds])].map((id) => parts.get(id));
  return all.flatMap((p) => (p ? partName(p) : [])).join(', ');
}

/** Takes parts out of both sets again. Refused where hands have begun on either board. */
export async function leaveThere(db: Database, ticketId: string, partIds: readonly string[]): Promise<void> {
  const { set, attempts } = (await logOf(db, ticketId)).state;
  const entries: { ticketId: string; partId: string }[] = [];
  for (const partId of partIds) {
    const from = set?.items.get(partId)?.from;
    if (!from) throw new EventRefused(400, 'is not brought from another board', 'partIds');
    const there = (await logOf(db, from.ticketId)).state;
    const begun = (of: typeof attempts, id: string) => of.some((a) => a.ofSet === id && a.runs.length > 0);
    if (begun(attempts, partId) || begun(there.attempts, from.partId))
      throw new EventRefused(409, 'Hands have begun with it.');
    entries.push({ ticketId, partId }, { ticketId: from.ticketId, partId: from.partId });
  }
  await appendAll(
    db,
    entries.map(({ ticketId: of, partId }) => ({
      ticketId: of,
      event: eventOf({ type: 'set-dropped', partIds: [partId] }),
    })),
  );
}

async function partsOf(db: Database, { ticket }: { ticket: { boardVersionId: string } }) {
  const version = await boardVersionById(db, ticket.boardVersionId);
  return new Map((version?.doc.parts ?? []).map((p): [string, PlacedPart] => [p.partId, p]));
}
