import { z } from 'zod';

/** How far it cools is what hands it over. */
export const restSettings = z.strictObject({
  /** What heats from below goes on: only the hands wait. */
  below: z.literal('stays').optional(),
});
export type RestSettings = z.infer<typeof restSettings>;
