import { describe, expect, it } from 'vitest';
import { type Helper, inShares } from '../src/ground/index.ts';

const later = (ms = 0) => new Promise<void>((done) => setTimeout(done, ms));
const square = async (n: number) => {
  await later();
  return n * n;
};
const questions = Array.from({ length: 12 }, (_, n) => n);
const squares = questions.map((n) => n * n);

/** Helpers that are idle so many times over, each done for good after `stays` answers. */
function helpers(idle: number, stays = Infinity, ask = square) {
  const seen = { asked: [] as number[], lent: 0, back: 0 };
  const lend = async (): Promise<Helper<number, number> | undefined> => {
    await later();
    if (seen.lent - seen.back >= idle) return undefined;
    seen.lent++;
    let left = stays;
    return {
      async ask(n) {
        if (left-- <= 0) return undefined;
        seen.asked.push(n);
        return ask(n);
      },
      done: () => void seen.back++,
    };
  };
  return { seen, lend };
}

describe('work in shares', () => {
  it('is done here, in order, where nobody helps', async () => {
    const order: number[] = [];
    const here = (n: number) => {
      order.push(n);
      return square(n);
    };
    expect(await inShares(questions, here)).toEqual(squares);
    expect(order).toEqual(questions);
    expect(await inShares(questions, here, () => Promise.resolve(undefined))).toEqual(squares);
    expect(await inShares([], here)).toEqual([]);
  });
  it('is shared with all who are idle, who begin at the end; the answers stand in their places', async () => {
    const { seen, lend } = helpers(3);
    const here: number[] = [];
    const found = await inShares(
      questions,
      (n) => {
        here.push(n);
        return square(n);
      },
      lend,
    );
    expect(found).toEqual(squares);
    expect([...here, ...seen.asked].sort((a, b) => a - b)).toEqual(questions);
    expect(seen.asked[0]).toBe(11);
    expect(here[0]).toBe(0);
    expect(here.length).toBeLessThan(8);
    expect(seen.back).toBe(seen.lent);
    expect(seen.lent).toBeGreaterThanOrEqual(3);
  });
  it('goes on without one who goes away, whose question is answered all the same', async () => {
    for (const stays of [0, 1, 4]) {
      const { seen, lend } = helpers(1, stays);
      expect(await inShares(questions, square, lend)).toEqual(squares);
      expect(seen.back).toBe(seen.lent);
    }
  });
  it('answers even the last question of one who leaves after all others are answered', async () => {
    const lend = async () => {
      await later();
      return {
        async ask() {
          await later(30);
          return undefined;
        },
        done() {},
      };
    };
    expect(await inShares([1, 2, 3], square, lend)).toEqual([1, 4, 9]);
  });
  it('fails with what failed, here or there, and lets every helper go', async () => {
    const there = helpers(2, Infinity, async () => {
      await later();
      throw new Error('there');
    });
    await expect(inShares(questions, square, there.lend)).rejects.toThrow('there');
    expect(there.seen.back).toBe(there.seen.lent);
    const here = async () => {
      await later();
      throw new Error('here');
    };
    const other = helpers(2);
    await expect(inShares(questions, here, other.lend)).rejects.toThrow('here');
    await later(100);
    expect(other.seen.back).toBe(other.seen.lent);
    expect(other.seen.asked.length).toBeLessThan(4);
  });
});
