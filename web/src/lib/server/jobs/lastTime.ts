/** The same fault on the same kind of board again: what it was, how long it took and cost, and a new job from it. */
import { compareReading, formatReading } from '@orthos/core/ground';
import { type JobEventBody, culpritOf, currentAttempt, EVENT_VERSION } from '@orthos/core/job';
import { partName } from '@orthos/core/board';
import { methodName } from '@orthos/core/rework';
import { and, desc, eq, isNotNull, ne } from 'drizzle-orm';
import { v7 } from 'uuid';
import { placeName } from '../../diagnose/place.ts';
import { formatMoney } from '../../intake/money.ts';
import { planSettingsSchema } from '../../plan/stored.ts';
import type { Database } from '../db/connect.ts';
import { boards, tickets } from '../db/schema.ts';
import { boardVersionById, latestVersion } from '../repositories/boardModels.ts';
import { appendEvents } from '../repositories/jobEvents.ts';
import { createTicket, savePlanSettings, ticketById } from '../repositories/tickets.ts';
import { logOf, logsOf } from './logs.ts';

export interface LastTime {
  id: string;
  number: number;
  device: string;
  /** The part it came down to. */
  part: string;
  /** Where its like lay: a drawer, a donor, an order; empty where nobody said. */
  from: string;
  /** How it was taken off; empty where no plan was used. */
  method: string;
  minutes: number | null;
  price: string;
  /** What was off, as it was read. */
  readings: string[];
}

/** So many closed jobs are looked at, the newest, and so many different faults are told. */
const [LOOKED_AT, TOLD, READINGS] = [120, 8, 2];

/** Faults of closed jobs that somebody found and repaired, the newest of each kind of board and part. */
export async function lastTimes(db: Database): Promise<LastTime[]> {
  const rows = await db
    .select({
      ...{ id: tickets.id, number: tickets.number, device: tickets.device },
      ...{ versionId: tickets.boardVersionId, modelId: boards.modelId },
    })
    .from(tickets)
    .innerJoin(boards, eq(boards.id, tickets.boardId))
    // an express job says little that its form does not ask again
    .where(and(isNotNull(tickets.closedAt), ne(tickets.kind, 'express')))
    .orderBy(desc(tickets.number))
    .limit(LOOKED_AT);
  const logs = await logsOf(
    db,
    rows.map((r) => r.id),
    ({ state }) => state.released !== undefined,
  );
  const found = new Map<string, LastTime>();
  for (const { id, number, device, versionId, modelId } of rows) {
    const log = logs.get(id);
    const culprit = log && culpritOf(log.state);
    const key = `${modelId} ${culprit}`;
    if (!log || !culprit || found.has(key) || found.size >= TOLD) continue;
    const board = (await boardVersionById(db, versionId))?.doc;
    const part = board?.parts.find((p) => p.partId === culprit);
    if (!board || !part) continue;
    const { state } = log;
    const { offer, taken } = state.intake;
    const tier = offer?.tiers.find((t) => t.label === taken) ?? offer?.tiers[0];
    const off = state.readings.filter((r) =>
      ['low', 'high'].includes(compareReading(r.value, r.good, r.quantity) ?? ''),
    );
    const methodId = currentAttempt(state).plan?.methodId;
    found.set(key, {
      ...{ id, number, device },
      part: partName(part),
      from: currentAttempt(state).newPart?.from ?? '',
      method: methodId ? methodName(methodId) : '',
      minutes: Math.round(state.released?.minutes ?? log.minutes) || null,
      price: offer && tier ? formatMoney(tier.price_minor, offer.currency) : '',
      readings: off.slice(0, READINGS).map((r) => `${placeName(board, r.place)} ${formatReading(r.value, r.quantity)}`),
    });
  }
  return [...found.values()];
}

/**
 * A new job like a closed one: its board as published today, its part as the suspect, its settings on today's bench, its offer. Null when there is
 * no such job, or it found nothing; `methodId`: what it was taken off with; `at`: now, UTC ms.
 */
export async function asLastTime(
  db: Database,
  ticketId: string,
  at: number,
): Promise<{ id: string; methodId: string | undefined } | null> {
  const found = await ticketById(db, ticketId);
  if (!found) return null;
  const { ticket, modelId } = found;
  const { state } = await logOf(db, ticketId);
  const culprit = culpritOf(state);
  const version = await latestVersion(db, modelId);
  if (!culprit || !version?.doc.parts.some((p) => p.partId === culprit)) return null;
  const made = await createTicket(db, {
    kind: ticket.kind,
    customer: 'counter',
    device: ticket.device,
    complaint: ticket.complaint,
    modelId,
    boardVersionId: version.id,
  });
  if (ticket.planSettings) {
    const { methods, surroundings, ambient_C } = planSettingsSchema.parse(ticket.planSettings);
    const settings = { ambient_C, methods, ...(surroundings ? { surroundings } : {}) };
    await savePlanSettings(db, made.id, made.version, { v: 2, stationId: '', ironId: '', ...settings });
  }
  const { offer } = state.intake;
  const from = currentAttempt(state).newPart?.from;
  const bodies: JobEventBody[] = [
    {
      type: 'suspect',
      partId: culprit,
      why: `as last time, No. ${ticket.number}${from ? `; its like lay in: ${from}` : ''}`,
    },
    ...(offer
      ? [{ type: 'offer' as const, currency: offer.currency, tiers: offer.tiers, worth_minor: offer.worth_minor }]
      : []),
  ];
  await appendEvents(
    db,
    made.id,
    bodies.map((body) => ({ id: v7(), at, actor: 'unsigned', v: EVENT_VERSION, body })),
  );
  return { id: made.id, methodId: currentAttempt(state).plan?.methodId };
}
