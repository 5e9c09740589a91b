/** A cover of foil for one part or an area: laid over it, its sides folded down and pressed to the board. mm, y down, as seen from the side it lies on. */
import { z } from 'zod';
import {
  areaOf,
  FOIL_BAR_MM,
  grown,
  LEAST_MM2,
  outlineOnBoard,
  placedShape,
  type Point,
  placedTrouble,
  seenFrom,
} from './outline.ts';

export const coverInput = z
  .strictObject({
    ...placedShape,
    /** Between the part's outline and the sides that are folded down. */
    clearance_mm: z.number().min(0).max(20).default(0.5),
    /** How far the sides go down, and out over the board: height of the part when nothing is said, 0 for an area. */
    height_mm: z.number().min(0).max(60).default(0),
    flange_mm: z.number().min(0).max(30).default(3),
  })
  .refine(...placedTrouble);
export type CoverInput = z.infer<typeof coverInput>;

const points = z.array(z.tuple([z.number(), z.number()]));
export const coverSheetSchema = z.strictObject({
  /** All round, with a notch at each corner. */
  cut_mm: points,
  /** Where the sides go down, then where they go out over the board. */
  folds_mm: z.array(z.tuple([z.tuple([z.number(), z.number()]), z.tuple([z.number(), z.number()])])),
  /** Of what lies on top, mm². */
  area_mm2: z.number(),
  bar_mm: z.literal(FOIL_BAR_MM),
});
export type CoverSheet = z.infer<typeof coverSheetSchema>;

/** Throws where the outline encloses nothing. */
export function coverSheet(input: CoverInput): CoverSheet {
  const { clearance_mm, height_mm, flange_mm } = input;
  const seen = seenFrom(input.side);
  const top = grown(outlineOnBoard(input), clearance_mm);
  if (areaOf(top) < LEAST_MM2) throw new Error('The outline encloses nothing.');
  const sides = top.map((p, i) => sideOf(p, top[(i + 1) % top.length]));
  const out = (n: number, mm: number): [Point, Point] =>
    sides[n].map(({ at, dir }): Point => [at[0] + mm * dir[0], at[1] + mm * dir[1]]) as [Point, Point];
  const each = sides.map((_, n) => n);
  return {
    cut_mm: each.flatMap((n) => [top[n], ...out(n, height_mm + flange_mm), top[(n + 1) % top.length]]).map(seen),
    folds_mm: [0, ...(height_mm > 0 && flange_mm > 0 ? [height_mm] : [])].flatMap((mm) =>
      each.map((n): [[number, number], [number, number]] => {
        const [a, b] = out(n, mm);
        return [seen(a), seen(b)];
      }),
    ),
    area_mm2: Math.round(areaOf(top) * 1000) / 1000,
    bar_mm: FOIL_BAR_MM,
  };
}

/** Both ends of an edge, each with the direction away from the part: rings go round with their inside to the right, y down. */
function sideOf(a: Point, b: Point): { at: Point; dir: Point }[] {
  const long = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  const dir: Point = [(b[1] - a[1]) / long, -(b[0] - a[0]) / long];
  return [
    { at: a, dir },
    { at: b, dir },
  ];
}
