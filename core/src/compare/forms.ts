/** Comparing every way of working on one part: what is asked, what a row says. */
import { z } from 'zod';
import { compositionSchema } from '../alloys/index.ts';
import {
  methodIdSchema,
  type OnOrOff,
  phasesSchema,
  recipeOf,
  reworkPlaceSchema,
  surroundingsSchema,
} from '../rework/index.ts';

export const weightsSchema = z.strictObject({
  pads: z.number().min(0).max(100).default(1),
  neighbours: z.number().min(0).max(100).default(1),
  part: z.number().min(0).max(100).default(1),
  minutes: z.number().min(0).max(100).default(1),
});
export type Weights = z.infer<typeof weightsSchema>;

/** What lies over parts and board. */
export const coversSchema = surroundingsSchema.shape.covers.unwrap();

export const methodsInput = z.strictObject({ case: reworkPlaceSchema });
export const methodsOutput = z.strictObject({
  methods: z.array(
    z.strictObject({
      id: methodIdSchema,
      name: z.string(),
      /** It can be done to this part on this board. */
      fits: z.boolean(),
      why: z.string().optional(),
      cheapest: z.string().optional(),
      /** What it cannot do without, and whether this bench has it. */
      needs: z.array(z.strictObject({ tool: z.string(), name: z.string(), have: z.boolean() })),
      phases: z.array(z.string()),
    }),
  ),
});

/** Ways by their ids, of taking off or of putting on. */
const namedWays = (op: OnOrOff) =>
  z
    .array(
      methodIdSchema.refine((id) => recipeOf(id, op) !== undefined, {
        error: op === 'fit' ? 'is no way of putting a part on' : 'is no way known here',
      }),
    )
    .min(1)
    .max(60)
    .optional();

export const compareInput = z.strictObject({
  case: reworkPlaceSchema,
  /** All that fit, where none is named. */
  methods: namedWays('remove'),
  weights: weightsSchema.default({ pads: 1, neighbours: 1, part: 1, minutes: 1 }),
  /** How finely the run as set is computed: what is stated wants `plan`. */
  quality: z.enum(['coarse', 'plan']).default('coarse'),
  /** Without, every way is computed as set alone: first answers, all of them sure. */
  ranges: z.boolean().default(true),
});
export type CompareInput = z.infer<typeof compareInput>;

const seconds = z.number().nullable();
/** 5th, 50th and 95th percentile over the draws; null where it does not happen in that share of them. */
const spreadSchema = z.strictObject({ p5: seconds, p50: seconds, p95: seconds });
export type Spread = z.infer<typeof spreadSchema>;
const share = z.number().min(0).max(1);
const harm = z.enum(['hurts', 'may hurt', 'near', 'clear']);

export const rowSchema = z.strictObject({
  id: methodIdSchema,
  name: z.string(),
  verdict: z.enum(['works', 'tight', 'no', 'not here']),
  /** From the first touch of heat until all are loose, hands included; and how long of that something heats. */
  loose_s: spreadSchema.nullable(),
  heat_s: spreadSchema.nullable(),
  window: z
    .strictObject({ open_s: spreadSchema, shut_s: spreadSchema, by: z.string().nullable(), p_open: share })
    .nullable(),
  joints: z.array(z.strictObject({ terminal: z.string(), loose_s: spreadSchema })).nullable(),
  last: z.array(z.strictObject({ terminal: z.string(), p: share })).nullable(),
  worst: z.strictObject({ partId: z.string(), margin_K: z.number().nullable(), p_hurt: share, word: harm }).nullable(),
  land: z.strictObject({ terminal: z.string(), p_torn: share }).nullable(),
  part: z
    .strictObject({ p_hurt: share, dose: z.number().nullable(), margin_K: z.number().nullable(), word: harm })
    .nullable(),
  /** Rounds of solder and braid afterwards; minutes at the bench in all. */
  rounds: z.number().nullable(),
  minutes: z.number().nullable(),
  /** Less is better. */
  score: z.number().nullable(),
  why: z.string(),
  cheapest: z.string().optional(),
  /** A way only when nothing else is left, and why. */
  lastResort: z.string().optional(),
  /** As it was computed. */
  procedure: z
    .strictObject({
      v: z.literal(1),
      method: methodIdSchema,
      op: z.enum(['remove', 'fit']),
      partId: z.string(),
      surroundings: surroundingsSchema.omit({ joints: true }).optional(),
      phases: phasesSchema,
    })
    .nullable(),
});
export type Row = z.infer<typeof rowSchema>;

/** How a part goes on: what the wind would do to it, how long it is held, in which order its joints are made. */
export const fitRowSchema = rowSchema.extend({
  /** Drag of the strongest air over what holds it in flux; where it would move, from how far or how weak it stays. */
  wind: z
    .strictObject({
      N: z.number(),
      verdict: z.enum(['stays', 'skews', 'flies']),
      standoff_mm: z.number().optional(),
      flow_L_min: z.number().optional(),
    })
    .nullable(),
  /** From when the heat has left until every joint holds. */
  frozen_s: spreadSchema.nullable(),
  /** Held at least so long: until all are solid through, s. */
  hold_s: seconds,
  order: z.array(z.string()).nullable(),
  /** Of an iron: seconds a joint, millimetres of row a second. */
  pace: z.strictObject({ s_per_joint: z.number(), mm_s: z.number() }).optional(),
});
export type FitRow = z.infer<typeof fitRowSchema>;

const landSchema = z.strictObject({
  terminal: z.string().max(20),
  wt: compositionSchema,
  mm3: z.number().min(0).max(1000),
});
export const fitInput = compareInput.extend({
  methods: namedWays('fit'),
  /** What lies on lands as they are now; a film of leaded solder where nothing is said. */
  lands: z.array(landSchema).max(400).optional(),
});
export type FitInput = z.infer<typeof fitInput>;

export const compareOutput = z.strictObject({
  rows: z.array(rowSchema),
  recommended: methodIdSchema.nullable(),
  reasons: z.array(z.string()).length(3),
  /** What has to come out before anything is heated: then there are no rows. */
  first: z.array(z.strictObject({ what: z.string(), partId: z.string() })).optional(),
});
export type Comparison = z.infer<typeof compareOutput>;
export const fitOutput = compareOutput.extend({ rows: z.array(fitRowSchema) });
export type Fitting = z.infer<typeof fitOutput>;
