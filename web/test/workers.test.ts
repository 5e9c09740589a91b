/** The pool of workers: who gets one, who waits, and which workers are never used again. */
import { describe, expect, it } from 'vitest';
import { Pool, WorkerFailed } from '../src/lib/compute/workers.ts';

class FakeWorker extends EventTarget {
  ended = false;
  terminate() {
    this.ended = true;
  }
  fail(message?: string) {
    this.dispatchEvent(Object.assign(new Event('error'), { message }));
  }
}
function poolOf(size: number) {
  const made: { worker: FakeWorker }[] = [];
  const make = () => {
    const slot = { worker: new FakeWorker() };
    made.push(slot);
    return slot;
  };
  return { pool: new Pool(() => size, { make }), made };
}
/** A task that ends when it is told to. */
function task() {
  let done: (value: string) => void = () => undefined;
  let fail: (error: Error) => void = () => undefined;
  const run = () => new Promise<string>((yes, no) => ([done, fail] = [yes, no]));
  return { run, done: (v: string) => done(v), fail: (e: Error) => fail(e) };
}
const never = new AbortController().signal;
const settled = () => new Promise((go) => setTimeout(go));

describe('a pool of workers', () => {
  it('keeps a worker for the next task, and a task’s own error is none of the worker’s', async () => {
    const { pool, made } = poolOf(1);
    expect(await pool.run(() => Promise.resolve('a'), never)).toBe('a');
    await expect(pool.run(() => Promise.reject(new Error('no such package')), never)).rejects.toThrow(
      'no such package',
    );
    expect(await pool.run(() => Promise.resolve('b'), never)).toBe('b');
    expect([made.length, pool.alive]).toEqual([1, 1]);
  });
  it('a worker that could not be loaded is never given another task', async () => {
    const { pool, made } = poolOf(1);
    const waits = task();
    const first = pool.run(waits.run, never);
    await settled();
    made[0].worker.fail();
    await expect(first).rejects.toThrow(WorkerFailed);
    await expect(first).rejects.toThrow('stopped unexpectedly');
    expect([made[0].worker.ended, pool.alive]).toEqual([true, 0]);
    expect(await pool.run((s) => Promise.resolve(String(s === made[1])), never)).toBe('true');
  });
  it('a task that is called off ends its worker, and who waits gets another', async () => {
    const { pool, made } = poolOf(1);
    const [abort, waits] = [new AbortController(), task()];
    const first = pool.run(waits.run, abort.signal);
    const second = pool.run(() => Promise.resolve('second'), never);
    await settled();
    abort.abort();
    await expect(first).rejects.toMatchObject({ name: 'AbortError' });
    expect(await second).toBe('second');
    expect(made.map((s) => s.worker.ended)).toEqual([true, false]);
    expect(pool.alive).toBe(1);
    // called off again, and again with nothing under way: nothing is left behind
    abort.abort();
    await expect(pool.run(waits.run, abort.signal)).rejects.toMatchObject({ name: 'AbortError' });
    expect([made.length, pool.alive]).toEqual([2, 1]);
  });
  it('called off while it waits it takes nobody’s turn', async () => {
    const { pool } = poolOf(1);
    const [waits, abort] = [task(), new AbortController()];
    const first = pool.run(waits.run, never);
    const off = pool.run(() => Promise.resolve('off'), abort.signal);
    const last = pool.run(() => Promise.resolve('last'), never);
    await settled();
    abort.abort();
    waits.done('first');
    expect(await first).toBe('first');
    await expect(off).rejects.toMatchObject({ name: 'AbortError' });
    expect(await last).toBe('last');
  });
  it('has no more at once than it may, and none that could not even be made', async () => {
    const { pool, made } = poolOf(2);
    const tasks = [task(), task(), task()];
    const runs = tasks.map((t) => pool.run(t.run, never));
    await settled();
    expect(made).toHaveLength(2);
    for (const [n, t] of tasks.entries()) {
      t.done(String(n));
      await settled();
    }
    expect(await Promise.all(runs)).toEqual(['0', '1', '2']);
    const broken = new Pool(() => 1, {
      make: () => {
        throw new Error('no workers here');
      },
    });
    await expect(broken.run(() => Promise.resolve('x'), never)).rejects.toThrow('no workers here');
    expect(broken.alive).toBe(0);
  });
});
