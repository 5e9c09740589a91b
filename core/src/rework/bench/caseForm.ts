/** What a run finds at the bench: board, target, station, surroundings; and how finely it is computed. */
import { z } from 'zod';
import { boardModelSchema } from '../../board/index.ts';
import { RANGES } from '../ranges.ts';
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
  /** What the hands' own times are multiplied by: 1 for usual hands. */
  pace: z.number().min(RANGES.pace[0]).max(RANGES.pace[1]).optional(),
  /** Pins that suction leaves plugged at the first try; as many as usual where nothing is said. */
  stuck: z.array(z.string().max(20)).max(400).optional(),
  /** Cells of the mesh and step: 14 000 at 50 ms for plans, 6 000 and 3 000 at 100 ms for comparing and searching. */
  quality: z.enum(['plan', 'coarse', 'search']).default('plan'),
  /** Keep the books of energy; costs a twentieth of the time. */
  books: z.boolean().optional(),
});
export type ReworkCase = z.infer<typeof reworkCaseSchema>;
