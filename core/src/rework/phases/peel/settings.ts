/** How a tail is peeled along its row: air that goes before, a light pull behind. */
import { z } from 'zod';
import { RANGES, type Range } from '../../ranges.ts';

const { air } = RANGES;
const number = ([min, max]: Range) => z.number().min(min).max(max);

export const peelSettings = z.strictObject({
  set_C: number(air.set_C),
  flow_L_min: number(air.flow_L_min),
  nozzle_mm: number(air.nozzle_mm),
  standoff_mm: number(air.standoff_mm),
});
export type PeelSettings = z.infer<typeof peelSettings>;
