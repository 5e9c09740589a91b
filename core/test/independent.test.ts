/** The heat model on boards with copper as it is laid, against a general-purpose finite-element program. */
import { describe, expect, it } from 'vitest';
import stored from './independent.json' with { type: 'json' };
import { AMBIENT_C, byOurs, INDEPENDENT_BOARDS, type Reading } from './independentBoards.ts';

describe('boards with real copper', () => {
  it.each(INDEPENDENT_BOARDS.map((b) => [b.name, b] as const))('%s: within 5 % of the rise', (name, board) => {
    const theirs = (stored as Record<string, Reading[]>)[name];
    const ours = byOurs(board);
    expect(theirs).toHaveLength(ours.length);
    for (const [n, reading] of ours.entries())
      for (const side of ['top_C', 'bottom_C'] as const) {
        const rise = theirs[n][side] - AMBIENT_C;
        expect(Math.abs(reading[side] - theirs[n][side]) / rise, `${side} at ${reading.x_mm} mm`).toBeLessThan(0.05);
      }
  });
});
