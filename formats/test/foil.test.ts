/** Foil with a window: its geometry as computed, and as it stands in the files that are printed. */
import { foilInput, foilSheet } from '@orthos/core/foil';
import { extentOf, packageById } from '@orthos/core/packages';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runCalc } from '../src/calcs.ts';

interface Foil {
  cut_mm: [number, number][];
  folds_mm: [[number, number], [number, number]][];
  outer_mm: [number, number][];
  landmarks_mm: [number, number][];
  area_mm2: number;
  bar_mm: number;
  svg: string;
  pdf_base64: string;
}
const LANDMARKS = [
  { x_mm: 4, y_mm: 4, name: 'hole H1' },
  { x_mm: 56, y_mm: 36, name: 'J2' },
];
const BOARD = [
  [0, 0],
  [60, 0],
  [60, 40],
  [0, 40],
] as const;
const qfp = { package: 'QFP-44', x_mm: 30, y_mm: 20, landmarks: LANDMARKS };
const foilOf = (change: object = {}) =>
  runCalc('protect.foil', { ...qfp, ...change }, { now: () => 0 }) as Promise<Foil>;

const areaOf = (ring: readonly (readonly [number, number])[]) =>
  ring.reduce((sum, [x, y], i) => {
    const [u, v] = ring[(i + 1) % ring.length];
    return sum + (x * v - u * y) / 2;
  }, 0);
const boxOf = (ring: readonly (readonly [number, number])[]) => {
  const [xs, ys] = [ring.map(([x]) => x), ring.map(([, y]) => y)];
  return {
    w: Math.max(...xs) - Math.min(...xs),
    h: Math.max(...ys) - Math.min(...ys),
    x0: Math.min(...xs),
    y0: Math.min(...ys),
  };
};
/** Which way the target lies from the line between the landmarks: mirrored, it lies on the other side. */
const handOf = ({ landmarks_mm: [a, b], cut_mm }: Foil) => {
  const [x, y] = cut_mm.reduce(([u, v], [p, q]) => [u + p / cut_mm.length, v + q / cut_mm.length], [0, 0]);
  return Math.sign((b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]));
};

describe('the sheet', () => {
  it('has a window as large as the part with its lands and the clearance all round', async () => {
    const { x0, x1, y0, y1 } = extentOf(packageById('QFP-44'));
    for (const clearance_mm of [0, 1, 2.5]) {
      const foil = await foilOf({ clearance_mm });
      const { w, h } = boxOf(foil.cut_mm);
      expect(w).toBeCloseTo(x1 - x0 + 2 * clearance_mm, 2);
      expect(h).toBeCloseTo(y1 - y0 + 2 * clearance_mm, 2);
      expect(foil.area_mm2).toBeCloseTo(w * h, 1);
    }
  });
  it('turned with the part, the window keeps its size', async () => {
    const [straight, turned] = [await foilOf(), await foilOf({ rotation_deg: 30 })];
    expect(turned.area_mm2).toBeCloseTo(straight.area_mm2, 1);
    expect(boxOf(turned.cut_mm).w).toBeGreaterThan(boxOf(straight.cut_mm).w * 1.1);
  });
  it('keeps what lies where: landmarks as far apart as on the board, mirrored for the lower side', async () => {
    const [top, bottom] = [await foilOf({ y_mm: 12 }), await foilOf({ y_mm: 12, side: 'bottom' })];
    const apart = ({ landmarks_mm: [a, b] }: Foil) => Math.hypot(b[0] - a[0], b[1] - a[1]);
    expect(apart(top)).toBeCloseTo(Math.hypot(52, 32), 3);
    expect(apart(bottom)).toBeCloseTo(Math.hypot(52, 32), 3);
    expect(top.landmarks_mm).toEqual([
      [4, 4],
      [56, 36],
    ]);
    expect(handOf(top)).toBe(-handOf(bottom));
    // a tab that points one way on the board points the other way seen from below
    const lean = async (side: string) => {
      const { x0, w } = boxOf((await foilOf({ package: 'DPAK', rotation_deg: 90, side })).cut_mm);
      return x0 + w / 2 - (side === 'bottom' ? -30 : 30);
    };
    expect(Math.abs(await lean('top'))).toBeGreaterThan(0.5);
    expect(await lean('bottom')).toBeCloseTo(-(await lean('top')), 3);
  });
  it('covers the board and is folded under along its edges', async () => {
    const foil = await foilOf({ board_mm: BOARD });
    expect(boxOf(foil.outer_mm)).toMatchObject({ w: 70, h: 50 });
    expect(foil.folds_mm).toHaveLength(4);
    expect(foil.folds_mm.reduce((sum, [a, b]) => sum + Math.hypot(b[0] - a[0], b[1] - a[1]), 0)).toBeCloseTo(200, 3);
    // an outline with a notch is followed
    const notched = [
      [0, 0],
      [60, 0],
      [60, 40],
      [35, 40],
      [35, 30],
      [0, 30],
    ];
    const other = await foilOf({ y_mm: 12, board_mm: notched });
    expect(other.folds_mm).toHaveLength(6);
    expect(Math.abs(areaOf(other.outer_mm))).toBeLessThan(70 * 50 - 200);
  });
  it('an outline by hand, concave and either way round, is grown all round', async () => {
    const ell = [
      [-5, -5],
      [5, -5],
      [5, 0],
      [0, 0],
      [0, 5],
      [-5, 5],
    ];
    for (const outline_mm of [ell, [...ell].reverse()]) {
      const foil = await foilOf({ package: undefined, outline_mm, clearance_mm: 1 });
      // 75 mm² and 40 mm of edge, five corners out and one in
      expect(foil.area_mm2).toBeCloseTo(75 + 40 + 4, 1);
    }
  });
  it('any part anywhere: window within the sheet, no smaller than the part', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('QFP-44', 'SOIC-8', 'DPAK', 'C0603', 'DIP-16', 'BGA-64'),
        fc.record({
          x_mm: fc.double({ min: -500, max: 500, noNaN: true }),
          y_mm: fc.double({ min: -500, max: 500, noNaN: true }),
          rotation_deg: fc.double({ min: -360, max: 360, noNaN: true }),
          clearance_mm: fc.double({ min: 0, max: 20, noNaN: true }),
          side: fc.constantFrom('top', 'bottom'),
        }),
        (id, at) => {
          const sheet = foilSheet(foilInput.parse({ package: id, landmarks: LANDMARKS, ...at }));
          const { x0, x1, y0, y1 } = extentOf(packageById(id));
          expect(sheet.area_mm2).toBeGreaterThan((x1 - x0) * (y1 - y0) * 0.999 - 0.1);
          const outer = boxOf(sheet.outer_mm);
          for (const [x, y] of [...sheet.cut_mm, ...sheet.landmarks_mm]) {
            expect(x).toBeGreaterThan(outer.x0);
            expect(x).toBeLessThan(outer.x0 + outer.w);
            expect(y).toBeGreaterThan(outer.y0);
            expect(y).toBeLessThan(outer.y0 + outer.h);
          }
        },
      ),
      { numRuns: 200 },
    );
  });
  it.each([
    [{ package: 'NONE-1' }, /package/],
    [{ package: undefined }, /either a package or an outline/],
    [
      {
        outline_mm: [
          [0, 0],
          [1, 0],
          [1, 1],
        ],
      },
      /either a package or an outline/,
    ],
    [{ landmarks: [LANDMARKS[0], LANDMARKS[0]] }, /too near/],
    [{ landmarks: [LANDMARKS[0]] }, /landmarks/],
    [
      {
        package: undefined,
        outline_mm: [
          [0, 0],
          [1, 1],
          [2, 2],
        ],
        clearance_mm: 0,
      },
      /encloses nothing/,
    ],
    [{ clearance_mm: -1 }, /clearance_mm/],
    [{ x_mm: Number.NaN }, /x_mm/],
    [{ side: 'left' }, /side/],
  ])('%j is refused', async (change, why) => {
    await expect(foilOf(change)).rejects.toThrow(why);
  });
});

describe('the files', () => {
  it('SVG: a user unit is a millimetre, window and bar measure what they say', async () => {
    const { svg, cut_mm } = await foilOf();
    const [, w, h, vw, vh] =
      /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="[-\d.]+ [-\d.]+ ([\d.]+) ([\d.]+)"/.exec(svg) ?? [];
    expect([w, h]).toEqual([vw, vh]);
    const cut = /class="cut" d="M([^Z]+)Z"/
      .exec(svg)?.[1]
      .split('L')
      .map((p) => p.split(' ').map(Number) as [number, number]);
    expect(cut).toEqual(cut_mm);
    const marks = [...svg.matchAll(/class="mark" d="M([-\d.]+) ([-\d.]+)L([-\d.]+) ([-\d.]+)"/g)].map((m) =>
      m.slice(1).map(Number),
    );
    expect(marks.some(([x0, y0, x1, y1]) => y0 === y1 && Math.abs(x1 - x0 - 50) < 1e-6)).toBe(true);
    expect(svg).toContain('hole H1');
    expect((await foilOf({ side: 'bottom' })).svg).toContain('mirrored');
  });
  it('PDF: paper in points, the same lines at 72 points an inch, the same file for the same sheet', async () => {
    const { pdf_base64, cut_mm } = await foilOf();
    const text = atob(pdf_base64);
    expect(text.startsWith('%PDF-1.')).toBe(true);
    const paper = /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(text)?.slice(1).map(Number) ?? [];
    expect(paper[0]).toBeCloseTo((210 * 72) / 25.4, 1);
    const lines = [...text.matchAll(/([-\d.]+) ([-\d.]+) m\n((?:[-\d.]+ [-\d.]+ l\n)+)/g)].map((m) => {
      const points = `${m[1]} ${m[2]} l\n${m[3]}`
        .trim()
        .split('\n')
        .map((l) => l.split(' ').slice(0, 2).map(Number) as [number, number]);
      return boxOf(points);
    });
    const mm = (pt: number) => (pt * 25.4) / 72;
    const { w, h } = boxOf(cut_mm);
    expect(lines.some((b) => Math.abs(mm(b.w) - w) < 0.01 && Math.abs(mm(b.h) - h) < 0.01)).toBe(true);
    expect(lines.some((b) => Math.abs(mm(b.w) - 50) < 0.01 && b.h < 0.01)).toBe(true);
    expect((await foilOf()).pdf_base64).toBe(pdf_base64);
    // a large board takes larger paper, never a smaller scale
    const large = [
      [0, 0],
      [260, 0],
      [260, 200],
      [0, 200],
    ];
    const wide = atob((await foilOf({ board_mm: large })).pdf_base64);
    const [pw, ph] = /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(wide)?.slice(1).map(Number) ?? [];
    expect([mm(pw), mm(ph)].map(Math.round)).toEqual([297, 420].sort((a, b) => (a > b ? 1 : -1)));
  });
});

describe('a cover for one part', () => {
  interface Cover {
    cut_mm: [number, number][];
    folds_mm: [[number, number], [number, number]][];
    area_mm2: number;
    svg: string;
    pdf_base64: string;
  }
  const plug = { package: 'CONN-12', x_mm: 10, y_mm: 20, clearance_mm: 0.5, height_mm: 6, flange_mm: 3 };
  const coverOf = (change: object = {}) =>
    runCalc('protect.cover', { ...plug, ...change }, { now: () => 0 }) as Promise<Cover>;
  const { x0, x1, y0, y1 } = extentOf(packageById('CONN-12'));
  const [l, w] = [x1 - x0 + 1, y1 - y0 + 1];

  it('lies over the part, its sides as high as it is and out over the board, a notch at each corner', async () => {
    const cover = await coverOf();
    expect(cover.area_mm2).toBeCloseTo(l * w, 1);
    expect(boxOf(cover.cut_mm)).toMatchObject({
      w: expect.closeTo(l + 18, 2) as number,
      h: expect.closeTo(w + 18, 2) as number,
    });
    // the sheet is a cross: no foil at the corners
    expect(Math.abs(areaOf(cover.cut_mm))).toBeCloseTo(l * w + 2 * 9 * (l + w), 1);
    expect(cover.folds_mm).toHaveLength(8);
    const around = (from: number) =>
      cover.folds_mm.slice(from, from + 4).reduce((sum, [a, b]) => sum + Math.hypot(b[0] - a[0], b[1] - a[1]), 0);
    expect(around(0)).toBeCloseTo(2 * (l + w), 2);
    expect(around(4)).toBeCloseTo(2 * (l + w), 2);
  });
  it('flat for an area; turned, and mirrored for the lower side, it stays as large', async () => {
    const area = [
      [-10, -4],
      [10, -4],
      [10, 4],
      [-10, 4],
    ];
    const flat = await coverOf({ package: undefined, outline_mm: area, clearance_mm: 0, height_mm: 0, flange_mm: 0 });
    expect(Math.abs(areaOf(flat.cut_mm))).toBeCloseTo(160, 3);
    expect(flat.folds_mm).toHaveLength(4);
    const [top, bottom] = [await coverOf({ rotation_deg: 30 }), await coverOf({ rotation_deg: 30, side: 'bottom' })];
    expect(Math.abs(areaOf(bottom.cut_mm))).toBeCloseTo(Math.abs(areaOf(top.cut_mm)), 2);
    expect(Math.sign(areaOf(bottom.cut_mm))).toBe(-Math.sign(areaOf(top.cut_mm)));
  });
  it('is as large in its files', async () => {
    const cover = await coverOf();
    const path = /class="cut" d="M([^Z]+)Z"/.exec(cover.svg)?.[1] ?? '';
    const drawn = path.split('L').map((p) => p.split(' ').map(Number) as [number, number]);
    expect(boxOf(drawn)).toMatchObject({
      w: expect.closeTo(l + 18, 2) as number,
      h: expect.closeTo(w + 18, 2) as number,
    });
    expect(atob(cover.pdf_base64)).toMatch(/^%PDF-/);
  });
  it.each([
    [{ package: undefined }, 'package'],
    [{ height_mm: -1 }, 'height_mm'],
    [{ outline_mm: [[0, 0]] }, 'outline_mm'],
    [
      {
        package: undefined,
        outline_mm: [
          [0, 0],
          [0, 0],
          [0, 0],
        ],
        clearance_mm: 0,
      },
      'outline_mm',
    ],
  ])('says which field is wrong: %j', async (change, field) => {
    await expect(coverOf(change)).rejects.toMatchObject({
      issues: expect.arrayContaining([
        expect.objectContaining({ field: expect.stringContaining(field) as string }),
      ]) as [],
    });
  });
});
