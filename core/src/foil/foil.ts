/**
 * A sheet of foil with a window over one part: where to cut, where to fold, and how it comes to lie right. All in mm, y down, as seen from the
 * side it lies on: the lower side is mirrored (x of the sheet is −x of the board), the upper one is the board's own frame.
 */
import { z } from 'zod';
import {
  areaOf,
  FOIL_BAR_MM,
  grown,
  LEAST_MM2,
  mm,
  outlineOnBoard,
  placedShape,
  placedTrouble,
  type Point,
  ring,
  rounded,
  seenFrom,
} from './outline.ts';

const landmark = z.strictObject({ x_mm: mm, y_mm: mm, name: z.string().max(60).optional() });
export const foilInput = z
  .strictObject({
    ...placedShape,
    /** Between the part's outline and the foil. */
    clearance_mm: z.number().min(0).max(20).default(1),
    /** Two things that can be found on the board: the sheet is laid by them. */
    landmarks: z.tuple([landmark, landmark]),
    /** The board's outline: the sheet covers it, and its rim is folded under. */
    board_mm: ring.optional(),
  })
  .refine(...placedTrouble)
  .refine(({ landmarks: [a, b] }) => Math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm) >= LEAST_APART_MM, {
    error: 'too near to each other: they give no direction',
    path: ['landmarks'],
  });
export type FoilInput = z.infer<typeof foilInput>;

/** Landmarks nearer than this give no direction, mm. */
const LEAST_APART_MM = 2;
/** Without a board the sheet goes so far beyond window and landmarks; its rim is folded under by so much, mm. */
const [AROUND_MM, RIM_MM] = [15, 5];

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

/** Throws where the outline encloses nothing. */
export function foilSheet(input: FoilInput): FoilSheet {
  const { side, clearance_mm, board_mm } = input;
  const seen = seenFrom(side);
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
