/** How a bead is stroked, and laid before where no phase laid it. */
import { z } from 'zod';
import { compositionSchema } from '../../../alloys/index.ts';
import { RANGES, type Range } from '../../ranges.ts';
import { tipShape } from '../tip.ts';

const number = ([min, max]: Range) => z.number().min(min).max(max);
const { bead } = RANGES;

export const strokeSettings = z.strictObject({
  ...tipShape,
  /** Alloy that lies along the rows before the iron comes, mm³ per mm of row; none where an earlier phase laid it. */
  bead_mm3_mm: number(bead.bead_mm3_mm).optional(),
  /** What is added; the low-melt one with lead when nothing is said. Leaded solder makes a flooded joint of it. */
  alloy: compositionSchema.optional(),
  /** Seconds of stroking before the iron leaves. */
  stroke_s: number(bead.stroke_s),
  /** One stroke along a side and back, s, and how long the tip rests at either end of it. */
  pass_s: number(bead.pass_s).optional(),
  rest_s: number(bead.rest_s).optional(),
  /** Two irons work on opposite sides at once. */
  irons: z.union([z.literal(1), z.literal(2)]).optional(),
});
export type StrokeSettings = z.infer<typeof strokeSettings>;
