/** How alloy is laid along the rows with an iron. */
import { z } from 'zod';
import { compositionSchema } from '../../../alloys/index.ts';
import { RANGES, type Range } from '../../ranges.ts';
import { tipShape } from '../tip.ts';

const number = ([min, max]: Range) => z.number().min(min).max(max);

/** Diameter of wire where nothing is said. */
export const WIRE_MM = 1;

export const alloySettings = z.strictObject({
  ...tipShape,
  /** Alloy laid along the rows, mm³ per mm of row. */
  bead_mm3_mm: number(RANGES.bead.bead_mm3_mm),
  /** What is laid; the low-melt one with lead when nothing is said. */
  alloy: compositionSchema.optional(),
  /** Diameter of the wire it comes as. */
  wire_mm: number(RANGES.bead.wire_mm).optional(),
});
export type AlloySettings = z.infer<typeof alloySettings>;
