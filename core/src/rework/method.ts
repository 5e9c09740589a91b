/** What a plan is computed from: board, target, method with its settings, station, surroundings. */
import { z } from 'zod';
import { boardModelSchema } from '../board/boardModel.ts';

const airSettings = z.strictObject({
  kind: z.literal('air'),
  label: z.string().max(60),
  set_C: z.number().min(100).max(550),
  flow_L_min: z.number().min(2).max(200),
  nozzle_mm: z.number().min(2).max(40),
  standoff_mm: z.number().min(3).max(120),
  sweep_mm: z.number().min(0).max(40),
  limit_s: z.number().min(5).max(300),
});

const ironSettings = z.strictObject({
  kind: z.literal('low-melt'),
  label: z.string().max(60),
  set_C: z.number().min(150).max(480),
  /** Alloy added per joint, as a multiple of the joint's own solder. */
  bead_ratio: z.number().min(0.2).max(20),
  /** Contact width of the tip along the row, mm. */
  tip_mm: z.number().min(0.5).max(10),
  /** Contact of the tip against that of a well wetted film; the hand's part. */
  contact: z.number().min(0.1).max(3),
  power_W: z.number().min(10).max(500),
  /** Seconds of stroking before the iron leaves. */
  stroke_s: z.number().min(2).max(120),
  limit_s: z.number().min(5).max(300),
});

export const methodSchema = z.discriminatedUnion('kind', [airSettings, ironSettings]);
export type Method = z.infer<typeof methodSchema>;
export type AirMethod = z.infer<typeof airSettings>;
export type LowMeltMethod = z.infer<typeof ironSettings>;

export const stationSchema = z.strictObject({
  /** Part of the set rise that reaches the nozzle, and what it may be off by. */
  efficiency: z.number().min(0.3).max(1),
  efficiencyPlusMinus: z.number().min(0).max(0.3),
  handFactor: z.number().min(0.2).max(1.5),
  handFactorPlusMinus: z.number().min(0).max(0.5),
  /** Tip temperature error of an iron, K. */
  ironPlusMinus_K: z.number().min(0).max(80),
  calibrated: z.boolean(),
});
export type StationModel = z.infer<typeof stationSchema>;

export const planInputSchema = z.strictObject({
  board: boardModelSchema,
  target: z.string().min(1),
  method: methodSchema,
  station: stationSchema,
  ambient_C: z.number().min(-20).max(60),
  /** Cells of the mesh and step: 14 000 at 50 ms for plans, 3 000 at 100 ms for searching. */
  quality: z.enum(['plan', 'search']).default('plan'),
  /** Also return the temperature field of the working side over time. */
  frames: z.boolean().default(false),
});
export type PlanInput = z.infer<typeof planInputSchema>;

const joint = z.strictObject({
  terminal: z.string(),
  solidus_s: z.number().nullable(),
  liquidus_s: z.number().nullable(),
  peak_C: z.number(),
});

const neighbour = z.strictObject({
  partId: z.string(),
  distance_mm: z.number(),
  limit_C: z.number(),
  limitPlusMinus_C: z.number(),
  /** Highest temperature until the joints are wet, or of the whole run when they never are. */
  atWet_C: z.number(),
  peak_C: z.number(),
  over_s: z.number().nullable(),
  /** When the neighbour's own joints melt, if they do. */
  loosens_s: z.number().nullable(),
});

const fieldFrames = z.strictObject({
  /** Cell edges on the board, mm. */
  x_mm: z.array(z.number()),
  y_mm: z.array(z.number()),
  times_s: z.array(z.number()),
  /** times × ny × nx, row-major, °C, working side. */
  values: z.custom<Float32Array>((v) => v instanceof Float32Array),
});
export type FieldFrames = z.infer<typeof fieldFrames>;

export const planRunSchema = z.strictObject({
  joints: z.array(joint),
  /** All joints molten at the same time, s; null when they never are. */
  allWet_s: z.number().nullable(),
  /** When the first joint freezes again after that (low-melt: the iron has left), if it does. */
  freezes_s: z.number().nullable(),
  last: z.strictObject({ terminal: z.string(), why: z.string() }).nullable(),
  body_C: z.number(),
  pads_C: z.number(),
  neighbours: z.array(neighbour),
  closes: z.strictObject({ at_s: z.number(), partId: z.string() }).nullable(),
  ended_s: z.number(),
  cells: z.number(),
  steps: z.number(),
  frames: fieldFrames.optional(),
});
export type PlanRun = z.infer<typeof planRunSchema>;
