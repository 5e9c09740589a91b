/** How holes are sucked empty. */
import { z } from 'zod';
import { RANGES, type Range } from '../../ranges.ts';
import { tipShape } from '../tip.ts';

const number = ([min, max]: Range) => z.number().min(min).max(max);
const { dwell_s, most_s } = RANGES.iron;

export const vacuumSettings = z.strictObject({
  ...tipShape,
  /** How long the tip stays once a joint is molten through, s. */
  dwell_s: number(dwell_s),
  /** After so long on one pin it goes on to the next, s; it comes back as often as it has to. */
  most_s: number(most_s).optional(),
  /** Fresh solder is fed to every pin first: old solder alone carries heat badly. Yes where nothing is said. */
  fresh: z.boolean().optional(),
  /** So often round all pins; then what is still stuck is left to another tool. Until all are free when nothing is said. */
  laps: z.int().min(1).max(9).optional(),
});
export type VacuumSettings = z.infer<typeof vacuumSettings>;
