/** A place on a board, as events, readings and circuits name it. */
import { z } from 'zod';

export const placeSchema = z.strictObject({
  x_mm: z.number().min(-2000).max(2000),
  y_mm: z.number().min(-2000).max(2000),
  side: z.enum(['top', 'bottom']),
  /** The part or terminal there, if any. */
  partId: z.string().max(60).optional(),
  terminal: z.string().max(20).optional(),
});
export type Place = z.infer<typeof placeSchema>;
