/**
 * A sheet of foil with a window over one part: where to cut, where to fold, and how it comes to lie right. All in mm, y down, as seen from the
 * side it lies on: the lower side is mirrored (x of the sheet is −x of the board), the upper one is the board's own frame.
 */
import ClipperLib from 'clipper-lib';
import { z } from 'zod';
import { cornersOnBoard, toBoard } from '../board/index.ts';
import { extentOf, packageById, packageTrouble } from '../packages/index.ts';

export type Point = readonly [x: number, y: number];

const mm = z.number().min(-2000).max(2000);
const landmark = z.strictObject({ x_mm: mm, y_mm: mm, name: z.string().max(60).optional() });
const ring = z
  .array(z.tuple([mm, mm]))
  .min(3)
  .max(2000);

export const foilInput = z
  .strictObject({
    package: z
      .string()
      .min(1)
      .max(200)
      .refine((id) => packageTrouble(id) === undefined, { error: (i) => packageTrouble(String(i.input)) })
      .optional(),
    /** Instead of a package: outline of the part in its own frame. */
    outline_mm: ring.optional(),
    x_mm: mm,
    y_mm: mm,
    rotation_deg: z.number().min(-360).max(360).default(0),
    /** The side that the part stands on and the foil lies on. */
    side: z.enum(['top', 'bottom']).default('top'),
    /** Between the part's outline and the foil. */
    clearance_mm: z.number().min(0).max(20).default(1),
    /** Two things that can be found on the board: the sheet is laid by them. */
    landmarks: z.tuple([landmark, landmark]),
    /** The board's outline: the sheet covers it, and its rim is folded under. */
    board_mm: ring.optional(),
    /** What stands on the print besides: part and board. */
    title: z.string().max(120).optional(),
  })
  .refine((i) => (i.package === undefined) !== (i.outline_mm === undefined), {
    error: 'either a package or an outline',
    path: ['package'],
  })
  .refine(({ landmarks: [a, b] }) => Math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm) >= LEAST_APART_MM, {
    error: 'too near to each other: they give no direction',
    path: ['landmarks'],
  });
export type FoilInput = z.infer<typeof foilInput>;

/** Landmarks nearer than this give no direction, mm. */
const LEAST_APART_MM = 2;
/** Without a board the sheet goes so far beyond window and landmarks; its rim is folded under by so much, mm. */
const [AROUND_MM, RIM_MM] = [15, 5];
/** Length of the bar that shows whether a print is 1:1. */
export const FOIL_BAR_MM = 50;

const points = z.array(z.tuple([z.number(), z.number()]));
export const foilSheetSchema = z.strictObject({
  /** The window. */
  cut_mm: points,
  /** Where the rim is folded under. */
  folds_mm: z.array(z.tuple([z.tuple([z.number(), z.number()]), z.tuple([z.number(), z.number()])])),
  /** The whole sheet with its rim. */
  outer_mm: points,
  landmarks_mm: points,
  /** Of the window, mm². */
  area_mm2: z.number(),
  bar_mm: z.literal(FOIL_BAR_MM),
});
export type FoilSheet = z.infer<typeof foilSheetSchema>;

/** A window smaller than this is none, mm². */
const LEAST_MM2 = 0.01;
/** Clipper works on whole numbers: so many to a millimetre. */
const SCALE = 10_000;
const rounded = (v: number): number => Math.round(v * 1000) / 1000;

/** A ring made larger all round, corners kept sharp; the largest piece where it falls apart. */
function grown(ring: readonly Point[], by_mm: number): [number, number][] {
  const path = ring.map(([x, y]) => ({ X: Math.round(x * SCALE), Y: Math.round(y * SCALE) }));
  if (!ClipperLib.Clipper.Orientation(path)) path.reverse();
  const offset = new ClipperLib.ClipperOffset(4, 1);
  offset.AddPath(path, ClipperLib.JoinType.jtMiter, ClipperLib.EndType.etClosedPolygon);
  const found: { X: number; Y: number }[][] = [];
  offset.Execute(found, by_mm * SCALE);
  const rings = found.map((r) => r.map(({ X, Y }): [number, number] => [X / SCALE, Y / SCALE]));
  return rings.sort((a, b) => areaOf(b) - areaOf(a))[0] ?? [];
}

function areaOf(ring: readonly Point[]): number {
  const twice = ring.reduce((sum, [x, y], i) => {
    const [u, v] = ring[(i + 1) % ring.length];
    return sum + x * v - u * y;
  }, 0);
  return Math.abs(twice) / 2;
}

function boxRound(of: readonly Point[]): Point[] {
  const [xs, ys] = [of.map(([x]) => x), of.map(([, y]) => y)];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  return [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
}

/** The part's outline where it stands on the board, mm. */
function outlineOnBoard({ package: id, outline_mm = [], side, ...at }: FoilInput): Point[] {
  const part = { partId: '', package: id ?? '', side, x_mm: at.x_mm, y_mm: at.y_mm, rotation_deg: at.rotation_deg };
  if (id === undefined) return outline_mm.map(([x, y]) => toBoard(part, x, y));
  const { x0, x1, y0, y1 } = extentOf(packageById(id));
  return cornersOnBoard(part, { x: (x0 + x1) / 2, y: (y0 + y1) / 2, w: x1 - x0, h: y1 - y0 });
}

/** Throws where the outline encloses nothing. */
export function foilSheet(input: FoilInput): FoilSheet {
  const { side, clearance_mm, board_mm } = input;
  const seen = ([x, y]: Point): [number, number] => [rounded(side === 'bottom' ? -x : x), rounded(y)];
  const window = grown(outlineOnBoard(input), clearance_mm);
  if (areaOf(window) < LEAST_MM2) throw new Error('The outline encloses nothing.');
  const landmarks = input.landmarks.map((l): Point => [l.x_mm, l.y_mm]);
  const covered = board_mm ?? grown(boxRound([...window, ...landmarks]), AROUND_MM);
  const folded = covered.map(seen);
  return {
    cut_mm: window.map(seen),
    folds_mm: folded.map((p, i) => [p, folded[(i + 1) % folded.length]]),
    outer_mm: grown(covered, RIM_MM).map(seen),
    landmarks_mm: landmarks.map(seen),
    area_mm2: rounded(areaOf(window)),
    bar_mm: FOIL_BAR_MM,
  };
}
