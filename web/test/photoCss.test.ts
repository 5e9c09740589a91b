import { applyHomography, fitPhoto } from '@orthos/core/board';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { photoTransform } from '../src/lib/boards/photoCss.ts';
import { toScreen, type StageView } from '../src/lib/stage/view.ts';

/** What a browser makes of `matrix3d(…)` for a point of the plane. */
function byCss(transform: string, x: number, y: number): [number, number] {
  const m = transform.slice('matrix3d('.length, -1).split(',').map(Number);
  const w = m[3] * x + m[7] * y + m[15];
  return [(m[0] * x + m[4] * y + m[12]) / w, (m[1] * x + m[5] * y + m[13]) / w];
}

describe('a photo under the board', () => {
  const fit = fitPhoto(
    [
      { px: [100, 90], mm: [0, 0] },
      { px: [1800, 110], mm: [90, 0] },
      { px: [1790, 1300], mm: [90, 60] },
      { px: [90, 1280], mm: [0, 60] },
    ],
    'top',
  );
  it('stands where its pixels lie on the board, in any view, on either side', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2000, noNaN: true }),
        fc.double({ min: 0, max: 1400, noNaN: true }),
        fc.double({ min: 1, max: 60, noNaN: true }),
        fc.integer({ min: -500, max: 500 }),
        fc.boolean(),
        (u, v, scale, ox, mirrored) => {
          const view: StageView = { scale, ox, oy: 40, mirrored, axis: 45 };
          const toBoard = fit?.toBoard ?? [];
          const [x, y] = byCss(photoTransform(view, toBoard), u, v);
          const [sx, sy] = toScreen(view, ...applyHomography(toBoard, u, v));
          expect(Math.hypot(x - sx, y - sy)).toBeLessThan(1e-6 * (1 + scale * 100));
        },
      ),
    );
  });
});
