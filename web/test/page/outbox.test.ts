import type { JobEventBody } from '@orthos/core/job';
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

const { Outbox } = await import('../../src/lib/run/outbox.svelte.ts');
const { adopt } = await import('../../src/lib/run/keeping.ts');
const { SendError } = await import('../../src/lib/jobs/send.ts');
type Outside = ConstructorParameters<typeof Outbox>[0];
type Pending = Parameters<Outside['post']>[0];
type Numbered = Awaited<ReturnType<Outside['keeping']['all']>>[number];

/** What a browser keeps, in memory; `full` makes it refuse. */
class Disk {
  readonly map = new Map<number, Numbered>();
  full = false;
  private n = 0;
  all = async () => [...this.map.values()].sort((a, b) => a.n - b.n);
  add = async (entry: Omit<Numbered, 'n'>) => {
    if (this.full) throw new Error('full');
    const n = ++this.n;
    this.map.set(n, { ...entry, n });
    return n;
  };
  put = async (entry: Numbered) => void this.map.set(entry.n, entry);
  remove = async (n: number) => void this.map.delete(n);
  on = (shelf: string) => [...this.map.values()].filter((e) => e.shelf === shelf);
}

const seen = (text: string): JobEventBody => ({ type: 'observation', text });
const told = (e: Pending) => (e.body as { text: string }).text;
const settle = async () => {
  for (let i = 0; i < 200; i++) await Promise.resolve();
};

describe('the outbox', () => {
  let disk: Disk;
  let server: Pending[];
  let answer: (e: Pending) => void;
  let healthy: boolean;
  /** Windows of the browser, so that each hears the others. */
  let windows: InstanceType<typeof Outbox>[];
  let lock: Promise<void>;
  const box = () => {
    const b: InstanceType<typeof Outbox> = new Outbox({
      keeping: disk,
      post: async (e) => {
        answer(e);
        // once by its id, as the database does
        if (!server.some((s) => s.id === e.id)) server.push(e);
        return { gates: [] };
      },
      healthy: async () => healthy,
      alone: (work) => (lock = lock.then(work)),
      tell: (news) => {
        for (const w of windows) if (w !== b) w.hear(news);
      },
    });
    windows.push(b);
    return b;
  };
  /** Another visit: the windows before are gone. */
  const visit = async () => {
    windows = [];
    const b = box();
    await b.ready;
    return b;
  };
  const fail = (status: number) => {
    answer = () => {
      throw new SendError(status, 'away');
    };
  };
  beforeEach(() => {
    vi.useFakeTimers();
    disk = new Disk();
    server = [];
    answer = () => undefined;
    healthy = true;
    windows = [];
    lock = Promise.resolve();
  });
  afterEach(() => vi.useRealTimers());

  it('sends an event only when it is kept, and lets go when the server has it', async () => {
    const b = box();
    const kept: number[] = [];
    answer = () => kept.push(disk.on('waiting').length);
    b.put('t', seen('a'));
    expect([b.waiting.length, b.keptHere]).toEqual([1, 0]);
    await settle();
    expect(kept).toEqual([1]);
    expect(server.map(told)).toEqual(['a']);
    expect([b.waiting.length, disk.on('waiting').length, disk.on('sent').length]).toEqual([0, 0, 1]);
  });
  it('holds on while the server is away and sends in order when it is back', async () => {
    const b = box();
    fail(0);
    for (const t of ['a', 'b', 'c']) b.put('t', seen(t));
    await settle();
    expect([b.away, b.waiting.length, b.keptHere, server.length]).toEqual([true, 3, 3, 0]);
    answer = () => undefined;
    await vi.advanceTimersByTimeAsync(6000);
    expect(server.map(told)).toEqual(['a', 'b', 'c']);
    expect([b.away, b.waiting.length]).toEqual([false, 0]);
  });
  it('sends in the order of making though the clock was set back in between', async () => {
    // ids rise with the clock: the one made later has the lower
    for (const [id, text] of [
      ['b', 'begun'],
      ['a', 'marked'],
    ])
      await disk.add({ id, ticketId: 't', at: Date.now(), body: seen(text), shelf: 'waiting' });
    const b = await visit();
    await settle();
    expect(server.map(told)).toEqual(['begun', 'marked']);
    expect(b.of('t').map((e) => e.id)).toEqual(['b', 'a']);
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
    fail(503);
    healthy = false;
    const first = box();
    first.put('t', seen('a'));
    first.put('t', seen('b'));
    await settle();
    answer = () => undefined;
    const second = await visit();
    expect(second.of('t').map((e) => (e.body as { text: string }).text)).toEqual(['a', 'b']);
    await settle();
    expect(server.map(told)).toEqual(['a', 'b']);
  });
  it('what was sent stays visible to a visit whose page is older, until a page knows it', async () => {
    const b = box();
    const { id } = b.put('t', seen('a'));
    await settle();
    expect((await visit()).of('t').map((e) => e.id)).toEqual([id]);
    expect(windows[0].of('other')).toEqual([]);
    windows[0].settle('t', [id]);
    await settle();
    expect((await visit()).of('t')).toEqual([]);
  });
  it('forgets after two days what no page ever asked for', async () => {
    box().put('t', seen('old'), Date.now() - 49 * 3_600_000);
    await settle();
    expect((await visit()).of('t')).toHaveLength(0);
    expect(disk.map.size).toBe(0);
  });
  it('what the server refuses is set aside with its reason, does not block the rest, and can be sent again', async () => {
    answer = (e) => {
      if (told(e) === 'bad') throw new SendError(404, 'no such job');
    };
    const b = box();
    for (const t of ['bad', 'good']) b.put('t', seen(t));
    await settle();
    expect(server.map(told)).toEqual(['good']);
    expect(b.refused.map((r) => r.message)).toEqual(['no such job']);
    const later = await visit();
    expect(later.refused).toHaveLength(1);
    answer = () => undefined;
    later.again(later.refused[0].id);
    await settle();
    expect(server.map(told)).toEqual(['good', 'bad']);
    expect((await visit()).refused).toHaveLength(0);
  });
  it('one that a healthy server fails on is set aside; while nothing answers well, none is', async () => {
    answer = (e) => {
      if (told(e) === 'bad') throw new SendError(500, 'it broke');
    };
    healthy = false;
    const b = box();
    for (const t of ['bad', 'good']) b.put('t', seen(t));
    await vi.advanceTimersByTimeAsync(60_000);
    expect([b.away, b.waiting.length, server.length]).toEqual([true, 2, 0]);
    healthy = true;
    await vi.advanceTimersByTimeAsync(20_000);
    expect(server.map(told)).toEqual(['good']);
    expect(b.refused[0].message).toContain('it broke');
    expect(disk.on('refused')).toHaveLength(1);
    b.dismiss(b.refused[0].id);
    expect((await visit()).refused).toHaveLength(0);
  });
  it('what failed while the database was away is not held against an event when it is back', async () => {
    fail(500);
    healthy = false;
    const b = box();
    b.put('t', seen('a'));
    await vi.advanceTimersByTimeAsync(30_000);
    // it is back between the last failure and the look at its health
    healthy = true;
    await vi.advanceTimersByTimeAsync(6000);
    answer = () => undefined;
    await vi.advanceTimersByTimeAsync(20_000);
    expect(server.map(told)).toEqual(['a']);
    expect(b.refused).toHaveLength(0);
  });
  it('says so when the browser keeps nothing, still sends, and writes over nothing', async () => {
    fail(0);
    box().put('t', seen('earlier'));
    await settle();
    disk.full = true;
    const b = await visit();
    b.put('t', seen('a'));
    await settle();
    expect([b.unkept, b.keptHere, b.waiting.length]).toEqual([true, 1, 2]);
    expect(disk.on('waiting').map((e) => told(e))).toEqual(['earlier']);
    answer = () => undefined;
    await vi.advanceTimersByTimeAsync(6000);
    expect(server.map(told)).toEqual(['earlier', 'a']);
  });
  it('windows tell each other: what one makes the other shows, one sends, nothing is doubled', async () => {
    const [a, b] = [box(), box()];
    a.put('t', seen('from a'));
    b.put('t', seen('from b'));
    await settle();
    for (const w of [a, b])
      expect(w.of('t').map((e) => (e.body as { text: string }).text)).toEqual(['from a', 'from b']);
    expect(server).toHaveLength(2);
    expect([a.waiting.length, b.waiting.length]).toEqual([0, 0]);
    expect(disk.on('sent')).toHaveLength(2);
  });
  it('what a window made that is gone is sent by another', async () => {
    fail(0);
    const [a, b] = [box(), box()];
    a.put('t', seen('a'));
    await settle();
    windows = [b];
    server = [];
    answer = () => undefined;
    await vi.advanceTimersByTimeAsync(10_000);
    expect(server.map(told)).toEqual(['a']);
  });
  it('takes over what an older version left, in its order, and leaves half a thing where it is', async () => {
    const old = new Map<string, string>();
    const store = {
      get length() {
        return old.size;
      },
      key: (i: number) => [...old.keys()][i] ?? null,
      getItem: (k: string) => old.get(k) ?? null,
      removeItem: (k: string) => void old.delete(k),
    } as unknown as Storage;
    const left = (id: string, text: string) => JSON.stringify({ id, ticketId: 't', at: Date.now(), body: seen(text) });
    old.set('orthos.outbox.2', left('2', 'second'));
    old.set('orthos.outbox.1', left('1', 'first'));
    old.set('orthos.refused.3', left('3', 'no'));
    old.set('orthos.outbox.x', '{half');
    old.set('orthos.turns', '2');
    await adopt(store, disk);
    expect([...old.keys()]).toEqual(['orthos.outbox.x', 'orthos.turns']);
    const b = await visit();
    await settle();
    expect(server.map(told)).toEqual(['first', 'second']);
    expect(b.refused).toHaveLength(1);
  });
});
