/** How hot air is set: tool, distance, the way the hand and the nozzle move. */
import { z } from 'zod';
import { RANGES, type Range } from '../../ranges.ts';

const { air } = RANGES;
const number = ([min, max]: Range) => z.number().min(min).max(max);

export const airSettings = z.strictObject({
  set_C: number(air.set_C),
  flow_L_min: number(air.flow_L_min),
  nozzle_mm: number(air.nozzle_mm),
  standoff_mm: number(air.standoff_mm),
  /** How far the hand goes to either side of its middle: on a circle, or to and fro along a line in this direction (as `approach_deg`). */
  sweep_mm: number(air.sweep_mm),
  sweep_deg: number(air.sweep_deg).optional(),
  /** Changed on the way: closing in, hotter, stronger. Each holds until the next. */
  stages: z
    .array(
      z.strictObject({
        from_s: number(air.from_s),
        set_C: number(air.set_C).optional(),
        flow_L_min: number(air.flow_L_min).optional(),
        standoff_mm: number(air.standoff_mm).optional(),
        sweep_mm: number(air.sweep_mm).optional(),
      }),
    )
    .max(20)
    .optional(),
  /** Air in pulses. */
  pulse: z.strictObject({ on_s: number(air.pulse_s), off_s: number(air.pulse_s) }).optional(),
  /** How far the nozzle leans from upright, and from where: 0 from the right, 90 from the upper edge, seen from the working side. */
  tilt_deg: number(air.tilt_deg).optional(),
  approach_deg: number(air.approach_deg).optional(),
  /** A mouth that is no round hole: a slot of this size, or holes along its rim; `nozzle_mm` is then the bore of each. */
  mouth: z
    .strictObject({ kind: z.enum(['slot', 'rim']), w_mm: number(air.mouth_mm), h_mm: number(air.mouth_mm) })
    .optional(),
});
export type AirSettings = z.infer<typeof airSettings>;
