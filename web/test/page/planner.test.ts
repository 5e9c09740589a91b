import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { PlanInputs } from '../../src/lib/jobs/view';
import type { BoardModel } from '@orthos/core/board';
import type { Method, PlanInput, PlanResult } from '@orthos/core/rework';

/** What the workers were asked for, and how to answer. */
const asked: { input: PlanInput; done: (result: PlanResult) => void; fail: (e: Error) => void }[] = [];
vi.mock('../../src/lib/compute/pool', () => ({
  runInPool: (_: string, input: PlanInput, { signal }: { signal: AbortSignal }) =>
    new Promise<PlanResult>((done, fail) => {
      asked.push({ input, done, fail });
      signal.addEventListener('abort', () => fail(new DOMException('called off', 'AbortError')));
    }),
}));
const { Planner } = await import('../../src/lib/plan/planner.svelte.ts');

const method = (id: string, set_C = 350): Method => ({ id, phases: [{ set_C }] }) as unknown as Method;
const inputs = (...methods: Method[]): PlanInputs =>
  ({ target: 'c7', settings: { ambient_C: 22 }, station: {}, methods: methods.map((m) => ({ method: m })) }) as never;
const result = (at: number) => ({ allWet_s: at, frames: { values: [at] } }) as unknown as PlanResult;
const settled = () => new Promise((done) => setTimeout(done));
/** What is asked for since last time. */
const newly = () => asked.splice(0);

let board = {} as BoardModel;
beforeEach(() => {
  asked.length = 0;
  board = {} as BoardModel;
});

/** Computes and answers each method with its place in the list. */
async function compute(planner: InstanceType<typeof Planner>, from: PlanInputs) {
  const all = planner.compute(board, from);
  await settled();
  const tasks = newly();
  tasks.forEach((t, n) => t.done(result(10 + n)));
  return { done: await all, asked: tasks.map((t) => t.input.phases) };
}

describe('the planner', () => {
  it('computes every method, and of a second plan only the method that changed, with all fields there', async () => {
    const planner = new Planner();
    const first = await compute(planner, inputs(method('slow', 300), method('fast')));
    expect([first.done, first.asked.length]).toEqual([true, 2]);
    const second = await compute(planner, inputs(method('slow', 300), method('fast', 430)));
    expect(second.asked).toEqual([[{ set_C: 430 }]]);
    expect(planner.results.slow.allWet_s).toBe(10);
    expect(Object.keys(planner.frames)).toEqual(['slow', 'fast']);
    // and back again: nothing at all
    expect((await compute(planner, inputs(method('slow', 300), method('fast')))).asked).toEqual([]);
  });
  it('computes all of it on another board, and what has since been crowded out', async () => {
    const planner = new Planner();
    await compute(planner, inputs(method('slow')));
    for (let n = 0; n < 16; n++) await compute(planner, inputs(method('fast', 100 + n)));
    expect((await compute(planner, inputs(method('slow')))).asked).toHaveLength(1);
    board = {} as BoardModel;
    expect((await compute(planner, inputs(method('slow')))).asked).toHaveLength(1);
  });
  it('keeps nothing of what was called off or failed', async () => {
    const planner = new Planner();
    const called = planner.compute(board, inputs(method('slow')));
    await settled();
    newly();
    planner.cancel();
    expect(await called).toBe(false);
    const failed = planner.compute(board, inputs(method('slow')));
    await settled();
    newly()[0].fail(new Error('the mesh is too large'));
    expect([await failed, planner.error, planner.running]).toEqual([false, 'the mesh is too large', false]);
    expect((await compute(planner, inputs(method('slow')))).asked).toHaveLength(1);
    expect(planner.error).toBeNull();
  });
});
