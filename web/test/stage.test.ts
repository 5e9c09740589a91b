import { boardModelSchema, boxOnBoard } from '@orthos/core/board';
import { packageById } from '@orthos/core/packages';
import type { FieldFrames } from '@orthos/core/rework';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeName, placeNamed } from '../src/lib/diagnose/place.ts';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { bramble } from '../src/lib/server/demo/bramble.ts';
import { coupon } from '../src/lib/server/demo/coupon.ts';
import { gantry } from '../src/lib/server/demo/gantry.ts';
import { lodestar } from '../src/lib/server/demo/lodestar.ts';
import { weir } from '../src/lib/server/demo/weir.ts';
import { quillon } from '../src/lib/server/demo/quillon.ts';
import { evenField, fieldAt } from '../src/lib/stage/heatLayer.ts';
import { placeLabels, type StageRect } from '../src/lib/stage/placeLabels.ts';
import { fitView, flipped, scaleBar, toBoardPoint, toScreen, zoomAt } from '../src/lib/stage/view.ts';

const box = { x0: 0, y0: 0, x1: 60, y1: 40 };

describe('stage view', () => {
  it('goes to the screen and back, mirrored or not', () => {
    fc.assert(
      fc.property(
        fc.boolean(),
        fc.double({ min: -50, max: 100, noNaN: true }),
        fc.double({ min: -50, max: 100, noNaN: true }),
        (mirrored, x, y) => {
          const v = fitView(box, 800, 600, 30, mirrored, 30);
          const [bx, by] = toBoardPoint(v, ...toScreen(v, x, y));
          expect(bx).toBeCloseTo(x, 6);
          expect(by).toBeCloseTo(y, 6);
        },
      ),
    );
  });
  it('keeps the point under the pointer when zooming', () => {
    const v = fitView(box, 800, 600, 30, true, 30);
    const before = toBoardPoint(v, 123, 456);
    const after = toBoardPoint(zoomAt(v, 123, 456, 3), 123, 456);
    expect(after[0]).toBeCloseTo(before[0], 9);
    expect(after[1]).toBeCloseTo(before[1], 9);
  });
  it('flips as a board does: what was left is right, twice is nothing', () => {
    const v = fitView(box, 800, 600, 30, false, 30);
    const back = flipped(v, 800);
    expect(toScreen(v, 5, 5)[0]).toBeLessThan(400);
    expect(toScreen(back, 5, 5)[0]).toBeGreaterThan(400);
    expect(flipped(back, 800)).toEqual(v);
  });
  it('shows a round length on the scale bar', () => {
    expect(scaleBar({ scale: 8, ox: 0, oy: 0, mirrored: false, axis: 0 }, 160)).toEqual({ mm: 20, px: 160 });
  });
});

const apart = (a: StageRect, b: StageRect) =>
  a.left + a.w <= b.left || b.left + b.w <= a.left || a.top + a.h <= b.top || b.top + b.h <= a.top;

describe('labels of the stage', () => {
  const box = { x: 200, y: 200, w: 80, h: 40 };
  it('stay on the stage and apart, however close their marks are', () => {
    const boxes = Array.from({ length: 6 }, (_, i) => ({ x: 200 + 12 * i, y: 150 + 8 * i, w: 130, h: 40 }));
    const placed = placeLabels(boxes, 800, 500).map((p) => p as StageRect);
    for (const [i, a] of placed.entries()) {
      expect(a.left).toBeGreaterThanOrEqual(0);
      expect(a.left + a.w).toBeLessThanOrEqual(800);
      expect(a.top).toBeGreaterThanOrEqual(0);
      for (const b of placed.slice(i + 1)) expect(apart(a, b)).toBe(true);
    }
  });
  it('never lie over another where they may be left out, nor over their own mark', () => {
    const at = fc.record({
      x: fc.integer({ min: 0, max: 700 }),
      y: fc.integer({ min: 0, max: 400 }),
      w: fc.integer({ min: 20, max: 160 }),
      h: fc.integer({ min: 12, max: 40 }),
      clear: fc.integer({ min: 4, max: 30 }),
      optional: fc.constant(true as const),
    });
    fc.assert(
      fc.property(fc.array(at, { minLength: 1, maxLength: 14 }), (boxes) => {
        const placed = placeLabels(boxes, 700, 400);
        const there = placed.filter((p) => p !== null);
        expect(there.length).toBeGreaterThan(0);
        for (const [i, a] of there.entries()) {
          expect(a.left >= 0 && a.top >= 0 && a.left + a.w <= 700 && a.top + a.h <= 400).toBe(true);
          for (const b of there.slice(i + 1)) expect(apart(a, b)).toBe(true);
        }
      }),
      { numRuns: 200 },
    );
  });
  it('stand below their mark where nothing else is near, and aside where the foot of the stage is', () => {
    const [below] = placeLabels([{ ...box, clear: 10 }], 400, 400);
    expect(below).toMatchObject({ left: 160, top: 215 });
    const [above] = placeLabels([{ ...box, y: 390, clear: 10 }], 400, 400);
    expect((above as StageRect).top + 40).toBeLessThanOrEqual(380);
  });
  it('keep off the names of parts', () => {
    const [free] = placeLabels([box], 400, 400);
    const [aside] = placeLabels([box], 400, 400, { names: [free as StageRect] });
    expect(apart(aside as StageRect, free as StageRect)).toBe(true);
  });
  it('do not cross the edge of the board where there is room beside it', () => {
    const mark = { x: 200, y: 200, w: 80, h: 15, clear: 10, optional: true as const };
    const [free] = placeLabels([mark], 400, 400) as [StageRect];
    const edge = { left: 0, top: free.top + 7, w: 400, h: 1 };
    const [inside] = placeLabels([mark], 400, 400, { edges: [edge] });
    expect(apart(inside as StageRect, edge)).toBe(true);
  });
});

describe('temperature field', () => {
  it('is exact for a field that is linear in place and time, on an uneven mesh', () => {
    const x_mm = [0, 1, 1.5, 2, 4, 7, 10];
    const y_mm = [0, 2, 3, 3.5, 6, 9, 12];
    const centre = (e: number[], i: number) => (e[i] + e[i + 1]) / 2;
    const T = (x: number, y: number, t: number) => 20 + 3 * x + 2 * y + 5 * t;
    const times_s = [0, 2];
    const values = Float32Array.from(
      times_s.flatMap((t) =>
        Array.from({ length: 36 }, (_, k) => T(centre(x_mm, k % 6), centre(y_mm, Math.floor(k / 6)), t)),
      ),
    );
    const frames: FieldFrames = { x_mm, y_mm, times_s, values };
    const f = evenField(frames, 1.5);
    for (const [x, y] of [
      [3.25, 5.25],
      [1.75, 7.25],
    ])
      expect(fieldAt(f, x, y)).toBeCloseTo(T(x, y, 1.5), 3);
    expect(fieldAt(f, -1, 0)).toBeNull();
  });
});

describe('places', () => {
  it('are written as people say them and read back', () => {
    const place = placeNamed(ternT2, 'u2.ep');
    expect(place).toMatchObject({ partId: 'u2', terminal: 'EP', x_mm: 34, y_mm: 22 });
    expect(place && placeName(ternT2, place)).toBe('U2.EP');
    expect(placeNamed(ternT2, 'C7')).toMatchObject({ partId: 'c7' });
    expect(placeNamed(ternT2, 'Z9')).toBeNull();
    expect(placeNamed(ternT2, 'U2.99')).toBeNull();
    expect(placeName(ternT2, { x_mm: 1, y_mm: 2, side: 'top' })).toBe('1.0, 2.0');
  });
});

describe.each([ternT2, bramble, quillon, lodestar, gantry().doc, weir, coupon])('demo board $name', (board) => {
  it('is a valid model with its parts inside the outline and bodies apart', () => {
    expect(boardModelSchema.parse(board)).toEqual(board);
    expect(board.parts.length).toBeGreaterThanOrEqual(40);
    expect(new Set(board.parts.map((p) => p.partId)).size).toBe(board.parts.length);
    const boxes = board.parts.map((p) => {
      const { body } = packageById(p.package);
      return { p, b: boxOnBoard(p, { x: 0, y: 0, w: body.l, h: body.w }) };
    });
    for (const p of board.parts)
      for (const id of Object.keys(p.nets ?? {}))
        expect(
          packageById(p.package).terminals.map((t) => t.id),
          `${p.ref}`,
        ).toContain(id);
    for (const r of board.rails ?? []) {
      const p = board.parts.find((q) => q.partId === r.partId);
      expect(p && packageById(p.package).terminals.some((t) => t.id === r.terminal), r.label).toBe(true);
    }
    const width = Math.max(...board.outline_mm.map(([x]) => x));
    const height = Math.max(...board.outline_mm.map(([, y]) => y));
    for (const [i, { p, b }] of boxes.entries()) {
      expect(b.x0 >= 0 && b.y0 >= 0 && b.x1 <= width && b.y1 <= height, `${p.ref} inside`).toBe(true);
      for (const other of boxes.slice(i + 1)) {
        if (other.p.side !== p.side) continue;
        const apart = b.x1 <= other.b.x0 || other.b.x1 <= b.x0 || b.y1 <= other.b.y0 || other.b.y1 <= b.y0;
        expect(apart, `${p.ref} and ${other.p.ref}`).toBe(true);
      }
    }
  });
});
