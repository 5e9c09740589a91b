import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { PlanInputs } from '../../src/lib/jobs/view';
import type { BoardModel } from '@orthos/core/board';
import type { Planned } from '@orthos/core/compare';
import type { Method, PlanInput } from '@orthos/core/rework';

/** What the workers were asked for, and how to answer. */
type Asked = PlanInput & { as: string; ranges?: false };
const asked: { input: Asked; done: (result: Planned) => void; fail: (e: Error) => void }[] = [];
vi.mock('../../src/lib/compute/pool', () => ({
  runInPool: (_: string, input: Asked, { signal }: { signal: AbortSignal }) =>
    new Promise<Planned>((done, fail) => {
      asked.push({ input, done, fail });
      signal.addEventListener('abort', () => fail(new DOMException('called off', 'AbortError')));
    }),
}));
const { Planner } = await import('../../src/lib/plan/planner.svelte.ts');

const method = (id: string, set_C = 350): Method => ({ id, phases: [{ set_C }] }) as unknown as Method;
const inputs = (...methods: Method[]): PlanInputs =>
  ({ target: 'c7', settings: { ambient_C: 22 }, station: {}, methods: methods.map((m) => ({ method: m })) }) as never;
const result = (id: string, at: number) =>
  ({
    allWet_s: at,
    frames: { values: [at] },
    row: { id, name: id, verdict: 'works', score: at, why: '' },
  }) as unknown as Planned;
const settled = () => new Promise((done) => setTimeout(done));
/** What is asked for since last time. */
const newly = () => asked.splice(0);

let board = {} as BoardModel;
beforeEach(() => {
  asked.length = 0;
  board = {} as BoardModel;
});

/** Computes, answering each way with its place in the list, or the alphabet; what was asked for in full, and quickly. */
async function compute(planner: InstanceType<typeof Planner>, from: PlanInputs, also: string[] = []) {
  const all = planner.compute(board, from, () => also);
  const quickly: string[] = [];
  const full: { as: string; phases: unknown }[] = [];
  for (let round = 0; round < 3; round++) {
    await settled();
    for (const [n, t] of newly().entries()) {
      if (t.input.ranges === false) quickly.push(t.input.as);
      else full.push({ as: t.input.as, phases: t.input.phases });
      t.done(result(t.input.as, 10 + ('abcdef'.includes(t.input.as) ? 'abcdef'.indexOf(t.input.as) : n)));
    }
  }
  return { done: await all, quickly, full };
}

describe('the planner', () => {
  it('looks at every way, and computes the best four in full, and what else was picked', async () => {
    const planner = new Planner();
    const six = inputs(...['a', 'b', 'c', 'd', 'e', 'f'].map((id) => method(id)));
    const first = await compute(planner, six);
    expect(first).toMatchObject({ done: true, quickly: ['a', 'b', 'c', 'd', 'e', 'f'] });
    expect(first.full.map((f) => f.as)).toEqual(['a', 'b', 'c', 'd']);
    expect(Object.keys(planner.quick)).toHaveLength(6);
    const again = await compute(planner, six, ['f']);
    expect([again.quickly, again.full.map((f) => f.as)]).toEqual([[], ['f']]);
    expect(Object.keys(planner.results).sort()).toEqual(['a', 'b', 'c', 'd', 'f']);
    // one more, beside what is there
    const added = planner.add(board, six, method('e'));
    await settled();
    expect(planner.anew).toBe(false);
    for (const t of newly()) t.done(result(t.input.as, 9));
    expect([await added, planner.results.e.allWet_s, planner.results.a.allWet_s]).toEqual([true, 9, 10]);
  });
  it('computes the best before the longest, and of a plan that was begun only the rest', async () => {
    const planner = new Planner();
    const long = (id: string, giveUp_s: number) => ({ id, phases: [{ giveUp_s }] }) as unknown as Method;
    const three = inputs(long('a', 60), long('b', 90), long('c', 300));
    const all = planner.compute(board, three, () => []);
    await settled();
    // answered with their place in the list: a is the best
    const place = { a: 1, b: 2, c: 3 };
    for (const t of newly()) t.done(result(t.input.as, place[t.input.as as 'a']));
    await settled();
    expect([planner.timing.quick === null, planner.from]).toEqual([false, three]);
    const [best, ...more] = newly();
    expect([best.input.as, more]).toEqual(['a', []]);
    best.done(result('a', 1));
    await settled();
    expect(newly().map((t) => t.input.as)).toEqual(['c', 'b']);
    // there for hands, while the others are not
    expect([planner.running, Object.keys(planner.results)]).toEqual([true, ['a']]);
    planner.cancel();
    expect(await all).toBe(false);

    board = {} as BoardModel;
    const rest = planner.compute(board, three, () => [], { a: result('a', 1) });
    expect(Object.keys(planner.results)).toEqual(['a']);
    const order: string[][] = [];
    for (let round = 0; round < 3; round++) {
      await settled();
      const tasks = newly();
      order.push(tasks.map((t) => t.input.as));
      for (const t of tasks) t.done(result(t.input.as, place[t.input.as as 'a']));
    }
    // the best is there: the others share the workers
    expect(order).toEqual([['b', 'c'], ['c', 'b'], []]);
    expect([await rest, Object.keys(planner.results).sort()]).toEqual([true, ['a', 'b', 'c']]);
  });
  it('computes what is looked at before the first answers of the others, and then one after another until the one on top is there', async () => {
    const planner = new Planner();
    const six = inputs(...['a', 'b', 'c', 'd', 'e', 'f'].map((id) => method(id)));
    const all = planner.compute(board, six, () => ['f']);
    // in full, a is worse than it seemed
    const inFull: Record<string, number> = { a: 9, b: 2.5 };
    const place: Record<string, number> = { a: 1, b: 2, c: 3, d: 4, e: 5, f: 6 };
    const order: string[][] = [];
    for (let round = 0; round < 5; round++) {
      await settled();
      const tasks = newly();
      order.push(tasks.map(({ input: { as, ranges } }) => (ranges === false ? as : as.toUpperCase())));
      for (const { done, input } of tasks)
        done(result(input.as, (input.ranges === false ? undefined : inFull[input.as]) ?? place[input.as]));
    }
    // four of the best, the one that fell among them
    expect(order).toEqual([['F'], ['a', 'b', 'c', 'd', 'e'], ['A'], ['B'], ['C', 'D']]);
    expect(await all).toBe(true);
  });
  it('gives first answers of those that have none, and leaves the rest', async () => {
    const planner = new Planner();
    const looked = planner.look(board, inputs(method('a'), method('b')), [method('b')]);
    await settled();
    const tasks = newly();
    expect(tasks.map((t) => [t.input.as, t.input.ranges])).toEqual([['b', false]]);
    for (const t of tasks) t.done(result(t.input.as, 5));
    expect([await looked, Object.keys(planner.quick), Object.keys(planner.results)]).toEqual([true, ['b'], []]);
  });
  it('of a second plan computes only the way that changed, with all fields there', async () => {
    const planner = new Planner();
    await compute(planner, inputs(method('slow', 300), method('fast')));
    const second = await compute(planner, inputs(method('slow', 300), method('fast', 430)));
    expect(second.full).toEqual([{ as: 'fast', phases: [{ set_C: 430 }] }]);
    expect(planner.results.slow.allWet_s).toBe(10);
    expect(Object.keys(planner.frames).sort()).toEqual(['fast', 'slow']);
    // and back again: nothing at all
    const back = await compute(planner, inputs(method('slow', 300), method('fast')));
    expect([back.quickly, back.full]).toEqual([[], []]);
  });
  it('computes all of it on another board, and what has since been crowded out', async () => {
    const planner = new Planner();
    await compute(planner, inputs(method('slow')));
    for (let n = 0; n < 16; n++) await compute(planner, inputs(method('fast', 100 + n)));
    expect((await compute(planner, inputs(method('slow')))).full).toHaveLength(1);
    board = {} as BoardModel;
    expect((await compute(planner, inputs(method('slow')))).full).toHaveLength(1);
  });
  it('keeps nothing of what was called off or failed', async () => {
    const planner = new Planner();
    const called = planner.compute(board, inputs(method('slow')), () => []);
    await settled();
    newly();
    planner.cancel();
    expect(await called).toBe(false);
    const failed = planner.compute(board, inputs(method('slow')), () => []);
    await settled();
    newly()[0].fail(new Error('the mesh is too large'));
    expect([await failed, planner.error, planner.running]).toEqual([false, 'the mesh is too large', false]);
    expect((await compute(planner, inputs(method('slow')))).full).toHaveLength(1);
    expect(planner.error).toBeNull();
  });
});
