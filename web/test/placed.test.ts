// A photo tied by two taps lies where the drawing has the same place, whichever side is seen and however it is turned.
import { boardBounds, fitPhoto, type PlacedPart } from '@orthos/core/board';
import { describe, expect, it } from 'vitest';
import { seenFrom } from '../src/lib/part/seen.ts';
import { photoMatrix, tiePoints } from '../src/lib/photos/placed.ts';
import { quillon } from '../src/lib/server/demo/quillon.ts';

const part = (more: Partial<PlacedPart> = {}): PlacedPart => ({
  ...{ partId: 'x', package: 'SOIC-8', x_mm: 30, y_mm: 20, rotation_deg: 30, side: 'top' },
  ...more,
});
const at = (matrix: string, [x, y]: readonly [number, number]) => {
  const [a, b, c, d, e, f] = matrix.slice(7, -1).split(' ').map(Number);
  return [a * x + c * y + e, b * x + d * y + f];
};

describe('a tied photo', () => {
  it('has its two points where the drawing has them', () => {
    for (const side of ['top', 'bottom'] as const)
      for (const turns of [0, 1, 2, 3])
        for (const by of ['lands', 'body'] as const) {
          const target = part({ side });
          const wanted = tiePoints(target, by);
          const taps: [number, number][] = [
            [410, 300],
            [980, 720],
          ];
          const fit = fitPhoto(
            wanted.map((w, i) => ({ px: taps[i], mm: w.mm })),
            side,
          );
          expect(fit).not.toBeNull();
          const seen = seenFrom(target, side, turns);
          const matrix = photoMatrix({ w_px: 1600, h_px: 1200, toBoard: fit?.toBoard ?? [] }, seen);
          for (const [i, w] of wanted.entries()) {
            const [there] = seen([w.mm]);
            const [x, y] = at(matrix, taps[i]);
            expect([x, y], `${side} ${turns} ${by}`).toEqual([
              expect.closeTo(there[0], 6),
              expect.closeTo(there[1], 6),
            ]);
          }
        }
  });
  it('is tied by points that are far from one another, of every part of a board', () => {
    expect(boardBounds(quillon).x1).toBeGreaterThan(0);
    for (const p of quillon.parts)
      for (const by of ['lands', 'body'] as const) {
        const [a, b] = tiePoints(p, by);
        expect(Math.hypot(a.mm[0] - b.mm[0], a.mm[1] - b.mm[1]), `${p.partId} ${by}`).toBeGreaterThan(0.2);
      }
  });
});
