/** What a job's page is told, against a real database: plan in use, staleness, gates, photos, reopenings. */
import type { JobEventBody } from '@orthos/core/job';
import { methodsFor, type PlanResult } from '@orthos/core/rework';
import { ENGINE_VERSION } from '@orthos/core/thermal';
import { v7 } from 'uuid';
import { beforeAll, describe, expect, it } from 'vitest';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { jobAnswer, jobView } from '../src/lib/server/jobs/jobView.ts';
import { createBoardModel } from '../src/lib/server/repositories/boardModels.ts';
import { appendEvents } from '../src/lib/server/repositories/jobEvents.ts';
import { addPhoto } from '../src/lib/server/repositories/photos.ts';
import { PLAN_VERSION, storePlan } from '../src/lib/server/repositories/plans.ts';
import { closeTicket, createTicket, savePlanSettings } from '../src/lib/server/repositories/tickets.ts';
import { testDatabase } from './database.ts';

const { db } = testDatabase();
let model: { modelId: string; versionId: string };
beforeAll(async () => {
  model = await createBoardModel(db(), { doc: ternT2, field: 'consumer' });
});

const RUN = '019ac000-0000-4000-8000-0000000000d1';
const suspect: JobEventBody = { type: 'suspect', partId: 'u1', why: 'low' };
const begun: JobEventBody = {
  type: 'run-begun',
  runId: RUN,
  op: 'remove',
  methodId: 'air-slow',
  guide: null,
  offline: false,
  bench: false,
};

async function job(...bodies: JobEventBody[]) {
  const ticket = await createTicket(db(), {
    kind: 'repair',
    customer: 'Ada Marsh',
    device: 'display',
    complaint: 'dark',
    modelId: model.modelId,
    boardVersionId: model.versionId,
  });
  const write = (...more: JobEventBody[]) =>
    appendEvents(
      db(),
      ticket.id,
      more.map((body) => ({ id: v7(), at: Date.now(), actor: 'unsigned', v: 1, body })),
    );
  await write(...bodies);
  return { ticket, write, view: () => jobView(db(), ticket.id) };
}

/** A result in which the cell is over its limit when the joints are wet, the connector near it. */
const result = (): PlanResult => {
  const neighbour = (partId: string, atWet_C: number, limit_C: number) => ({
    partId,
    distance_mm: 8,
    limit_C,
    limitPlusMinus_C: 10,
    atWet_C,
    peak_C: atWet_C + 5,
    over_s: null,
    loosens_s: null,
  });
  return {
    joints: [{ terminal: '1', solidus_s: 20, liquidus_s: 22, peak_C: 230 }],
    allWet_s: 22,
    freezes_s: null,
    last: { terminal: '1', why: 'it is alone' },
    body_C: 230,
    pads_C: 228,
    neighbours: [neighbour('bt1', 80, 60), neighbour('j1', 225, 230), neighbour('j2', 90, 230)],
    closes: null,
    ended_s: 80,
    cells: 100,
    steps: 100,
    allWetRange_s: { from: 20, to: 26 },
    closesRange_s: { from: null, to: null },
    matters: [],
    calibrated: false,
  };
};

async function planned() {
  const made = await job(suspect);
  const { inputs } = await made.view();
  if (!inputs) throw new Error('no inputs');
  const id = v7();
  await storePlan(db(), {
    id,
    v: PLAN_VERSION,
    ticketId: made.ticket.id,
    target: inputs.target,
    inputHash: inputs.hash,
    engineVersion: ENGINE_VERSION,
    kit: inputs.kit,
    methods: inputs.settings.methods,
    results: { 'air-slow': result() },
  });
  return { ...made, id, inputs };
}
const gate = (view: Awaited<ReturnType<typeof jobView>>, id: string) => view.gates.find((g) => g.id === id);

describe('a plan in use', () => {
  it('is none until one is chosen; then it says who is too hot and what to lay out', async () => {
    const { view, write, id } = await planned();
    const before = await view();
    expect([before.inUse, before.hotNeighbours]).toEqual([null, []]);
    expect(gate(before, 'neighbours-covered')?.state).toBe('unknown');
    expect(gate(before, 'laid-out')?.state).toBe('unknown');
    await write({ type: 'plan', planId: id, methodId: 'air-slow' });
    const after = await view();
    expect(after.inUse?.method.id).toBe('air-slow');
    // the connector is under its limit, but not by more than the limit is uncertain
    expect(after.hotNeighbours).toEqual(['bt1', 'j1']);
    expect(gate(after, 'neighbours-covered')?.evidence).toEqual(['bt1', 'j1']);
    await write(
      { type: 'neighbour-covered', partId: 'bt1', how: 'taken out' },
      { type: 'neighbour-accepted', partId: 'j1', why: 'short' },
    );
    expect(gate(await view(), 'neighbours-covered')?.state).toBe('met');
    expect(gate(after, 'laid-out')?.state).toBe('unmet');
  });
  it('goes stale with its inputs, but not once the hands have begun', async () => {
    const { view, write, ticket, id, inputs } = await planned();
    await write({ type: 'plan', planId: id, methodId: 'air-slow' });
    expect((await view()).freshness).toBe('fresh');
    await savePlanSettings(db(), ticket.id, 1, { ...inputs.settings, ambient_C: 10 });
    const stale = await view();
    expect([stale.freshness, gate(stale, 'plan-fresh')?.state]).toEqual(['stale', 'unmet']);
    await write(begun);
    const working = await view();
    expect([working.freshness, gate(working, 'plan-fresh')?.state]).toEqual(['fresh', 'met']);
  });
  it('belongs to its target: a new suspect has none', async () => {
    const { view, write, id } = await planned();
    await write({ type: 'plan', planId: id, methodId: 'air-slow' }, { type: 'new-attempt', why: 'was not it' });
    await write({ type: 'suspect', partId: 'u2', why: 'next' });
    const now = await view();
    expect([now.plan, now.inUse, now.inputs?.target]).toEqual([null, null, 'u2']);
  });
  it('a method that the plan has no result for is no plan in use', async () => {
    const { view, write, id } = await planned();
    await write({ type: 'plan', planId: id, methodId: 'air-fast' });
    expect((await view()).inUse).toBeNull();
  });
  it('an older engine warns, changed inputs make it stale', async () => {
    const { view, ticket, inputs } = await planned();
    await storePlan(db(), {
      id: v7(),
      v: PLAN_VERSION,
      ticketId: ticket.id,
      target: inputs.target,
      inputHash: inputs.hash,
      engineVersion: ENGINE_VERSION - 1,
      kit: inputs.kit,
      methods: inputs.settings.methods,
      results: { 'air-slow': result() },
    });
    expect((await view()).freshness).toBe('older-engine');
  });
});

describe('the view of a job', () => {
  it('judges the board of the ticket: its sources, rails and loads', async () => {
    const { view, write } = await job(suspect);
    expect(gate(await view(), 'power-gone')?.evidence).toEqual(['battery', 'cell']);
    await write(begun, {
      type: 'short-check',
      rail: '3.3 V',
      load: null,
      ohm: 2300,
      good_ohm: 2400,
      nature: null,
    });
    expect(gate(await view(), 'short-check')?.why).toBe('still to measure: 5 V, with display glass');
  });
  it('knows which part can go on the wrong way round', async () => {
    const chip = await job(suspect);
    expect(gate(await chip.view(), 'orientation')?.state).toBe('unmet');
    const ceramic = await job({ type: 'suspect', partId: 'c7', why: 'short' });
    expect(gate(await ceramic.view(), 'orientation')?.why).toBe('this part has no wrong way round');
    const nothing = await job();
    expect(gate(await nothing.view(), 'orientation')?.state).toBe('unknown');
  });
  it('stands where its log says', async () => {
    const { view, write } = await job();
    expect((await view()).step).toBe('intake');
    await write({ type: 'observation', text: 'a burnt smell' });
    expect((await view()).step).toBe('diagnose');
    await write(suspect);
    expect((await view()).step).toBe('plan');
  });
  it('lists photos without pictures, and what it takes up again', async () => {
    const { view, ticket } = await job();
    await addPhoto(db(), {
      id: v7(),
      ticketId: ticket.id,
      taken: 'after',
      width: 4,
      height: 3,
      image: Buffer.from([1]),
      thumbnail: Buffer.from([2]),
    });
    await closeTicket(db(), ticket.id, new Date());
    const again = await createTicket(db(), {
      kind: 'repair',
      customer: 'Ada Marsh',
      device: 'display',
      complaint: 'came back',
      modelId: model.modelId,
      boardVersionId: model.versionId,
      reopens: { id: ticket.id, boardId: ticket.boardId },
    });
    const closed = await view();
    expect(closed.photos.map((p) => [p.taken, Object.hasOwn(p, 'image')])).toEqual([['after', false]]);
    expect(closed.reopenings.later.map((r) => r.number)).toEqual([again.number]);
    expect((await jobView(db(), again.id)).reopenings.earlier?.id).toBe(ticket.id);
  });
  it('hashes what a plan rests on, and nothing else', async () => {
    const [a, b] = [await job(suspect), await job(suspect, { type: 'observation', text: 'a scratch' })];
    const [one, two] = [(await a.view()).inputs, (await b.view()).inputs];
    expect(one?.hash).toBe(two?.hash);
    expect(one?.methods.map((m) => m.method.id)).toEqual(methodsFor('TSSOP-20').map((m) => m.method.id));
    // another target rests on something else
    const other = await job({ type: 'suspect', partId: 'u2', why: 'low' });
    expect((await other.view()).inputs?.hash).not.toBe(one?.hash);
  });
});

describe('a look at a job', () => {
  it('brings of its log what the page does not have, all of it where the page has something else', async () => {
    const { ticket, view } = await job(suspect, { type: 'observation', text: 'warm' });
    const { events } = await view();
    const after = async (id: string | null) => {
      const { log } = await jobAnswer(db(), ticket.id, id);
      return [log.after, log.events.map((e) => e.id)];
    };
    const ids = events.map((e) => e.id);
    expect(await after(null)).toEqual([null, ids]);
    expect(await after(ids[0])).toEqual([ids[0], [ids[1]]]);
    expect(await after(ids[1])).toEqual([ids[1], []]);
    // a page from before a restore
    expect(await after(v7())).toEqual([null, ids]);
    expect(await after('')).toEqual([null, ids]);
  });
  it('is refused for what is not there', async () => {
    await expect(jobAnswer(db(), v7(), null)).rejects.toMatchObject({ status: 404 });
  });
});
