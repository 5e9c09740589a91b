/** The tools of a plan and how they are set: air, iron with a bead of alloy, iron on the joints' own solder; the station. */
import { z } from 'zod';
import { compositionSchema } from '../alloys/index.ts';

const airSettings = z.strictObject({
  kind: z.literal('air'),
  label: z.string().max(60),
  set_C: z.number().min(100).max(550),
  flow_L_min: z.number().min(2).max(200),
  nozzle_mm: z.number().min(2).max(40),
  standoff_mm: z.number().min(3).max(120),
  /** How far the hand goes to either side of its middle: on a circle, or to and fro along a line in this direction (as `approach_deg`). */
  sweep_mm: z.number().min(0).max(40),
  sweep_deg: z.number().min(-360).max(360).optional(),
  limit_s: z.number().min(5).max(300),
  /** Changed on the way: closing in, hotter, stronger. Each holds until the next. */
  stages: z
    .array(
      z.strictObject({
        from_s: z.number().min(0).max(300),
        set_C: z.number().min(100).max(550).optional(),
        flow_L_min: z.number().min(2).max(200).optional(),
        standoff_mm: z.number().min(3).max(120).optional(),
        sweep_mm: z.number().min(0).max(40).optional(),
      }),
    )
    .max(20)
    .optional(),
  /** Air in pulses. */
  pulse: z.strictObject({ on_s: z.number().min(0.2).max(60), off_s: z.number().min(0.2).max(60) }).optional(),
  /** How far the nozzle leans from upright, and from where: 0 from the right, 90 from the upper edge, seen from the working side. */
  tilt_deg: z.number().min(0).max(60).optional(),
  approach_deg: z.number().min(-360).max(360).optional(),
  /** A mouth that is no round hole: a slot of this size, or holes along its rim; `nozzle_mm` is then the bore of each. */
  mouth: z
    .strictObject({ kind: z.enum(['slot', 'rim']), w_mm: z.number().min(1).max(80), h_mm: z.number().min(1).max(80) })
    .optional(),
});

/** Tips by what their body conducts in series with the contact, W/K (estimates). */
export const TIP_CONDUCTANCE = { cone: 0.25, chisel: 0.6, knife: 1 } as const;

/** What all irons have. */
const iron = {
  set_C: z.number().min(150).max(480),
  /** Contact width of the tip along the row, mm. */
  tip_mm: z.number().min(0.5).max(10),
  tip: z.enum(['cone', 'chisel', 'knife']).optional(),
  /** Contact of the tip against that of a well wetted film; the hand's part. */
  contact: z.number().min(0.1).max(3),
  /** Power of each iron. */
  power_W: z.number().min(10).max(500),
  limit_s: z.number().min(5).max(300),
};

const beadSettings = z.strictObject({
  kind: z.literal('low-melt'),
  label: z.string().max(60),
  ...iron,
  /** Alloy laid along the rows, mm³ per mm of row. */
  bead_mm3_mm: z.number().min(0.05).max(10),
  /** What is added; the low-melt one with lead when nothing is said. Leaded solder makes a flooded joint of it. */
  alloy: compositionSchema.optional(),
  /** Seconds of stroking before the iron leaves. */
  stroke_s: z.number().min(2).max(120),
  /** One stroke along a side and back, s, and how long the tip rests at either end of it. */
  pass_s: z.number().min(0.2).max(20).optional(),
  rest_s: z.number().min(0).max(20).optional(),
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
  dwell_s: z.number().min(0).max(30),
  /** After so long on one pin it goes on to the next, s; it comes back as often as it has to. */
  most_s: z.number().min(1).max(60).optional(),
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
  efficiency: z.number().min(0.3).max(1),
  efficiencyPlusMinus: z.number().min(0).max(0.3),
  handFactor: z.number().min(0.2).max(1.5),
  handFactorPlusMinus: z.number().min(0).max(0.5),
  /** The air dial bears no L/min: full scale is `UNMARKED_DIAL`, or whatever it really is. */
  air: z.literal('unmarked').optional(),
  /** What the flow may be off by, as a share; of a marked dial. */
  flowPlusMinus: z.number().min(0).max(0.5).optional(),
  /** Tip temperature error of an iron, K. */
  ironPlusMinus_K: z.number().min(0).max(80),
  calibrated: z.boolean(),
});
export type StationModel = z.infer<typeof stationSchema>;

/** An air flow as the station's dial says it: in L/min, or in percent of a dial that bears none. */
export function dialOf(flow_L_min: number, { air }: Pick<StationModel, 'air'>): { value: number; unit: 'L/min' | '%' } {
  if (air !== 'unmarked') return { value: flow_L_min, unit: 'L/min' };
  return { value: Math.round((100 * flow_L_min) / UNMARKED_DIAL.full_L_min), unit: '%' };
}
