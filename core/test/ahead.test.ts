import { describe, expect, it } from 'vitest';
import { Ahead, type Helper } from '../src/ground/index.ts';

const later = (ms = 0) => new Promise<void>((done) => setTimeout(done, ms));
const guess = (n: number) => [String(n), n] as const;
const guesses = (from: number, n = 4) => Array.from({ length: n }, (_, k) => guess(from + k));

/** Answers squares here and with so many who help, each gone for good after `stays` answers. */
function answering(lent: number, stays = Infinity, there = (n: number): Promise<number> => Promise.resolve(n * n)) {
  const seen = { here: [] as number[], there: [] as number[], out: 0 };
  const here = async (n: number) => {
    seen.here.push(n);
    await later(5);
    return n * n;
  };
  const idle = async (): Promise<Helper<number, number> | undefined> => {
    await later();
    if (seen.out >= lent) return undefined;
    seen.out++;
    let left = stays;
    return {
      async ask(n) {
        if (left-- <= 0) return undefined;
        seen.there.push(n);
        await later(5);
        return there(n);
      },
      done: () => void seen.out--,
    };
  };
  return { seen, ahead: new Ahead(here, lent > 0 ? idle : undefined) };
}

/** Asks 0, 1, 2 … one after another, guessing the next each time. */
async function walk({ ahead }: ReturnType<typeof answering>, to = 12) {
  const answers: number[] = [];
  for (let n = 0; n < to; n++) answers.push(await ahead.ask(...guess(n), n < to - 1 ? guesses(n + 1) : []));
  return answers;
}
const squares = Array.from({ length: 12 }, (_, n) => n * n);

describe('what will likely be asked', () => {
  it('is worked at by nobody where nobody is idle: only what is asked is answered', async () => {
    const alone = answering(0);
    expect(await walk(alone)).toEqual(squares);
    expect(alone.seen.here).toEqual(squares.map((_, n) => n));
    expect(await alone.ahead.ask('0', 0)).toBe(0);
    expect(alone.seen.here).toHaveLength(12);
  });
  it.each([1, 3])(
    'is shared with %i who are idle, none of it twice, and they go when nothing is guessed',
    async (lent) => {
      const many = answering(lent);
      expect(await walk(many)).toEqual(squares);
      const { here, there } = many.seen;
      expect(new Set([...here, ...there]).size).toBe(here.length + there.length);
      expect(there.length).toBeGreaterThanOrEqual(4);
      await later(20);
      expect(many.seen.out).toBe(0);
    },
  );
  it('costs nothing but their time where it is wrong, and they go when told so', async () => {
    const wrong = answering(2);
    expect(await wrong.ahead.ask('0', 0, guesses(50))).toBe(0);
    expect(await wrong.ahead.ask('1', 1, guesses(60))).toBe(1);
    expect(wrong.seen.here.slice(0, 1)).toEqual([0]);
    wrong.ahead.stop();
    await later(20);
    expect(wrong.seen.out).toBe(0);
    // what was guessed wrongly then is at hand later
    const [known] = wrong.seen.there;
    const before = wrong.seen.here.length;
    expect(await wrong.ahead.ask(...guess(known))).toBe(known * known);
    expect(wrong.seen.here).toHaveLength(before);
  });
  it('is asked here where a helper goes away with it', async () => {
    const going = answering(1, 2);
    expect(await walk(going)).toEqual(squares);
    await later(20);
    expect(going.seen.out).toBe(0);
  });
  it('tells a failure to whoever asks for it, and to nobody else', async () => {
    const failing = answering(1, Infinity, (n) =>
      n === 2 ? Promise.reject(new Error('two')) : Promise.resolve(n * n),
    );
    expect(await failing.ahead.ask('0', 0, [guess(2)])).toBe(0);
    await expect(failing.ahead.ask('2', 2)).rejects.toThrow('two');
    const unasked = answering(1, Infinity, () => Promise.reject(new Error('never asked')));
    expect(await unasked.ahead.ask('0', 0, [guess(9)])).toBe(0);
    await later(20);
    expect(unasked.seen.out).toBe(0);
  });
});
