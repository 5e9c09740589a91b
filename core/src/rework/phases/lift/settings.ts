import { z } from 'zod';
import { RANGES } from '../../ranges.ts';

export const liftSettings = z.strictObject({
  /** How long the heat of the phase before stays on while the part is nudged and lifted, s. */
  stays_s: z.number().min(RANGES.lift.stays_s[0]).max(RANGES.lift.stays_s[1]),
});
export type LiftSettings = z.infer<typeof liftSettings>;
