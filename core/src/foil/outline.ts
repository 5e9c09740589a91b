/** Outlines of parts where they stand on a board, larger by a clearance, as seen from a side. mm, y down. */
import ClipperLib from 'clipper-lib';
import { z } from 'zod';
import { cornersOnBoard, type Side, toBoard } from '../board/index.ts';
import { extentOf, packageById, packageTrouble } from '../packages/index.ts';

export type Point = readonly [x: number, y: number];

export const mm = z.number().min(-2000).max(2000);
export const ring = z
  .array(z.tuple([mm, mm]))
  .min(3)
  .max(2000);

/** A part, or an outline in its place, where it stands on the board. */
export const placedShape = {
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
  /** What stands on the print besides: part and board. */
  title: z.string().max(120).optional(),
};
type Placed = z.infer<z.ZodObject<typeof placedShape>>;

/** What is wrong where neither, or both, are given; as `refine` takes it. */
export const placedTrouble: [
  (i: Pick<Placed, 'package' | 'outline_mm'>) => boolean,
  { error: string; path: string[] },
] = [
  (i) => (i.package === undefined) !== (i.outline_mm === undefined),
  { error: 'either a package or an outline', path: ['package'] },
];

/** Length of the bar that shows whether a print is 1:1. */
export const FOIL_BAR_MM = 50;
/** What encloses less is nothing, mm². */
export const LEAST_MM2 = 0.01;
/** Clipper works on whole numbers: so many to a millimetre. */
const SCALE = 10_000;
export const rounded = (v: number): number => Math.round(v * 1000) / 1000;

/** A ring made larger all round, corners kept sharp, its inside to the right of the way round it; the largest piece where it falls apart. */
export function grown(of: readonly Point[], by_mm: number): [number, number][] {
  const path = of.map(([x, y]) => ({ X: Math.round(x * SCALE), Y: Math.round(y * SCALE) }));
  if (!ClipperLib.Clipper.Orientation(path)) path.reverse();
  const offset = new ClipperLib.ClipperOffset(4, 1);
  offset.AddPath(path, ClipperLib.JoinType.jtMiter, ClipperLib.EndType.etClosedPolygon);
  const found: { X: number; Y: number }[][] = [];
  offset.Execute(found, by_mm * SCALE);
  const rings = found.map((r) => r.map(({ X, Y }): [number, number] => [X / SCALE, Y / SCALE]));
  return rings.sort((a, b) => areaOf(b) - areaOf(a))[0] ?? [];
}

export function areaOf(of: readonly Point[]): number {
  const twice = of.reduce((sum, [x, y], i) => {
    const [u, v] = of[(i + 1) % of.length];
    return sum + x * v - u * y;
  }, 0);
  return Math.abs(twice) / 2;
}

/** The part's outline where it stands on the board. */
export function outlineOnBoard({ package: id, outline_mm = [], side, x_mm, y_mm, rotation_deg }: Placed): Point[] {
  const part = { partId: '', package: id ?? '', side, x_mm, y_mm, rotation_deg };
  if (id === undefined) return outline_mm.map(([x, y]) => toBoard(part, x, y));
  const { x0, x1, y0, y1 } = extentOf(packageById(id));
  return cornersOnBoard(part, { x: (x0 + x1) / 2, y: (y0 + y1) / 2, w: x1 - x0, h: y1 - y0 });
}

/** As seen from a side: the lower one is mirrored (x of the sheet is −x of the board), the upper one is the board's own frame. */
export const seenFrom =
  (side: Side) =>
  ([x, y]: Point): [number, number] => [rounded(side === 'bottom' ? -x : x), rounded(y)];
