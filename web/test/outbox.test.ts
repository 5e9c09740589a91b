import type { JobEventBody } from '@orthos/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

vi.mock('$lib/jobs/send', () => ({
  SendError: class SendError extends Error {
    readonly status: number;
    constructor(status: number, message: string) {
      super(message);
      this.status = status;
    }
  },
  send: () => Promise.reject(new Error('not in tests')),
}));
// runes are compiled away in the application; a plain class is enough here
const rune = Object.assign(<T>(v: T) => v, { raw: <T>(v: T) => v });
vi.stubGlobal('$state', rune);

const { Outbox } = await import('../src/lib/run/outbox.svelte.ts');
const { SendError } = await import('../src/lib/jobs/send.ts');
type Pending = Parameters<ConstructorParameters<typeof Outbox>[1] & object>[0];

/** What a browser keeps, in memory; `full` makes it refuse. */
class Store {
  readonly map = new Map<string, string>();
  full = false;
  get length() {
    return this.map.size;
  }
  key(i: number) {
    return [...this.map.keys()][i] ?? null;
  }
  getItem(k: string) {
    return this.map.get(k) ?? null;
  }
  setItem(k: string, v: string) {
    if (this.full) throw new Error('full');
    this.map.set(k, v);
  }
  removeItem(k: string) {
    this.map.delete(k);
  }
  clear() {
    this.map.clear();
  }
}

const seen = (text: string): JobEventBody => ({ type: 'observation', text });
const told = (e: Pending) => (e.body as { text: string }).text;
const settle = async () => {
  for (let i = 0; i < 20; i++) await Promise.resolve();
};

describe('the outbox', () => {
  let store: Store;
  let server: Pending[];
  let answer: (e: Pending) => void;
  const box = () =>
    new Outbox(store as unknown as Storage, (e) => {
      answer(e);
      // once by its id, as the database does
      if (!server.some((s) => s.id === e.id)) server.push(e);
      return Promise.resolve({ gates: [] });
    });
  beforeEach(() => {
    vi.useFakeTimers();
    store = new Store();
    server = [];
    answer = () => undefined;
  });
  afterEach(() => vi.useRealTimers());

  it('keeps an event before it sends it, and lets go when the server has it', async () => {
    const b = box();
    b.put('t', seen('a'));
    expect([...store.map.keys()].some((k) => k.startsWith('orthos.outbox.'))).toBe(true);
    expect(b.waiting).toHaveLength(1);
    await settle();
    expect(server.map(told)).toEqual(['a']);
    expect(b.waiting).toHaveLength(0);
    expect([...store.map.keys()].some((k) => k.startsWith('orthos.outbox.'))).toBe(false);
  });
  it('holds on while the server is away and sends in order when it is back', async () => {
    const b = box();
    answer = () => {
      throw new SendError(0, 'away');
    };
    for (const t of ['a', 'b', 'c']) b.put('t', seen(t));
    await settle();
    expect([b.away, b.waiting.length, server.length]).toEqual([true, 3, 0]);
    answer = () => undefined;
    await vi.advanceTimersByTimeAsync(6000);
    expect(server.map(told)).toEqual(['a', 'b', 'c']);
    expect([b.away, b.waiting.length]).toEqual([false, 0]);
  });
  it('a page loaded later than its last answer knows more about the gates; an older page does not', async () => {
    const b = box();
    const { id } = b.put('t', seen('a'));
    b.put('u', seen('b'));
    await settle();
    expect(Object.keys(b.gates)).toEqual(['t', 'u']);
    // from this browser's own store while the server was away: what was made here is not in it
    b.settle('t', []);
    expect(Object.keys(b.gates)).toEqual(['t', 'u']);
    // orientation checked on the step's page meanwhile, say: only the page knows
    b.settle('t', [id]);
    expect(Object.keys(b.gates)).toEqual(['u']);
  });
  it('an answer that was lost on the way back stores nothing twice', async () => {
    const b = box();
    let lost = true;
    answer = (e) => {
      if (!lost) return;
      lost = false;
      server.push(e);
      throw new SendError(0, 'the answer did not arrive');
    };
    b.put('t', seen('a'));
    await vi.advanceTimersByTimeAsync(3000);
    expect(server.map(told)).toEqual(['a']);
  });
  it('a new visit takes up what an earlier one left, oldest first', async () => {
    answer = () => {
      throw new SendError(503, 'starting');
    };
    const first = box();
    first.put('t', seen('a'));
    first.put('t', seen('b'));
    await settle();
    answer = () => undefined;
    const second = box();
    expect(second.of('t').map((e) => (e.body as { text: string }).text)).toEqual(['a', 'b']);
    await second.flush();
    expect(server.map(told)).toEqual(['a', 'b']);
  });
  it('what was sent stays visible to a visit whose page is older, until a page knows it', async () => {
    const b = box();
    const { id } = b.put('t', seen('a'));
    await settle();
    expect(
      box()
        .of('t')
        .map((e) => e.id),
    ).toEqual([id]);
    expect(box().of('other')).toEqual([]);
    b.settle('t', [id]);
    expect(box().of('t')).toEqual([]);
  });
  it('forgets after two days what no page ever asked for', async () => {
    box().put('t', seen('old'), Date.now() - 49 * 3_600_000);
    await settle();
    expect(box().of('t')).toHaveLength(0);
  });
  it('what the server refuses is set aside with its reason and does not block the rest', async () => {
    answer = (e) => {
      if (told(e) === 'bad') throw new SendError(400, 'the field');
    };
    const b = box();
    for (const t of ['bad', 'good']) b.put('t', seen(t));
    await settle();
    expect(server.map(told)).toEqual(['good']);
    expect(b.refused.map((r) => r.message)).toEqual(['the field']);
    expect(box().refused).toHaveLength(1);
    b.dismiss(b.refused[0].id);
    expect(box().refused).toHaveLength(0);
  });
  it('says so when the browser keeps nothing, and still sends', async () => {
    store.full = true;
    const b = box();
    b.put('t', seen('a'));
    expect(b.unkept).toBe(true);
    await settle();
    expect(server.map(told)).toEqual(['a']);
  });
  it('skips what is not readable', () => {
    store.map.set('orthos.outbox.x', '{half');
    expect(box().waiting).toEqual([]);
  });
});
