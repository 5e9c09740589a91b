/** What hands do in a run: operations, what a tap marks, what was predicted for them, what has to lie ready. */
import { z } from 'zod';
import type { Dialled } from './dials.ts';

/** The three steps with busy hands. */
export const OPERATIONS = ['remove', 'prepare', 'fit'] as const;
export type Operation = (typeof OPERATIONS)[number];

/** Moments of a run that mean something beyond "this instruction is done". */
export const MARKS = ['done', 'heat-on', 'first-wet', 'all-wet', 'lifted', 'heat-off', 'fitted'] as const;
export type Mark = (typeof MARKS)[number];

const duration = z.number().min(0).max(36_000).nullable();

/** The prediction a run was begun with, as shown to the hands; s from heat on, null = never. */
export const guideSchema = z.strictObject({
  joints: z.array(z.strictObject({ terminal: z.string().max(20), wet_s: duration })).max(1000),
  /** What each joint takes where a tool goes from one to the next, s. */
  turns: z
    .array(z.strictObject({ terminal: z.string().max(20), takes_s: duration }))
    .max(1000)
    .optional(),
  /** When the clock of these times begins, s after the first tool of the run touched: a chain's begins with its last tool. */
  starts_s: z.number().min(0).max(36_000).optional(),
  /** Putting on: how long it is held once the heat has left, s. */
  hold_s: duration.optional(),
  /** Taking off: once the part is lifted, how long solder on the lands stays soft, and lands past half of the way to melting, s. */
  soft_s: duration.optional(),
  warm_s: duration.optional(),
  /** What it does to the hottest land above its laminate's glass transition, K·s, and to the part's own body, as a share of what it may take. */
  heat: z.strictObject({ land_K_s: z.number().min(0), dose: z.number().min(0).nullable() }).optional(),
  last: z.string().max(20).nullable(),
  allWet_s: duration,
  allWetFrom_s: duration,
  allWetTo_s: duration,
  closes_s: duration,
  closesFrom_s: duration,
  closesTo_s: duration,
  /** Who ends the window, in a word or two. */
  closedBy: z.string().max(60),
});
export type Guide = z.infer<typeof guideSchema>;

/** What the looks that are part of an operation write down with the tap. */
export const scannedSchema = z.strictObject({
  type: z.literal('surroundings-scanned'),
  ok: z.boolean(),
  after: z.enum(['removal', 'fitting']),
});
export const landsCleanSchema = z.strictObject({ type: z.literal('lands-clean'), ok: z.boolean() });
/** What a part that came off is kept for. */
export const PART_FATES = ['must live', 'to be tested', 'scrap'] as const;
export type PartFate = (typeof PART_FATES)[number];
/** A part that came off: what it is kept for, where it lies, what it went through. */
export const partOffSchema = z.strictObject({
  type: z.literal('part-off'),
  partId: z.string().trim().min(1).max(60),
  fate: z.enum(PART_FATES),
  place: z.string().trim().max(200),
  /** Compositions of what is on its legs. */
  legs: z.array(z.string().max(200)).max(20).optional(),
  /** How hot its body got by the plan, °C, and the share of what it may take: 1 is all of it. */
  heat: z.strictObject({ peak_C: z.number(), dose: z.number().nullable().optional() }).optional(),
});
export type PartOff = z.infer<typeof partOffSchema>;
export type HandEvent = z.infer<typeof scannedSchema> | z.infer<typeof landsCleanSchema> | PartOff;

/** What a tool really has to be set to, and how far off it may be. */
export interface SetPoint {
  id: string;
  label: string;
  value: number;
  unit: string;
  tolerance: number;
  /** The tool on whose dial it is turned. */
  dial?: Dialled;
}

/** What has to lie ready: tools in reach, what each is set to. */
export interface LayOut {
  tools: string[];
  setPoints: SetPoint[];
}
