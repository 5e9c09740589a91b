import { z } from 'zod';
import { RANGES } from '../../ranges.ts';

export const pressSettings = z.strictObject({
  /** How long the heat stays on while it is pressed, s. */
  stays_s: z.number().min(RANGES.lift.stays_s[0]).max(RANGES.lift.stays_s[1]),
});
export type PressSettings = z.infer<typeof pressSettings>;
