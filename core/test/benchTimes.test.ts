import { describe, expect, it } from 'vitest';
import { benchTimes, type Figure } from './benchTimes.ts';
import { type Coverage, coverageCases } from './coverage.ts';
import { benchNote, expectNote } from './notes.ts';

const figures = new Map<string, Figure[]>();
const covered = new Map<string, Coverage>();
/** Cases with what was found of them. */
const withFound = <C extends { name: string }, F>(cases: readonly C[], found: Map<string, F>) =>
  cases.flatMap((c) => {
    const f = found.get(c.name);
    return f ? [{ ...c, found: f }] : [];
  });

describe('believable bench times', () => {
  it.each(benchTimes.map((b) => [b.name, b] as const))('%s', async (name, b) => {
    const found = await b.run();
    figures.set(name, found);
    for (const { what, value, from, to } of found) {
      expect(value, what).toBeGreaterThanOrEqual(from);
      expect(value, what).toBeLessThanOrEqual(to);
    }
  });
});

describe('coverage', () => {
  it.each(coverageCases.map((c) => [c.name, c] as const))('%s: hidden benches fall into the range', async (name, c) => {
    const found = await c.run(40);
    covered.set(name, found);
    // nineteen of twenty are meant; chance takes one more of forty
    expect(found.inside).toBeGreaterThanOrEqual(found.benches - 3);
  });
});

it('the note says what was found', () =>
  expectNote('bench', benchNote(withFound(benchTimes, figures), withFound(coverageCases, covered))));
