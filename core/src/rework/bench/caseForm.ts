/** What a run finds at the bench: board, target, station, surroundings; and how finely it is computed. */
import { z } from 'zod';
import { boardModelSchema } from '../../board/index.ts';
import { stationSchema } from '../station.ts';
import { shopLimitsSchema } from './limitOf.ts';
import { surroundingsSchema } from './surroundingsForm.ts';

export const reworkCaseSchema = z.strictObject({
  board: boardModelSchema,
  target: z.string().min(1),
  station: stationSchema,
  ambient_C: z.number().min(-20).max(60),
  ...surroundingsSchema.shape,
  /** Rows of the limits table as this shop wants them. */
  limits: shopLimitsSchema.optional(),
  /** The part goes on: until its solder melts nothing holds it in the wind. */
  fitting: z.boolean().optional(),
  /** Cells of the mesh and step: 14 000 at 50 ms for plans, 3 000 at 100 ms for searching. */
  quality: z.enum(['plan', 'search']).default('plan'),
  /** Keep the books of energy; costs a twentieth of the time. */
  books: z.boolean().optional(),
});
export type ReworkCase = z.infer<typeof reworkCaseSchema>;
