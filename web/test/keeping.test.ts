/** Where waiting marks are kept, on IndexedDB itself: what is written stays, whoever writes beside it. */
import 'fake-indexeddb/auto';
import type { JobEventBody } from '@orthos/core/job';
import { describe, expect, it } from 'vitest';
import { adopt, DiskKeeping, type Entry } from '../src/lib/run/keeping.ts';

const seen = (text: string): JobEventBody => ({ type: 'observation', text });
const entry = (text: string): Entry => ({ id: text, ticketId: 't', at: 1, body: seen(text), shelf: 'waiting' });
let made = 0;
const name = () => `kept-${made++}`;

describe('what a browser keeps', () => {
  it('is in the order of writing and nothing of it overwritten, with two windows writing at once', async () => {
    const disk = name();
    const [one, two] = [new DiskKeeping(disk), new DiskKeeping(disk)];
    const numbers = await Promise.all(
      Array.from({ length: 40 }, (_, i) => (i % 2 ? one : two).add(entry(`mark ${i}`))),
    );
    expect(new Set(numbers).size).toBe(40);
    // a window opened after both were killed
    const all = await new DiskKeeping(disk).all();
    expect(all.map((e) => e.n)).toEqual(numbers.toSorted((a, b) => a - b));
    expect(new Set(all.map((e) => e.id)).size).toBe(40);
  });
  it('numbers go on after what was sent is taken out, and a change touches its own entry alone', async () => {
    const keeping = new DiskKeeping(name());
    const [a, b] = [await keeping.add(entry('a')), await keeping.add(entry('b'))];
    await keeping.put({ ...entry('a'), n: a, shelf: 'refused', message: 'no' });
    await keeping.remove(b);
    const c = await keeping.add(entry('c'));
    expect(c).toBeGreaterThan(b);
    expect((await keeping.all()).map((e) => [e.id, e.shelf])).toEqual([
      ['a', 'refused'],
      ['c', 'waiting'],
    ]);
  });
  it('takes over what an older version left, each thing once', async () => {
    const old = new Map([
      ['orthos.outbox.1', JSON.stringify({ ...entry('x'), shelf: undefined })],
      ['orthos.refused.2', JSON.stringify({ ...entry('y'), message: 'no' })],
      ['orthos.outbox.3', '{half'],
      ['other', '1'],
    ]);
    const store = {
      key: (i: number) => [...old.keys()][i] ?? null,
      getItem: (k: string) => old.get(k) ?? null,
      removeItem: (k: string) => void old.delete(k),
      get length() {
        return old.size;
      },
    } as Storage;
    const keeping = new DiskKeeping(name());
    await adopt(store, keeping);
    await adopt(store, keeping);
    expect((await keeping.all()).map((e) => [e.id, e.shelf])).toEqual([
      ['x', 'waiting'],
      ['y', 'refused'],
    ]);
    expect([...old.keys()]).toEqual(['orthos.outbox.3', 'other']);
  });
});
