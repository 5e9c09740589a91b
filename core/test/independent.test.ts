/** The heat model on boards with copper as it is laid, against a general-purpose finite-element program. */
import { describe, expect, it } from 'vitest';
import stored from './independent.json' with { type: 'json' };
import { AMBIENT_C, byOurs, INDEPENDENT_BOARDS, type Reading } from './independentBoards.ts';
import { expectNote, independentNote } from './notes.ts';

describe('boards with real copper', () => {
  const theirs: Record<string, Reading[]> = stored;
  const ours: Record<string, Reading[]> = {};
  it.each(INDEPENDENT_BOARDS.map((b) => [b.name, b] as const))('%s: within 5 % of the rise', (name, board) => {
    ours[name] = byOurs(board);
    expect(theirs[name]).toHaveLength(ours[name].length);
    for (const [n, reading] of ours[name].entries())
      for (const side of ['top_C', 'bottom_C'] as const) {
        const there = theirs[name][n][side];
        const error = Math.abs(reading[side] - there) / (there - AMBIENT_C);
        expect(error, `${side} at ${reading.x_mm} mm`).toBeLessThan(0.05);
      }
  });
  it('are what the note says', () => expectNote('independent', independentNote(ours, theirs)));
});
