// The plan on its page: what is kept when it is called off, what is picked and used while others are computed, what comes after.
import { flushSync } from 'svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { BoardModel } from '@orthos/core/board';
import type { Planned } from '@orthos/core/compare';
import type { JobView } from '../../src/lib/jobs/view';

type Asked = { as: string; ranges?: false };
const asked: { input: Asked; done: (result: Planned) => void }[] = [];
vi.mock('../../src/lib/compute/pool', () => ({
  runInPool: (_: string, input: Asked, { signal }: { signal: AbortSignal }) =>
    new Promise<Planned>((done, fail) => {
      asked.push({ input, done });
      signal.addEventListener('abort', () => fail(new DOMException('called off', 'AbortError')));
    }),
}));
interface Sent {
  results: Record<string, Planned>;
  whole: boolean;
  inputHash: string;
}
const server = { plans: [] as Sent[], events: [] as object[], refuses: null as Error | null, reloads: 0 };
let view = $state.raw({} as JobView);
vi.mock('../../src/lib/jobs/send', () => {
  class SendError extends Error {
    readonly status = 409;
  }
  return {
    SendError,
    sendPlan: (_: string, plan: Sent) => {
      if (server.refuses) return Promise.reject(server.refuses);
      server.plans.push(plan);
      const id = `p${server.plans.length}`;
      view = { ...view, plan: { id, results: plan.results, whole: plan.whole }, freshness: 'fresh' };
      return Promise.resolve(id);
    },
    takeKnownPlan: () => Promise.resolve(false),
    sendPlanSettings: () => {
      view = { ...view, inputs: { ...view.inputs, hash: 'other' } as JobView['inputs'] };
      return Promise.resolve();
    },
    recordEvent: (_: string, body: object) => Promise.resolve(server.events.push(body)),
    reloadView: () => Promise.resolve(server.reloads++),
  };
});
const { PlanKeeper } = await import('../../src/lib/plan/planKeeper.svelte.ts');
const { SendError } = (await import('../../src/lib/jobs/send')) as unknown as { SendError: new (m: string) => Error };

const WAYS = ['a', 'b', 'c', 'd', 'e', 'f'];
let verdict = 'works';
const result = (id: string) =>
  ({ allWet_s: 30, row: { id, name: id, verdict, score: id.charCodeAt(0), why: '' } }) as unknown as Planned;
let job = 0;
/** A job nobody has planned for, on its page. */
function open(asks: string | null = null) {
  view = {
    ticket: { id: `job-${++job}`, version: 1 },
    board: {} as BoardModel,
    inputs: {
      ...{ target: 'c7', hash: 'h', settings: { ambient_C: 22, methods: [] }, edited: [], station: {} },
      methods: WAYS.map((id) => ({ method: { id, phases: [] } })),
    },
    ...{ plan: null, freshness: 'none', gates: [], inUse: null, attempts: [] },
  } as unknown as JobView;
  let keeper!: InstanceType<typeof PlanKeeper>;
  const page = { begins: vi.fn(), changed: vi.fn(), shows: vi.fn() };
  const close = $effect.root(() => {
    keeper = new PlanKeeper(() => view, asks, page);
  });
  return { keeper, page, close };
}
const settled = () => new Promise((done) => setTimeout(done));
/** Answers what is asked for, in full only those of `full`; what is asked for in full by then. */
async function answer(...full: string[]): Promise<string[]> {
  await settled();
  for (const a of asked.filter(({ input }) => input.ranges === false || full.includes(input.as))) {
    asked.splice(asked.indexOf(a), 1);
    a.done(result(a.input.as));
  }
  await settled();
  await settled();
  flushSync();
  return asked.map(({ input }) => input.as);
}
beforeEach(() => {
  asked.length = 0;
  verdict = 'works';
  Object.assign(server, { plans: [], events: [], refuses: null, reloads: 0 });
});

describe('a plan on its page', () => {
  it('is computed, kept whole, and its best way shown', async () => {
    const { keeper, page, close } = open();
    const computing = keeper.compute();
    expect(await answer()).toEqual(['a']);
    expect(keeper.usable).toBe(false);
    await answer('a');
    expect([keeper.chosen, keeper.usable]).toEqual(['a', true]);
    await answer('b', 'c', 'd');
    await computing;
    flushSync();
    expect(server.plans.map((p) => [Object.keys(p.results).sort().join(''), p.whole, p.inputHash])).toEqual([
      ['abcd', true, 'h'],
    ]);
    expect([keeper.chosen, keeper.stale, page.begins.mock.calls.length]).toEqual(['a', false, 1]);
    expect(page.shows).toHaveBeenCalled();
    // one more that somebody picks is computed, and kept with the others
    keeper.pick('f');
    flushSync();
    expect(await answer()).toEqual(['f']);
    await answer('f');
    expect(Object.keys(server.plans[1].results).sort().join('')).toBe('abcdf');
    expect(server.plans[1].whole).toBe(true);
    close();
  });
  it('keeps what is through when it is called off, and goes on from there', async () => {
    const { keeper, close } = open();
    const computing = keeper.compute();
    await answer();
    await answer('a');
    keeper.cancel();
    await computing;
    flushSync();
    expect(server.plans.map((p) => [Object.keys(p.results), p.whole])).toEqual([[['a'], false]]);
    expect([keeper.usable, keeper.cancelled, keeper.stale]).toEqual([true, true, false]);
    asked.length = 0;
    const rest = keeper.compute();
    await answer();
    await answer('b');
    await answer('c', 'd');
    await rest;
    expect(Object.keys(server.plans[1].results).sort().join('')).toBe('abcd');
    expect(server.plans[1].whole).toBe(true);
    close();
  });
  it('is called off by what is changed meanwhile, and nothing of the old inputs is kept', async () => {
    const { keeper, page, close } = open();
    const computing = keeper.compute();
    await answer();
    await answer('a');
    expect(await keeper.edits.surroundings({ draught: 4 })).toBe(true);
    await computing;
    flushSync();
    expect([keeper.planner.running, keeper.usable, keeper.sure.size, server.plans.length]).toEqual([
      false,
      false,
      0,
      0,
    ]);
    expect(page.changed).toHaveBeenCalledOnce();
    asked.length = 0;
    const anew = keeper.compute();
    await answer();
    await answer('a');
    await answer('b', 'c', 'd');
    await anew;
    expect(server.plans.map((p) => [p.inputHash, p.whole])).toEqual([['other', true]]);
    close();
  });
  it('keeps nothing when nothing is through', async () => {
    const { keeper, close } = open();
    const computing = keeper.compute();
    await answer();
    keeper.cancel();
    await computing;
    expect([server.plans.length, keeper.usable]).toEqual([0, false]);
    close();
  });
  it('can be used while others are computed; what is picked meanwhile comes first', async () => {
    const { keeper, close } = open();
    const computing = keeper.compute();
    await settled();
    keeper.pick('e');
    expect(await answer()).toEqual(['e']);
    expect(keeper.chosen).toBe('e');
    await answer('e');
    await keeper.use();
    expect(server.plans.map((p) => [Object.keys(p.results), p.whole])).toEqual([[['e'], false]]);
    expect(server.events).toEqual([expect.objectContaining({ type: 'plan', planId: 'p1', methodId: 'e' })]);
    await answer('a', 'b', 'c', 'd');
    await answer('a', 'b', 'c', 'd');
    await computing;
    expect([server.plans.at(-1)?.whole, keeper.chosen]).toEqual([true, 'e']);
    close();
  });
  it('opened for one way computes that one first, then looks at the others', async () => {
    const { keeper, close } = open('e');
    flushSync();
    await settled();
    expect(asked).toEqual([]);
    const computing = keeper.compute();
    await settled();
    expect(asked.map(({ input }) => [input.as, input.ranges])).toEqual([['e', undefined]]);
    expect(await answer('e')).toEqual(['a', 'b', 'c', 'd', 'f']);
    expect([keeper.chosen, keeper.usable]).toEqual(['e', true]);
    expect(await answer()).toEqual(['a']);
    await answer('a');
    await answer('b', 'c', 'd');
    await computing;
    expect([Object.keys(keeper.results).sort().join(''), keeper.chosen]).toEqual(['abcde', 'e']);
    close();
  });
  it('says that nothing works once each way was looked at, not before', async () => {
    verdict = 'no';
    const { keeper, close } = open('e');
    const computing = keeper.compute();
    await answer('e');
    keeper.cancel();
    await computing;
    flushSync();
    expect([keeper.usable, keeper.shut]).toEqual([true, false]);
    asked.length = 0;
    const rest = keeper.compute();
    await answer();
    keeper.cancel();
    await rest;
    expect(keeper.shut).toBe(true);
    close();
  });
  it('of inputs that have changed meanwhile is refused: it says so, and looks at what there is now', async () => {
    const { keeper, close } = open();
    server.refuses = new SendError('changed: compute it again');
    const computing = keeper.compute();
    await answer();
    await answer('a');
    await answer('b', 'c', 'd');
    await computing;
    expect([keeper.problem, server.reloads]).toEqual(['changed: compute it again', 1]);
    close();
  });
});
