/** The pool of workers: who gets one, who waits, and which workers are never used again. */
import { describe, expect, it } from 'vitest';
import { Lender } from '../src/lib/compute/lend.ts';
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

describe('workers lent to a calculation that works in shares', () => {
  function lending(size: number) {
    const told: unknown[] = [];
    const made: {
      worker: FakeWorker;
      api: { about: (i: unknown) => Promise<void>; answer: (q: number) => Promise<unknown> };
    }[] = [];
    let answer: (q: number) => Promise<unknown> = (q) => Promise.resolve(q * q);
    const make = () => {
      const api = {
        about: (input: unknown) => Promise.resolve(void told.push(input)),
        answer: (q: number) => answer(q),
      };
      made.push({ worker: new FakeWorker(), api });
      return made[made.length - 1];
    };
    const pool = new Pool(() => size, { make });
    return { pool, made, told, answers: (by: typeof answer) => (answer = by) };
  }
  it('are idle ones, told once, and back in the pool when they are let go', async () => {
    const { pool, made, told } = lending(1);
    const lender = new Lender(pool, never);
    const helper = await lender.idle('an ensemble');
    expect(await lender.idle('another')).toBeUndefined();
    expect([await helper?.ask(3), await helper?.ask(4), told]).toEqual([9, 16, ['an ensemble']]);
    helper?.done();
    await settled();
    expect([pool.free, made.length]).toEqual([true, 1]);
    expect(await helper?.ask(5)).toBeUndefined();
  });
  it('go when somebody else waits, and with the end of the calculation', async () => {
    const { pool } = lending(1);
    const lender = new Lender(pool, never);
    const helper = await lender.idle('first');
    const waits = pool.run(() => Promise.resolve('mine'), never);
    expect(await helper?.ask(3)).toBeUndefined();
    expect(await waits).toBe('mine');
    await lender.idle('second');
    expect(pool.free).toBe(false);
    lender.end();
    await settled();
    expect(pool.free).toBe(true);
    // asked for too late
    expect([await lender.idle('third'), pool.free]).toEqual([undefined, true]);
  });
  it('leave nobody waiting who asked one that broke, or was called off', async () => {
    const { pool, made, answers } = lending(1);
    answers(() => new Promise(() => undefined));
    const abort = new AbortController();
    const lender = new Lender(pool, abort.signal);
    const broken = (await lender.idle('first'))?.ask(3);
    made[0].worker.fail();
    expect(await broken).toBeUndefined();
    const called = (await lender.idle('second'))?.ask(3);
    abort.abort();
    expect(await called).toBeUndefined();
    expect([await lender.idle('third'), made.map((m) => m.worker.ended), pool.alive]).toEqual([
      undefined,
      [true, true],
      0,
    ]);
  });
  it('say what went wrong with a question', async () => {
    const { pool, answers } = lending(1);
    answers(() => Promise.reject(new Error('left its bounds')));
    const helper = await new Lender(pool, never).idle('first');
    await expect(helper?.ask(3)).rejects.toThrow('left its bounds');
  });
});
