/** How what sits on a part is softened: with air, until it gives. */
import { z } from 'zod';
import { STUCK_ON } from '../../bench/around.ts';
import { RANGES, type Range } from '../../ranges.ts';

const number = ([min, max]: Range) => z.number().min(min).max(max);
const { air, soften } = RANGES;

export const softenSettings = z.strictObject({
  what: z.enum(STUCK_ON),
  /** It gives when the part is that warm. */
  soft_C: number(soften.soft_C),
  set_C: number(air.set_C),
  flow_L_min: number(air.flow_L_min),
  nozzle_mm: number(air.nozzle_mm),
  standoff_mm: number(air.standoff_mm),
  sweep_mm: number(air.sweep_mm),
});
export type SoftenSettings = z.infer<typeof softenSettings>;
