/**
 * Fills an empty database with the demo shop: kit, boards, customers, tickets at different steps. All
 * names are made up; dates are relative to `now`.
 */
import type { BoardModel } from '@orthos/core/board';
import { EVENT_VERSION, type JobEvent } from '@orthos/core/job';
import { sql } from 'drizzle-orm';
import { gzipSync } from 'node:zlib';
import { v7 } from 'uuid';
import type { Database } from '../db/connect.ts';
import { FIRST_NUMBER } from '../db/schema.ts';
import { addDrawing } from '../repositories/boardDrawings.ts';
import { createBoardModel } from '../repositories/boardModels.ts';
import { addCircuit } from '../repositories/circuits.ts';
import { appendEvents } from '../repositories/jobEvents.ts';
import { hideFault } from '../repositories/hiddenFaults.ts';
import { addGoodStartUp } from '../repositories/goodStartUps.ts';
import { addKitItems } from '../repositories/kit.ts';
import { demoKit } from './kit.ts';
import { addPhoto } from '../repositories/photos.ts';
import { readPhoto } from '../readPhoto.ts';
import { addMeter } from '../repositories/meters.ts';
import { addRoutine } from '../repositories/routines.ts';
import { suggestJobs, type Suggestion } from '../repositories/suggestions.ts';
import { saveShopSettings } from '../repositories/settings.ts';
import { closeTicket, countTickets, createTicket } from '../repositories/tickets.ts';
import { bramble } from './bramble.ts';
import { demoCircuits } from './circuits.ts';
import { coupon } from './coupon.ts';
import { gantry } from './gantry.ts';
import { lodestar } from './lodestar.ts';
import { quillon } from './quillon.ts';
import { ternT2 } from './ternT2.ts';
import { earlierJobs } from './earlierJobs.ts';
import { demoRoutines, goodStartUps } from './habits.ts';
import type { DemoTicket } from './ticketForm.ts';
import { tickets } from './tickets.ts';
import { twoBoards } from './twoBoards.ts';
import { weir } from './weir.ts';

const DAY = 86_400_000;

/** Any number; all Orthos processes take the same lock while they fill a demo shop. */
const SEED_LOCK = 7_148_202;

/** Seeds once, all or nothing; an instance that already has tickets is left alone. Several processes may try at once. */
export async function seedDemo(db: Database, now: Date): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(${SEED_LOCK})`);
    if ((await countTickets(tx)) > 0) return;
    // a shop that was not filled to its end has used numbers up
    await tx.execute(sql`select setval('ticket_numbers', ${FIRST_NUMBER}, false)`);
    await fill(tx, now);
  });
}

async function fill(db: Database, now: Date): Promise<void> {
  await saveShopSettings(
    db,
    {
      v: 1,
      name: 'Saltmarsh Board Repair',
      temperature: 'C',
      length: 'mm',
      timeZone: 'Europe/London',
      rate_minor_h: 5400,
      currency: 'EUR',
      warrantyMonths: 6,
      flood: 'leaded',
    },
    0,
  );
  await addKitItems(db, demoKit());
  await addMeter(db, { name: 'Bench meter', bench: 'full bench', simulated: true });
  await addMeter(db, { kind: 'supply', name: 'Bench supply', bench: 'full bench', simulated: true });
  const models = new Map<BoardModel | 'Gantry', { modelId: string; versionId: string }>();
  for (const [doc, field] of [
    [ternT2, 'consumer'],
    [bramble, 'consumer'],
    [quillon, 'automotive'],
    [lodestar, 'automotive'],
    [weir, 'industrial'],
    [coupon, 'training'],
  ] as const) {
    const model = await createBoardModel(db, { doc, field });
    models.set(doc, model);
    const circuit = demoCircuits[doc.name];
    if (circuit) await addCircuit(db, { id: v7(), modelId: model.modelId, ...circuit });
  }
  const { doc, drawingText } = gantry();
  await addDrawing(db, doc.drawing ?? '', gzipSync(drawingText));
  models.set('Gantry', await createBoardModel(db, { doc, field: 'industrial', origin: 'read from gantry.kicad_pcb' }));
  for (const { board, ...startUp } of goodStartUps)
    await addGoodStartUp(db, models.get(board)?.modelId ?? '', { id: v7(), ...startUp });
  for (const { boards, ...routine } of demoRoutines)
    await addRoutine(db, { id: v7(), ...routine, modelIds: boards.map((b) => models.get(b)?.modelId ?? '') });
  const begin: Suggestion[] = [];
  // oldest first, so that numbers rise with time
  const others = new Map<string, { ticketId: string; number: number }>();
  const made: { t: DemoTicket; ticketId: string; created: number }[] = [];
  for (const t of [...tickets, ...earlierJobs, ...twoBoards].sort((a, b) => b.days - a.days)) {
    const model = models.get(t.board);
    if (!model) throw new Error(`No model for ${t.device}`);
    const created = now.getTime() - t.days * DAY - 3 * 3_600_000;
    const ticket = await createTicket(db, {
      kind: t.kind ?? 'repair',
      customer: t.customer,
      device: t.device,
      serial: t.serial,
      complaint: t.complaint,
      inBox: t.inBox,
      waitsFor: t.waitsFor,
      modelId: model.modelId,
      boardVersionId: model.versionId,
      promisedOn:
        t.promisedInDays === undefined
          ? null
          : new Date(now.getTime() + t.promisedInDays * DAY).toISOString().slice(0, 10),
      createdAt: new Date(created),
    });
    if (t.as) others.set(t.as, { ticketId: ticket.id, number: ticket.number });
    made.push({ t, ticketId: ticket.id, created });
  }
  for (const { t, ticketId, created } of made) {
    let at = created;
    const told = typeof t.events === 'function' ? t.events(others) : t.events;
    const events = told.map((e): JobEvent => {
      const [after_s, body] = 'after_s' in e ? [e.after_s, e.body] : [240, e];
      at += 1000 * after_s;
      return { id: v7(), at, actor: 'unsigned', v: EVENT_VERSION, body };
    });
    await appendEvents(db, ticketId, events);
    if (t.photo) {
      const { width, height, image, thumbnail } = readPhoto(Buffer.from(t.photo.url.split(',')[1], 'base64'));
      await addPhoto(db, {
        id: t.photo.id,
        ticketId,
        caption: t.photo.caption,
        side: 'top',
        taken: 'before',
        width,
        height,
        image: Buffer.from(image),
        thumbnail: Buffer.from(thumbnail),
      });
    }
    if (t.hidden) await hideFault(db, ticketId, t.hidden);
    if (t.shows) begin.push({ id: ticketId, title: t.device, shows: t.shows });
    if (t.closedDaysAgo !== undefined) await closeTicket(db, ticketId, new Date(now.getTime() - t.closedDaysAgo * DAY));
  }
  await suggestJobs(
    db,
    begin.toSorted((a, b) => a.shows.localeCompare(b.shows)),
  );
}
