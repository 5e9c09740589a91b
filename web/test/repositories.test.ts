import type { JobEvent, JobEventBody } from '@orthos/core/job';
import { DEFAULT_STATION, expressBoard, USUAL } from '@orthos/core/rework';
import { sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { beforeAll, describe, expect, it } from 'vitest';
import { connect, migrateDatabase } from '../src/lib/server/db/connect.ts';
import { seedDemo } from '../src/lib/server/demo/seedDemo.ts';
import {
  boardVersionById,
  createBoardModel,
  latestVersion,
  listBoardModels,
  publishBoardModel,
  saveDraft,
} from '../src/lib/server/repositories/boardModels.ts';
import { ConflictError } from '../src/lib/server/repositories/conflict.ts';
import { appendEvents, eventsAfter, eventsOf } from '../src/lib/server/repositories/jobEvents.ts';
import { addKitItems, listKit, removeKitItem, saveKitItem } from '../src/lib/server/repositories/kit.ts';
import { addPhoto, photosOf, pictureOf, removePhoto } from '../src/lib/server/repositories/photos.ts';
import { PLAN_VERSION, planById, storeKnownPlan, storePlan } from '../src/lib/server/repositories/plans.ts';
import { saveShopSettings, shopSettings } from '../src/lib/server/repositories/settings.ts';
import {
  closeTicket,
  countTickets,
  createTicket,
  listOpenTickets,
  listTickets,
  reopeningsOf,
  reopenTicket,
  savePlanSettings,
  ticketById,
} from '../src/lib/server/repositories/tickets.ts';
import { admin, testDatabase, urlOf } from './database.ts';

const { db } = testDatabase();
const doc = expressBoard({ package: 'SOIC-8', boardKind: 'thin', plastic: 'pbt', distance_mm: 4 });
let model: { modelId: string; versionId: string };

const ticket = (change: Partial<Parameters<typeof createTicket>[1]> = {}) =>
  createTicket(db(), {
    kind: 'repair',
    customer: 'Ada Marsh',
    device: 'lamp',
    complaint: 'dark',
    modelId: model.modelId,
    boardVersionId: model.versionId,
    ...change,
  });

beforeAll(async () => {
  model = await createBoardModel(db(), { doc, field: 'consumer' });
});

describe('board models', () => {
  it('publish immutable numbered versions; an unchanged draft gives none', async () => {
    const { modelId, versionId } = await createBoardModel(db(), { doc });
    expect((await publishBoardModel(db(), modelId)).id).toBe(versionId);
    await saveDraft(db(), modelId, 1, { ...doc, thickness_mm: 1 });
    const second = await publishBoardModel(db(), modelId);
    expect(second.number).toBe(2);
    expect((await boardVersionById(db(), versionId))?.doc.thickness_mm).toBe(0.8);
    expect((await latestVersion(db(), modelId))?.doc.thickness_mm).toBe(1);
  });
  it('a draft edited from an old version is a conflict that carries what is stored', async () => {
    const { modelId } = await createBoardModel(db(), { doc });
    await saveDraft(db(), modelId, 1, { ...doc, name: 'mine' });
    const late = saveDraft(db(), modelId, 1, { ...doc, name: 'yours' });
    await expect(late).rejects.toThrow(ConflictError);
    await late.catch((e: ConflictError) => expect((e.stored as { name: string }).name).toBe('mine'));
  });
  it('two who publish at once make one version', async () => {
    const { modelId } = await createBoardModel(db(), { doc });
    await saveDraft(db(), modelId, 1, { ...doc, name: 'raced' });
    const [a, b] = await Promise.all([publishBoardModel(db(), modelId), publishBoardModel(db(), modelId)]);
    expect(a.id).toBe(b.id);
  });
  it('lists models with their jobs, not those of express jobs', async () => {
    await createBoardModel(db(), { doc: { ...doc, name: 'express one' }, express: true });
    const names = (await listBoardModels(db())).map((m) => m.name);
    expect(names).toContain(doc.name);
    expect(names).not.toContain('express one');
  });
});

describe('tickets', () => {
  it('number themselves and know their customer again', async () => {
    const [a, b] = [await ticket(), await ticket()];
    expect(b.number).toBe(a.number + 1);
    expect(a.customerId).toBe(b.customerId);
    expect((await ticketById(db(), a.id))?.customer.name).toBe('Ada Marsh');
  });
  it('are found by number, device, customer and complaint, with % and _ taken literally', async () => {
    const t = await ticket({ customer: 'Quince & Sons', device: '100%_odd', complaint: 'hums' });
    for (const search of [String(t.number), '100%_o', 'quince', 'HUMS'])
      expect((await listTickets(db(), { search })).rows.map((r) => r.id)).toContain(t.id);
    expect((await listTickets(db(), { search: '%%%' })).rows).toHaveLength(0);
  });
  it('come in pages, open and closed apart', async () => {
    const t = await ticket({ customer: 'Closing' });
    await closeTicket(db(), t.id, new Date());
    expect((await listTickets(db(), { search: 'Closing' })).rows).toEqual([]);
    expect((await listTickets(db(), { search: 'Closing', closed: true })).rows[0].id).toBe(t.id);
    for (let n = 0; n < 35; n++) await ticket({ customer: 'Many' });
    const ask = (edge: { before?: number; after?: number }) => listTickets(db(), { search: 'Many', ...edge });
    const first = await ask({});
    expect(first).toMatchObject({ older: true, newer: false });
    expect(first.rows).toHaveLength(30);
    const second = await ask({ before: first.rows[29].number });
    expect(second).toMatchObject({ older: false, newer: true });
    expect(second.rows).toHaveLength(5);
    // the way back shows the same page, and what was added meanwhile
    const back = await ask({ after: second.rows[0].number });
    expect(back).toEqual(first);
    await ticket({ customer: 'Many' });
    expect(await ask({ after: second.rows[0].number })).toMatchObject({ newer: true, rows: first.rows });
    const all = await listTickets(db(), {});
    expect(all.rows.map((r) => r.number)).toEqual(all.rows.map((r) => r.number).toSorted((a, b) => b - a));
  });
  it('closed ones are closed once; taken up again they keep the board and are linked both ways', async () => {
    const t = await ticket({ customer: 'Returns', serial: 'R-1' });
    const first = new Date('2026-01-02T10:00:00Z');
    await closeTicket(db(), t.id, first);
    await closeTicket(db(), t.id, new Date());
    expect((await ticketById(db(), t.id))?.ticket.closedAt).toEqual(first);
    const again = await ticket({ customer: 'Returns', reopens: { id: t.id, boardId: t.boardId } });
    expect(again.boardId).toBe(t.boardId);
    expect((await ticketById(db(), again.id))?.serial).toBe('R-1');
    expect((await reopeningsOf(db(), again)).earlier?.number).toBe(t.number);
    const closed = (await ticketById(db(), t.id))?.ticket ?? t;
    expect((await reopeningsOf(db(), closed)).later.map((r) => r.id)).toEqual([again.id]);
    expect(await reopeningsOf(db(), await ticket())).toEqual({ earlier: null, later: [] });
  });
  it('refuse settings saved from an old version', async () => {
    const t = await ticket();
    const settings = { v: 2 as const, stationId: v7(), ironId: v7(), ambient_C: 22, methods: [] };
    await savePlanSettings(db(), t.id, t.version, settings);
    await expect(savePlanSettings(db(), t.id, t.version, settings)).rejects.toThrow(ConflictError);
  });
  it('cannot pin a board version that is not there', async () => {
    await expect(ticket({ boardVersionId: v7() })).rejects.toThrow();
  });
});

describe('job events', () => {
  const event = (body: JobEventBody): JobEvent => ({ id: v7(), at: 1_790_000_000_000, actor: 'unsigned', v: 1, body });
  it('a closed job asked for again by three windows is taken up once', async () => {
    const t = await ticket();
    expect(await reopenTicket(db(), t.id)).toBeNull();
    await closeTicket(db(), t.id, new Date());
    const again = await Promise.all([0, 1, 2].map(() => reopenTicket(db(), t.id)));
    expect(new Set(again.map((r) => r?.id)).size).toBe(1);
  });
  it('keep the order of writing and take an event once', async () => {
    const t = await ticket();
    const events = ['first', 'second', 'third'].map((text) => event({ type: 'observation', text }));
    await appendEvents(db(), t.id, [events[0]]);
    await appendEvents(db(), t.id, [events[1]]);
    await appendEvents(db(), t.id, [events[0], events[2]]);
    expect(await eventsOf(db(), t.id)).toEqual(events);
  });
  it('come for many jobs in one go', async () => {
    const [a, b] = [await ticket(), await ticket()];
    await appendEvents(db(), a.id, [event({ type: 'lands-clean', ok: true })]);
    const rows = await eventsAfter(db(), [
      { ticketId: a.id, seq: 0 },
      { ticketId: b.id, seq: 0 },
    ]);
    expect(rows.map((r) => r.ticketId)).toEqual([a.id]);
    expect(await eventsAfter(db(), [{ ticketId: a.id, seq: rows[0].seq }])).toEqual([]);
  });
});

describe('plans', () => {
  it('store once, come back checked, newest first', async () => {
    const t = await ticket();
    const plan = {
      id: v7(),
      v: PLAN_VERSION,
      ticketId: t.id,
      target: 'target',
      inputHash: 'a'.repeat(64),
      engineVersion: 1,
      kit: { station: { ...DEFAULT_STATION, id: '', name: 's' }, iron: { id: '', name: 'i' } },
      methods: [],
      results: {},
    };
    await storePlan(db(), plan);
    await storePlan(db(), { ...plan, inputHash: 'b'.repeat(64) });
    expect((await planById(db(), plan.id))?.inputHash).toBe('a'.repeat(64));
    const later = { ...plan, id: v7() };
    await storePlan(db(), later);
    expect((await ticketById(db(), t.id))?.latestPlanId).toBe(later.id);
  });
  it('are taken over from another job with the same inputs and the same engine, and only then', async () => {
    const [theirs, mine] = [await ticket(), await ticket()];
    const kit = { station: { ...DEFAULT_STATION, id: '', name: 's' }, iron: { id: '', name: 'i' } };
    const same = { v: PLAN_VERSION, target: 'c7', inputHash: v7().padEnd(64, '0'), engineVersion: 3, kit };
    const methods = [{ id: 'air-slow', phases: [] }];
    await storePlan(db(), { ...same, id: v7(), ticketId: theirs.id, methods, results: {} });
    const ask = (differs: object) => {
      const asked = { ...same, id: v7(), ticketId: mine.id, ...differs };
      return storeKnownPlan(db(), asked).then((found) => [found, asked.id] as const);
    };
    for (const differs of [{ inputHash: 'c'.repeat(64) }, { engineVersion: 4 }, { v: PLAN_VERSION - 1 }])
      expect((await ask(differs))[0]).toBe(false);
    expect((await ticketById(db(), mine.id))?.latestPlanId).toBeNull();
    // what hands took while the rest was computed says nothing of the rest
    const inputHash = v7().padEnd(64, '1');
    await storePlan(db(), { ...same, inputHash, id: v7(), ticketId: theirs.id, methods, results: {}, whole: false });
    expect((await ask({ inputHash }))[0]).toBe(false);
    const [found, id] = await ask({});
    expect(found).toBe(true);
    expect((await ticketById(db(), mine.id))?.latestPlanId).toBe(id);
  });
});

describe('photos', () => {
  it('keep picture and thumbnail apart from the list, all or nothing', async () => {
    const t = await ticket();
    const photo = {
      id: v7(),
      ticketId: t.id,
      caption: 'before',
      side: 'top' as const,
      width: 4,
      height: 3,
      image: Buffer.from([1, 2, 3]),
      thumbnail: Buffer.from([9]),
    };
    await addPhoto(db(), photo);
    expect((await photosOf(db(), t.id)).map((p) => p.caption)).toEqual(['before']);
    expect(await pictureOf(db(), photo.id, 'image')).toEqual(Buffer.from([1, 2, 3]));
    await expect(addPhoto(db(), { ...photo, ticketId: v7(), id: v7() })).rejects.toThrow();
    const blobs = () => db().execute(sql`select count(*)::int as n from photo_blobs`);
    expect((await blobs()).rows[0].n).toBe(1);
    // the same upload once more, as after a lost answer
    await addPhoto(db(), { ...photo, image: Buffer.from([7]) });
    expect(await pictureOf(db(), photo.id, 'image')).toEqual(Buffer.from([1, 2, 3]));
    expect(await removePhoto(db(), photo.id)).toBe(true);
    expect(await removePhoto(db(), photo.id)).toBe(false);
    expect((await blobs()).rows[0].n).toBe(0);
  });
});

describe('kit and settings', () => {
  it('refuse what was edited from an old version', async () => {
    const [id] = await addKitItems(db(), [{ kind: 'air', name: 'A', bench: '' }]);
    const as = (name: string) => ({ name, bench: '', doc: DEFAULT_STATION, spec: USUAL.air.spec, outOfOrder: false });
    await saveKitItem(db(), id, 1, as('B'));
    await expect(saveKitItem(db(), id, 1, as('C'))).rejects.toThrow(ConflictError);
    await expect(removeKitItem(db(), id, 1)).rejects.toThrow(ConflictError);
    expect((await listKit(db())).find((k) => k.id === id)).toMatchObject({ name: 'B', spec: USUAL.air.spec });
    await removeKitItem(db(), id, 2);
    expect((await listKit(db())).find((k) => k.id === id)).toBeUndefined();
  });
  it('settings have defaults until saved', async () => {
    const { value, version } = await shopSettings(db());
    expect(version).toBe(0);
    await saveShopSettings(db(), { ...value, name: 'Shop' }, 0);
    await expect(saveShopSettings(db(), value, 0)).rejects.toThrow(ConflictError);
    const saved = await shopSettings(db());
    await saveShopSettings(db(), { ...saved.value, temperature: 'F' }, saved.version);
    expect((await shopSettings(db())).value).toMatchObject({ name: 'Shop', temperature: 'F' });
  });
});

describe('migration and demo', () => {
  it('several processes may migrate an empty database at once', async () => {
    await admin('create database raced');
    await Promise.all([1, 2, 3].map(() => migrateDatabase(urlOf('raced'), 'drizzle')));
    await migrateDatabase(urlOf('raced'), 'drizzle');
  });
  it('seeds once, also for two processes at once, from the first number on, with tickets at different steps', async () => {
    await admin('create database demo_seed');
    await migrateDatabase(urlOf('demo_seed'), 'drizzle');
    const demo = connect(urlOf('demo_seed'));
    try {
      const now = new Date('2026-03-04T10:00:00Z');
      // an earlier try was killed and used a number up
      await demo.db.execute(sql`select nextval('ticket_numbers')`);
      await Promise.all([seedDemo(demo.db, now), seedDemo(demo.db, now)]);
      await seedDemo(demo.db, now);
      expect(await countTickets(demo.db)).toBe(30);
      const rows = await listOpenTickets(demo.db);
      expect(
        Math.min(
          ...rows.map((r) => r.number),
          ...(await listTickets(demo.db, { closed: true })).rows.map((r) => r.number),
        ),
      ).toBe(101);
      expect(new Set(rows.map((r) => r.kind))).toEqual(
        new Set(['repair', 'fit-only', 'refurbish', 'measure-only', 'transplant']),
      );
    } finally {
      await demo.close();
    }
  });
});
