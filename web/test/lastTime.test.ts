import { currentAttempt, type JobEventBody } from '@orthos/core/job';
import { expressBoard } from '@orthos/core/rework';
import { v7 } from 'uuid';
import { describe, expect, it } from 'vitest';
import { asLastTime, lastTimes } from '../src/lib/server/jobs/lastTime.ts';
import { logOf } from '../src/lib/server/jobs/logs.ts';
import { createBoardModel, publishBoardModel, saveDraft } from '../src/lib/server/repositories/boardModels.ts';
import { appendEvents } from '../src/lib/server/repositories/jobEvents.ts';
import { closeTicket, createTicket, savePlanSettings, ticketById } from '../src/lib/server/repositories/tickets.ts';
import { testDatabase } from './database.ts';

const { db } = testDatabase();
const doc = expressBoard({ package: 'SOIC-8', boardKind: 'thin', plastic: 'pbt', distance_mm: 4 });
const target = doc.parts.find((p) => p.partId === 'target');
const at = target ? { x_mm: target.x_mm, y_mm: target.y_mm, side: target.side, partId: 'target', terminal: '1' } : null;
if (!at) throw new Error('no target');

const FOUND: JobEventBody[] = [
  {
    type: 'offer',
    currency: 'EUR',
    tiers: [{ label: 'the part', minutes: 30, parts_minor: 300, attempts: 1, price_minor: 7500 }],
    worth_minor: null,
  },
  { type: 'reading', place: at, quantity: 'ohm', value: 1.4, good: 2400, powered: false },
  { type: 'suspect', partId: 'target', why: 'reads low' },
  { type: 'plan', planId: v7(), methodId: 'air-fast' },
  { type: 'off-board-test', result: 'bad' },
  { type: 'new-part-measured', ok: true, note: 'as its sheet says', origin: 'new', from: 'drawer B2' },
  { type: 'released', outcome: 'repaired', minutes: 23 },
];

async function closed(model: { modelId: string; versionId: string }, bodies: JobEventBody[], device = 'lamp') {
  const { modelId, versionId } = model;
  const ticket = await createTicket(db(), {
    ...{ kind: 'repair', customer: 'Ada Marsh', device, complaint: 'dark', modelId, boardVersionId: versionId },
  });
  const now = Date.parse('2026-03-02T09:00:00Z');
  await appendEvents(
    db(),
    ticket.id,
    bodies.map((body, n) => ({ id: v7(), at: now + n, actor: 'x', v: 1, body })),
  );
  await savePlanSettings(db(), ticket.id, ticket.version, {
    ...{ v: 2, stationId: 'long gone', ironId: 'gone too', bench: 'attic', ambient_C: 19, methods: [] },
    surroundings: { reused: true },
  });
  await closeTicket(db(), ticket.id, new Date(now + 1000));
  return ticket;
}

describe('as last time', () => {
  it('tells what closed jobs came down to, the newest of each kind once, and makes a new job of one', async () => {
    const model = await createBoardModel(db(), { doc });
    expect(await lastTimes(db())).toEqual([]);
    await closed(model, FOUND);
    const newest = await closed(model, FOUND, 'a newer lamp');
    // found nothing, or not repaired: nothing to repeat
    const nothing = await closed(model, [{ type: 'released', outcome: 'repaired' }]);
    const declined = await closed(model, [...FOUND.slice(0, -1), { type: 'released', outcome: 'declined' }]);
    expect(await lastTimes(db())).toEqual([
      {
        id: newest.id,
        number: newest.number,
        device: 'a newer lamp',
        part: expect.any(String) as string,
        from: 'drawer B2',
        method: 'Air, fast',
        minutes: 23,
        price: '€75.00',
        readings: [expect.stringContaining('1.4 Ω')],
      },
    ]);
    expect(await asLastTime(db(), nothing.id, 1e12)).toBeNull();
    expect(await asLastTime(db(), declined.id, 1e12)).toBeNull();
    expect(await asLastTime(db(), v7(), 1e12)).toBeNull();

    // the board has a newer version meanwhile
    await saveDraft(db(), model.modelId, 1, { ...doc, thickness_mm: 1 });
    const second = await publishBoardModel(db(), model.modelId);
    const made = await asLastTime(db(), newest.id, 1e12);
    expect(made?.methodId).toBe('air-fast');
    const again = await ticketById(db(), made?.id ?? '');
    expect(again?.ticket).toMatchObject({ device: 'a newer lamp', complaint: 'dark', boardVersionId: second.id });
    // settings, but today's bench
    expect(again?.ticket.planSettings).toEqual({
      ...{ v: 2, stationId: '', ironId: '', ambient_C: 19, methods: [], surroundings: { reused: true } },
    });
    const { state } = await logOf(db(), made?.id ?? '');
    expect(currentAttempt(state).suspect).toMatchObject({
      partId: 'target',
      why: `as last time, No. ${newest.number}; its like lay in: drawer B2`,
    });
    expect(state.intake.offer?.tiers[0].price_minor).toBe(7500);
    // nothing is said to be measured that was not
    expect(state.readings).toEqual([]);
  });
});
