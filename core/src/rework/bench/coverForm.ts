/** What lies over parts, or over a piece of board: small enough for pages that only read a log. */
import { z } from 'zod';

export const rectangle = z.strictObject({
  x_mm: z.number().min(-2000).max(2000),
  y_mm: z.number().min(-2000).max(2000),
  w_mm: z.number().positive().max(2000),
  h_mm: z.number().positive().max(2000),
});

/** What can lie over a part, the least first that it leaves of a jet's heat. */
export const COVER_KINDS = ['thick', 'foil-off', 'strip', 'foil', 'tape'] as const;

/** Over a part, or over a piece of board. */
export const coverSchema = z
  .strictObject({
    kind: z.enum(COVER_KINDS),
    partId: z.string().max(60).optional(),
    area: rectangle.optional(),
  })
  .refine((c) => (c.partId === undefined) !== (c.area === undefined), { error: 'covers either a part or an area' });
