import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { DiagnoseInput, Diagnosis } from '@orthos/core/diagnosis';

/** Stands for the worker: answers when told to, or is one that cannot be loaded. */
class FakeWorker extends EventTarget {
  static made: FakeWorker[] = [];
  terminated = false;
  answers: { done: (result: Diagnosis) => void; fail: (e: Error) => void; progress: (n: number) => void }[] = [];
  constructor() {
    super();
    FakeWorker.made.push(this);
  }
  terminate() {
    this.terminated = true;
  }
}
vi.mock('../../src/workers/diagnose.worker?worker', () => ({ default: FakeWorker }));
vi.mock('comlink', () => ({
  proxy: (f: unknown) => f,
  wrap: (worker: FakeWorker) => ({
    diagnose: (_: DiagnoseInput, progress: (n: number) => void) =>
      new Promise<Diagnosis>((done, fail) => worker.answers.push({ done, fail, progress })),
  }),
}));
const { Finder } = await import('../../src/lib/diagnose/finder.svelte.ts');

const question = {} as DiagnoseInput;
const answer = (name: string) => ({ name }) as unknown as Diagnosis;
const settled = () => new Promise((done) => setTimeout(done));

beforeEach(() => {
  FakeWorker.made = [];
});
let finder = new Finder();
afterEach(() => {
  finder.end();
  finder = new Finder();
});

describe('the finder', () => {
  it('gives the answer to the last question, whichever comes first', async () => {
    const [first, second] = [finder.ask(question), finder.ask(question)];
    const [worker] = FakeWorker.made;
    expect(FakeWorker.made).toHaveLength(1);
    worker.answers[1].progress(0.4);
    expect(finder.progress).toBe(0.4);
    worker.answers[1].done(answer('second'));
    await second;
    worker.answers[0].done(answer('first'));
    await first;
    expect(finder.result).toEqual(answer('second'));
    expect(finder.progress).toBeNull();
    // progress that comes after the result says nothing any more
    worker.answers[1].progress(0.9);
    expect(finder.progress).toBeNull();
  });
  it('says why a circuit cannot be computed, and answers the next question', async () => {
    const asked = finder.ask(question);
    FakeWorker.made[0].answers[0].fail(new Error('R3 has no value'));
    await asked;
    expect(finder.problem).toBe('R3 has no value');
    const next = finder.ask(question);
    FakeWorker.made[0].answers[1].done(answer('mended'));
    await next;
    expect([finder.problem, finder.result]).toEqual([null, answer('mended')]);
  });
  it('is idle again after a worker that could not be loaded, and begins another', async () => {
    void finder.ask(question);
    expect(finder.progress).toBe(0);
    FakeWorker.made[0].dispatchEvent(new ErrorEvent('error', { message: 'no such script' }));
    expect(finder.progress).toBeNull();
    expect(finder.problem).toContain('no such script');
    expect(FakeWorker.made[0].terminated).toBe(true);
    const next = finder.ask(question);
    expect(FakeWorker.made).toHaveLength(2);
    FakeWorker.made[1].answers[0].done(answer('now'));
    await next;
    expect([finder.problem, finder.result]).toEqual([null, answer('now')]);
  });
  it('forgets its result where there is nothing to ask', async () => {
    const asked = finder.ask(question);
    FakeWorker.made[0].answers[0].done(answer('one'));
    await asked;
    await finder.ask(null);
    await settled();
    expect([finder.result, finder.progress]).toEqual([null, null]);
  });
});
