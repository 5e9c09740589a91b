import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addPart,
  applyHomography,
  blankBoard,
  boardModelSchema,
  changePart,
  compareBoards,
  cornersOnBoard,
  edgeMap,
  fitPhoto,
  invertHomography,
  multiplyHomographies,
  paintCopperPatch,
  type PlacedPart,
  provisionalFrame,
  removeParts,
  repeatRow,
  snapToEdges,
  toBoard,
  toLocal,
} from '../src/board/index.ts';
import { packageById } from '../src/packages/index.ts';

const part = (change: Partial<PlacedPart> = {}): PlacedPart => ({
  partId: 'u1',
  ref: 'U1',
  package: 'SOIC-8',
  x_mm: 20,
  y_mm: 15,
  rotation_deg: 0,
  side: 'top',
  ...change,
});

describe('a photo on the board', () => {
  // a camera held askew
  const camera = [0.05, 0.004, -3, -0.003, 0.052, -2, 1.2e-5, -2e-5, 1];
  const corners: [number, number][] = [
    [100, 90],
    [1800, 110],
    [1790, 1300],
    [90, 1280],
  ];
  it('is found from four corners, with nothing left over', () => {
    const pairs = corners.map((px) => ({ px, mm: applyHomography(camera, ...px) }));
    const fit = fitPhoto(pairs, 'top');
    if (!fit) throw new Error('no fit');
    for (const [x, y] of [
      [300, 400],
      [1500, 900],
    ]) {
      const [a, b] = [applyHomography(camera, x, y), applyHomography(fit.toBoard, x, y)];
      expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(1e-6);
    }
    expect(fit.off_mm).toBeNull();
    expect(fit.mirrored).toBe(false);
    expect(fit.pixel_mm).toBeCloseTo(0.05, 2);
    expect(fit.pixelPlusMinus_mm / fit.pixel_mm).toBeLessThan(0.002);
  });
  it('is found from a known pitch on either side, and says how well', () => {
    for (const side of ['top', 'bottom'] as const) {
      const fit = fitPhoto(
        [
          { px: [500, 500], mm: [10, 10] },
          { px: [700, 500], mm: side === 'top' ? [20, 10] : [0, 10] },
        ],
        side,
      );
      expect(fit?.pixel_mm).toBeCloseTo(0.05, 9);
      expect(fit?.pixelPlusMinus_mm).toBeCloseTo((0.05 * 1.5 * Math.SQRT2) / 200, 9);
      expect(fit?.mirrored).toBe(side === 'bottom');
      const [x, y] = applyHomography(fit?.toBoard ?? [], 500, 700);
      expect([x, y].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([10, 20]);
    }
  });
  it('knows a bottom side by its landmarks, and one that was taken the wrong way round', () => {
    const seen = (px: [number, number]): [number, number] => [80 - px[0] * 0.05, px[1] * 0.05];
    const pairs = (
      [
        [100, 100],
        [1400, 150],
        [700, 900],
      ] as [number, number][]
    ).map((px) => ({ px, mm: seen(px) }));
    expect(fitPhoto(pairs, 'bottom')?.mirrored).toBe(true);
    const through = pairs.map((p) => ({ px: p.px, mm: [80 - p.mm[0], p.mm[1]] as [number, number] }));
    expect(fitPhoto(through, 'bottom')?.mirrored).toBe(false);
  });
  it('averages clicks that are a little off', () => {
    const wobble = [1.2, -0.8, 0.5, -1.1, 0.9, -0.4];
    const six = [...corners, [900, 700], [1400, 300]] as [number, number][];
    const fit = fitPhoto(
      six.map(([x, y], i) => ({ px: [x + wobble[i], y - wobble[5 - i]], mm: applyHomography(camera, x, y) })),
      'top',
    );
    expect(fit?.off_mm).toBeGreaterThan(0.005);
    expect(fit?.off_mm).toBeLessThan(0.1);
  });
  it('is not found from points in one place or one line', () => {
    const same = { px: [10, 10] as const, mm: [1, 1] as const };
    expect(fitPhoto([same], 'top')).toBeNull();
    expect(fitPhoto([same, same], 'top')).toBeNull();
    const line = [0, 1, 2, 3].map((n) => ({ px: [n * 10, n * 10] as const, mm: [n, n] as const }));
    expect(fitPhoto(line, 'top')).toBeNull();
  });
  it('forth and back is nothing', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2000, noNaN: true }),
        fc.double({ min: 0, max: 1500, noNaN: true }),
        (x, y) => {
          const round = multiplyHomographies(invertHomography(camera), camera);
          const [a, b] = applyHomography(round, x, y);
          expect(Math.hypot(a - x, b - y)).toBeLessThan(1e-6);
        },
      ),
    );
  });
  it('lies over the whole board until it is placed, mirrored for the bottom', () => {
    const box = { x0: 0, y0: 0, x1: 80, y1: 60 };
    const top = provisionalFrame(1600, 1000, box, 'top');
    expect(applyHomography(top, 800, 500)).toEqual([40, 30]);
    const bottom = provisionalFrame(1600, 1000, box, 'bottom');
    expect(applyHomography(bottom, 0, 0)[0]).toBeGreaterThan(applyHomography(bottom, 1600, 0)[0]);
  });
});

/** A grey board with the part drawn dark where it stands, and noise. */
function picture(truth: PlacedPart, nx: number, ny: number, perMm: number, noise: number): Uint8ClampedArray {
  const data = new Uint8ClampedArray(nx * ny * 4).fill(255);
  const { body, terminals } = packageById(truth.package);
  let seed = 5;
  for (let y = 0; y < ny; y++)
    for (let x = 0; x < nx; x++) {
      const [lx, ly] = toLocal(truth, x / perMm, y / perMm);
      const inBody = Math.abs(lx) <= body.l / 2 && Math.abs(ly) <= body.w / 2;
      const inLead = terminals.some(
        (t) => t.lead && Math.abs(lx - t.lead.x) <= t.lead.w / 2 && Math.abs(ly - t.lead.y) <= t.lead.h / 2,
      );
      seed = (seed * 1664525 + 1013904223) % 2 ** 32;
      const grey = (inBody ? 40 : inLead ? 190 : 110) + noise * (seed / 2 ** 32 - 0.5);
      data.fill(grey, (y * nx + x) * 4, (y * nx + x) * 4 + 3);
    }
  return data;
}

describe('snapping to edges', () => {
  const toPixel = [20, 0, 0, 0, 20, 0, 0, 0, 1];
  it.each([
    ['SOIC-8', 0, 0.5, -0.4, 2],
    ['QFP-44', 90, -0.6, 0.3, -3],
    ['C0603', 0, 0.3, 0.3, 0],
    ['DPAK', 180, 0.4, 0.6, 3],
  ])('%s at %i° comes home', (pkg, rotation_deg, dx, dy, turn) => {
    const truth = part({ package: pkg, rotation_deg });
    const edges = edgeMap(picture(truth, 800, 600, 20, 30), 800, 600);
    const put = { ...truth, x_mm: truth.x_mm + dx, y_mm: truth.y_mm + dy, rotation_deg: rotation_deg + turn };
    const snap = snapToEdges(edges, toPixel, put);
    if (!snap) throw new Error('no snap');
    expect(Math.hypot(snap.x_mm - truth.x_mm, snap.y_mm - truth.y_mm)).toBeLessThan(0.1);
    expect(Math.abs(snap.rotation_deg - rotation_deg)).toBeLessThan(1.5);
    expect(snap.gain).toBeGreaterThan(1);
  });
  it('leaves a part alone where there is nothing to see', () => {
    const edges = edgeMap(picture(part({ x_mm: 5, y_mm: 5, package: 'C0402' }), 800, 600, 20, 30), 800, 600);
    expect(snapToEdges(edges, toPixel, part({ x_mm: 30, y_mm: 20 }))).toBeNull();
  });
  it('leaves a part alone off the photo', () => {
    const edges = edgeMap(picture(part(), 800, 600, 20, 0), 800, 600);
    expect(snapToEdges(edges, toPixel, part({ x_mm: 500, y_mm: 20 }))).toBeNull();
  });
});

describe('editing a board', () => {
  const empty = blankBoard('Test', 60, 40, 2, 1.6);
  it('starts from a valid blank', () => {
    for (const layers of [1, 2, 4, 6])
      expect(boardModelSchema.safeParse(blankBoard('x', 50, 40, layers, 1)).success).toBe(true);
  });
  it('numbers parts by kind, keeps ids, drops empty fields', () => {
    let b = addPart(empty, { partId: 'a', package: 'C0603', x_mm: 1.00004, y_mm: 2, rotation_deg: -90, side: 'top' });
    b = addPart(b, { partId: 'b', package: 'C0603', x_mm: 3, y_mm: 2, rotation_deg: 0, side: 'top' });
    b = addPart(b, { partId: 'c', package: 'SOIC-8', x_mm: 9, y_mm: 2, rotation_deg: 0, side: 'top' });
    expect(b.parts.map((p) => p.ref)).toEqual(['C1', 'C2', 'U1']);
    expect(b.parts[0]).toMatchObject({ x_mm: 1, rotation_deg: 270 });
    b = changePart(b, 'a', { value: '100 nF', what: '', noLand: [], partId: 'evil' });
    expect(b.parts[0]).toEqual({
      partId: 'a',
      ref: 'C1',
      package: 'C0603',
      x_mm: 1,
      y_mm: 2,
      rotation_deg: 270,
      side: 'top',
      value: '100 nF',
    });
    expect(removeParts(b, ['a', 'c']).parts.map((p) => p.partId)).toEqual(['b']);
    expect(empty.parts).toEqual([]);
  });
  it('repeats a part in an even row', () => {
    const first = part({ package: 'C0603', ref: 'C1', x_mm: 10, y_mm: 10 });
    let n = 0;
    const b = repeatRow({ ...empty, parts: [first] }, first, { x_mm: 25, y_mm: 13 }, 4, () => `r${n++}`);
    expect(b.parts.map((p) => [p.ref, p.x_mm, p.y_mm])).toEqual([
      ['C1', 10, 10],
      ['C2', 15, 11],
      ['C3', 20, 12],
      ['C4', 25, 13],
    ]);
  });
  it('paints copper on one layer or all', () => {
    const box = { x_mm: 1, y_mm: 1, w_mm: 5, h_mm: 5 };
    expect(paintCopperPatch(blankBoard('x', 60, 40, 4, 1.6), box, 1, 'all').copper).toHaveLength(4);
    expect(paintCopperPatch(empty, box, 0.5, 1).copper).toEqual([{ ...box, layer: 1, coverage: 0.5 }]);
  });
  it('tells what changed between two versions', () => {
    const before = { ...empty, parts: [part(), part({ partId: 'r1', ref: 'R1', package: 'R0603' })] };
    const after = {
      ...empty,
      thickness_mm: 1,
      parts: [part({ x_mm: 23, y_mm: 19, package: 'SOIC-14' }), part({ partId: 'c1', ref: 'C1', package: 'C0402' })],
    };
    expect(compareBoards(before, after).map((c) => [c.what, c.subject, c.detail])).toEqual([
      ['changed', 'U1', 'moved 5.00 mm; package SOIC-8 → SOIC-14'],
      ['added', 'C1', expect.stringContaining('0402 ceramic')],
      ['removed', 'R1', expect.stringContaining('0603 resistor')],
      ['changed', 'board', 'thickness: 1.6 → 1'],
    ]);
    expect(compareBoards(before, before)).toEqual([]);
  });
});

describe('mirroring', () => {
  it('twice is identity: a part turned over and back has its lands where they were', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('SOIC-8', 'QFP-44', 'DPAK', 'SOT-23', 'PLCC-44', 'TRAFO-EE16'),
        fc.integer({ min: 0, max: 359 }),
        fc.integer({ min: -50, max: 50 }),
        (id, rotation_deg, axis) => {
          // seen from below about the axis: x folds, the rotation runs the other way
          const fold = (p: PlacedPart): PlacedPart => ({
            ...p,
            side: p.side === 'top' ? 'bottom' : 'top',
            x_mm: 2 * axis - p.x_mm,
            rotation_deg: -p.rotation_deg,
          });
          const p = part({ package: id, rotation_deg });
          expect(fold(fold(p))).toEqual(p);
          for (const t of packageById(id).terminals) {
            const [x, y] = toBoard(p, t.land.x, t.land.y);
            const [fx, fy] = toBoard(fold(p), t.land.x, t.land.y);
            expect(2 * axis - fx).toBeCloseTo(x, 9);
            expect(fy).toBeCloseTo(y, 9);
            const [lx, ly] = toLocal(fold(p), fx, fy);
            expect([lx, ly].map((v) => Math.round(v * 1e6) / 1e6 + 0)).toEqual(
              [t.land.x, t.land.y].map((v) => Math.round(v * 1e6) / 1e6 + 0),
            );
          }
          expect(cornersOnBoard(fold(p), { x: 0, y: 0, w: 2, h: 1 })).toHaveLength(4);
        },
      ),
    );
  });
});
