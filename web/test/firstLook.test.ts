/** Boards taken in before anybody drew them, the day's list, parts found from anywhere, where a rail search begins. */
import { blankBoard, boardModelSchema } from '@orthos/core/board';
import { placeOn } from '@orthos/core/circuit';
import type { JobEvent, JobEventBody, JobState } from '@orthos/core/job';
import { expressBoard } from '@orthos/core/rework';
import { v7 } from 'uuid';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../src/lib/diagnose/circuitOf.ts';
import { feedOf, lowestRail } from '../src/lib/diagnose/rails.ts';
import { demoCircuits } from '../src/lib/server/demo/circuits.ts';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { createBoardModel, publishBoardModel, saveDraft } from '../src/lib/server/repositories/boardModels.ts';
import { appendEvents } from '../src/lib/server/repositories/jobEvents.ts';
import { suggestionsOf, suggestJobs } from '../src/lib/server/repositories/suggestions.ts';
import {
  closeTicket,
  createTicket,
  listAwaitingPickUp,
  listOpenTickets,
  partsOfOpenJobs,
  ticketById,
} from '../src/lib/server/repositories/tickets.ts';
import { testDatabase } from './database.ts';

const { db } = testDatabase();
const drawn = expressBoard({ package: 'SOIC-8', boardKind: 'thin', plastic: 'pbt', distance_mm: 4 });
const takeIn = (model: { modelId: string; versionId: string }, more: { promisedOn?: string } = {}) =>
  createTicket(db(), {
    kind: 'repair',
    customer: 'Ada Marsh',
    device: 'lamp',
    complaint: 'dark',
    modelId: model.modelId,
    boardVersionId: model.versionId,
    ...more,
  });
const event = (body: JobEventBody): JobEvent => ({ id: v7(), at: Date.now(), actor: 'unsigned', v: 1, body });
const pinned = async (id: string) => (await ticketById(db(), id))?.ticket.boardVersionId;

describe('a board that is not here yet', () => {
  it('is a valid model by name and size; its open jobs get the first drawing, closed and later ones keep what they had', async () => {
    const doc = blankBoard('Harbour timer', 80, 60);
    expect(boardModelSchema.safeParse(doc).success).toBe(true);
    const model = await createBoardModel(db(), { doc });
    const [open, closed] = [await takeIn(model), await takeIn(model)];
    await closeTicket(db(), closed.id, new Date());
    await saveDraft(db(), model.modelId, 1, { ...drawn, name: 'Harbour timer' });
    const first = await publishBoardModel(db(), model.modelId);
    expect(await pinned(open.id)).toBe(first.id);
    expect(await pinned(closed.id)).toBe(model.versionId);
    await saveDraft(db(), model.modelId, 2, { ...drawn, name: 'Harbour timer 2' });
    const second = await publishBoardModel(db(), model.modelId);
    expect(second.number).toBe(3);
    expect(await pinned(open.id)).toBe(first.id);
  });
});

describe('the day’s list', () => {
  it('has the nearest promise first, and what nobody has fetched yet', async () => {
    const model = await createBoardModel(db(), { doc: drawn });
    const later = await takeIn(model, { promisedOn: '2031-05-02' });
    const sooner = await takeIn(model, { promisedOn: '2031-05-01' });
    const never = await takeIn(model);
    const mine = (await listOpenTickets(db()))
      .map((t) => t.id)
      .filter((id) => [later.id, sooner.id, never.id].includes(id));
    expect(mine).toEqual([sooner.id, later.id, never.id]);
    await closeTicket(db(), later.id, new Date('2031-05-03'));
    await closeTicket(db(), sooner.id, new Date('2031-05-04'));
    const waiting = async (since = '2031-05-01') =>
      (await listAwaitingPickUp(db(), new Date(since), 100)).rows
        .map((t) => t.id)
        .filter((id) => [later.id, sooner.id].includes(id));
    expect(await waiting()).toEqual([later.id, sooner.id]);
    expect(await waiting('2031-05-04')).toEqual([sooner.id]);
    await appendEvents(db(), later.id, [event({ type: 'handed-over' })]);
    expect(await waiting()).toEqual([sooner.id]);
    const all = await listAwaitingPickUp(db(), new Date('2031-05-01'), 1);
    await closeTicket(db(), never.id, new Date('2031-05-05'));
    const more = await listAwaitingPickUp(db(), new Date('2031-05-01'), 1);
    expect([more.rows.length, more.total]).toEqual([1, all.total + 1]);
  });
  it('finds parts on boards of open jobs only', async () => {
    const doc = {
      ...drawn,
      parts: drawn.parts.map((p) => (p.partId === 'target' ? { ...p, ref: 'U77', what: 'timer' } : p)),
    };
    const model = await createBoardModel(db(), { doc });
    const [here, gone] = [await takeIn(model), await takeIn(model)];
    await closeTicket(db(), gone.id, new Date());
    const found = await partsOfOpenJobs(db(), 'u77');
    expect(found.map((p) => [p.id, p.ref, p.partId, p.what])).toEqual([[here.id, 'U77', 'target', 'timer']]);
  });
  it('suggests jobs once', async () => {
    expect(await suggestionsOf(db())).toEqual([]);
    const one = { id: v7(), title: 'lamp', shows: 'how it goes' };
    await suggestJobs(db(), [one]);
    await suggestJobs(db(), []);
    expect(await suggestionsOf(db())).toEqual([one]);
  });
});

describe('a search along a rail', () => {
  const { netlist } = demoCircuits['Tern T2'];
  const at = (ref: string, terminal: string) => {
    const part = ternT2.parts.find((p) => p.ref === ref);
    if (!part) throw new Error(ref);
    return placeOn(part, terminal);
  };
  const read = (
    ref: string,
    terminal: string,
    value: number | 'OL',
    good: number | null,
  ): JobState['readings'][number] => ({
    ...{ type: 'reading', id: v7(), at: 0, place: at(ref, terminal), quantity: 'ohm', value, good, powered: false },
  });
  const nets = ['36V', '3V3', '5V'];
  it('begins on the rail that reads low, not on the first by name', () => {
    expect(lowestRail(ternT2, netlist, [read('C15', '1', 5200, 5100), read('C7', '1', 1.4, 2400)], nets)).toBe('3V3');
    expect(lowestRail(ternT2, netlist, [read('C15', '1', 3, null)], nets)).toBe('5V');
    // read again and well: the newer reading counts
    expect(lowestRail(ternT2, netlist, [read('C7', '1', 1.4, 2400), read('C7', '1', 2390, 2400)], nets)).toBeNull();
    expect(lowestRail(ternT2, netlist, [read('C7', '1', 'OL', null)], nets)).toBeNull();
  });
  it('lets the current in where the rail is fed', () => {
    const places = [at('C7', '1'), at('U3', '5'), at('U2', '1')];
    const nameOf = (p: (typeof places)[number]) =>
      `${ternT2.parts.find((q) => q.partId === p.partId)?.ref}.${p.terminal}`;
    expect(feedOf(netlist, places, nameOf)).toBe(places[1]);
    expect(feedOf(null, places, nameOf)).toBeUndefined();
  });
});

describe('which circuit counts', () => {
  const circuit = (id: string, updatedAt: string) => ({ id, updatedAt, netlist: demoCircuits['Tern T2'].netlist });
  const [older, newer] = [circuit('a', '2026-01-01'), circuit('b', '2026-02-01')];
  it('is the chosen one, else the one drawn last, for the browser and the meter alike', () => {
    expect(circuitOf([older, newer], { circuitId: null })?.id).toBe('b');
    expect(circuitOf([older, newer], { circuitId: 'a' })?.id).toBe('a');
    expect(circuitOf([], { circuitId: 'a' })).toBeNull();
  });
});
