/** The tools of a plan and how they are set: air, iron with a bead of alloy, iron on the joints' own solder; the station. */
import { z } from 'zod';
import { compositionSchema } from '../alloys/index.ts';
import { RANGES, type Range } from './ranges.ts';

const number = ([min, max]: Range) => z.number().min(min).max(max);
const { air, bead, station } = RANGES;

const airSettings = z.strictObject({
  kind: z.literal('air'),
  label: z.string().max(60),
  set_C: number(air.set_C),
  flow_L_min: number(air.flow_L_min),
  nozzle_mm: number(air.nozzle_mm),
  standoff_mm: number(air.standoff_mm),
  /** How far the hand goes to either side of its middle: on a circle, or to and fro along a line in this direction (as `approach_deg`). */
  sweep_mm: number(air.sweep_mm),
  sweep_deg: number(air.sweep_deg).optional(),
  limit_s: number(air.limit_s),
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

/** Tips by what their body conducts in series with the contact, W/K (estimates). */
export const TIP_CONDUCTANCE = { cone: 0.25, chisel: 0.6, knife: 1 } as const;

/** What all irons have. */
const iron = {
  set_C: number(RANGES.iron.set_C),
  /** Contact width of the tip along the row, mm. */
  tip_mm: number(RANGES.iron.tip_mm),
  tip: z.enum(['cone', 'chisel', 'knife']).optional(),
  /** Contact of the tip against that of a well wetted film; the hand's part. */
  contact: number(RANGES.iron.contact),
  /** Power of each iron. */
  power_W: number(RANGES.iron.power_W),
  limit_s: number(RANGES.iron.limit_s),
};

const beadSettings = z.strictObject({
  kind: z.literal('low-melt'),
  label: z.string().max(60),
  ...iron,
  /** Alloy laid along the rows, mm³ per mm of row. */
  bead_mm3_mm: number(bead.bead_mm3_mm),
  /** What is added; the low-melt one with lead when nothing is said. Leaded solder makes a flooded joint of it. */
  alloy: compositionSchema.optional(),
  /** Seconds of stroking before the iron leaves. */
  stroke_s: number(bead.stroke_s),
  /** One stroke along a side and back, s, and how long the tip rests at either end of it. */
  pass_s: number(bead.pass_s).optional(),
  rest_s: number(bead.rest_s).optional(),
  /** Two irons work on opposite sides at once. */
  irons: z.union([z.literal(1), z.literal(2)]).optional(),
});

const ironSettings = z.strictObject({
  kind: z.literal('iron'),
  label: z.string().max(60),
  ...iron,
  /** Both ends gripped at once by two heated tips, or pin by pin with suction. */
  tool: z.enum(['tweezers', 'vacuum']),
  /** How long the tip stays once a joint is molten through, s. */
  dwell_s: number(RANGES.iron.dwell_s),
  /** After so long on one pin it goes on to the next, s; it comes back as often as it has to. */
  most_s: number(RANGES.iron.most_s).optional(),
});

/**
 * Beads were said as multiples of the joint's own solder, when that was taken for five times as much as paste leaves; six of those, the usual
 * ones, are 1.2 mm³ per mm of a row.
 */
const PER_RATIO = 0.2;
function beadByRow(given: unknown): unknown {
  if (typeof given !== 'object' || given === null || !('bead_ratio' in given)) return given;
  const { bead_ratio, ...rest } = given;
  if (typeof bead_ratio !== 'number' || 'bead_mm3_mm' in rest) return given;
  return { ...rest, bead_mm3_mm: Math.round(bead_ratio * PER_RATIO * 1000) / 1000 };
}

export const methodSchema = z.preprocess(
  beadByRow,
  z.discriminatedUnion('kind', [airSettings, beadSettings, ironSettings]),
);
export type Method = z.infer<typeof methodSchema>;
export type AirMethod = z.infer<typeof airSettings>;
export type LowMeltMethod = z.infer<typeof beadSettings>;
export type IronMethod = z.infer<typeof ironSettings>;

/** Flow of an unmarked dial at full scale: log-normal, its median, L/min, and what 19 of 20 stay within, as a factor (estimate over hot-air stations). */
export const UNMARKED_DIAL = { full_L_min: 60, within: 2 } as const;

export const stationSchema = z.strictObject({
  /** Part of the set rise that reaches the nozzle, and what it may be off by. */
  efficiency: number(station.efficiency),
  efficiencyPlusMinus: number(station.efficiencyPlusMinus),
  handFactor: number(station.handFactor),
  handFactorPlusMinus: number(station.handFactorPlusMinus),
  /** The air dial bears no L/min: full scale is `UNMARKED_DIAL`, or whatever it really is. */
  air: z.literal('unmarked').optional(),
  /** What the flow may be off by, as a share; of a marked dial. */
  flowPlusMinus: number(station.flowPlusMinus).optional(),
  /** Tip temperature error of an iron, K. */
  ironPlusMinus_K: number(station.ironPlusMinus_K),
  calibrated: z.boolean(),
});
export type StationModel = z.infer<typeof stationSchema>;

/** An air flow as the station's dial says it: in L/min, or in percent of a dial that bears none. */
export function dialOf(flow_L_min: number, { air }: Pick<StationModel, 'air'>): { value: number; unit: 'L/min' | '%' } {
  if (air !== 'unmarked') return { value: flow_L_min, unit: 'L/min' };
  return { value: Math.round((100 * flow_L_min) / UNMARKED_DIAL.full_L_min), unit: '%' };
}
