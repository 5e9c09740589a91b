/** What `diagnose.rank` and `diagnose.next` take and give. */
import { z } from 'zod';
import { CLASS_NAMES } from '../board/index.ts';
import { circuitReadingSchema, faultSchema, netlistSchema } from '../circuit/index.ts';
import { measuredSchema as measured } from '../ground/index.ts';
import { SPLITS } from './next.ts';
import { EVENTS, SIGNS, SWAPS, type Sign } from './priors.ts';

const ref = z.string().trim().min(1).max(40);
const event = z.enum(EVENTS);

const history = z.union([
  z.array(event).max(20),
  z.strictObject({
    events: z.array(event).max(20).default([]),
    /** Closed jobs on this kind of board, and how many found each culprit. */
    jobs: z.int().min(0).default(0),
    culprits: z.record(ref, z.int().min(0)).default({}),
  }),
]);

export const diagnoseInput = z.strictObject({
  netlist: netlistSchema,
  readings: z
    .array(
      circuitReadingSchema.extend({
        value: measured,
        good: measured.nullish(),
        /** How far it may be off besides the meter, as a spread of its logarithm: a current of a start-up, say. */
        spread: z.number().min(0).max(3).optional(),
      }),
    )
    .max(1000)
    .default([]),
  /** Resistance of the leads, taken off every ohm reading. */
  lead_resistance_ohm: z.number().min(0).max(10).default(0),
  /** Basic accuracy of the meter, % of reading. */
  accuracy: z
    .strictObject({ ohm_percent: z.number().min(0).max(50), volt_percent: z.number().min(0).max(50) })
    .default({ ohm_percent: 0, volt_percent: 0 }),
  history: history.default([]),
  seen: z
    .array(z.strictObject({ ref, sign: z.enum(Object.keys(SIGNS) as [Sign, ...Sign[]]) }))
    .max(200)
    .default([]),
  off_board: z
    .array(z.strictObject({ ref, result: z.enum(['bad', 'good']), recovered: z.boolean().optional() }))
    .max(50)
    .default([]),
  swapped: z
    .array(z.strictObject({ ref, followed: z.boolean(), how: z.enum(SWAPS).optional() }))
    .max(50)
    .default([]),
  companions: z.array(ref).max(50).default([]),
  /** Millivolts along rails: shares of the parts on each as `diagnose.locate` gives them, all weighing alike there. */
  on_rails: z
    .array(
      z.strictObject({
        net: ref,
        places: z.array(z.strictObject({ ref, p: z.number().min(0).max(1) })).max(500),
        /** Whether the copper was as drawn; else assumed. */
        drawn: z.boolean().default(false),
      }),
    )
    .max(20)
    .default([]),
  software: z.enum(['possible', 'ruled out']).optional(),
  /** Two faults at once, to be weighed beside the single ones. */
  pair: z.tuple([faultSchema, faultSchema]).optional(),
  /**
   * What else the board holds on nets of the circuit and the circuit does not. A net with an empty list is known to be complete; of one that
   * is not listed nobody knows.
   */
  beside: z
    .array(z.strictObject({ net: ref, parts: z.array(z.strictObject({ ref, cls: z.enum(CLASS_NAMES) })).max(400) }))
    .max(400)
    .default([]),
});
export type DiagnoseInput = z.infer<typeof diagnoseInput>;

const group = z.array(z.string());
const nextTest = z.strictObject({
  type: circuitReadingSchema.shape.type,
  red: z.string(),
  black: z.string(),
  state: z.string().nullable(),
  bits: z.number(),
  minutes: z.number(),
  /** What a healthy board shows there. */
  healthy: measured,
  /** What the likeliest suspects would show: value and the range two thirds of readings lie in. */
  expects: z.array(z.strictObject({ ref: z.string(), p: z.number(), value: measured, from: measured, to: measured })),
});

const asRead = {
  type: circuitReadingSchema.shape.type,
  red: z.string(),
  black: z.string(),
  state: z.string().nullable(),
  value: measured,
};
/** What one reading says about a part beside the next one that reads otherwise: above 0 for it, below 0 against it (ln of the ratio). */
const voice = z.strictObject({ ...asRead, weight: z.number(), expected: measured });

/** What one reading changed: whom it ruled out, who stands first after it. */
const chapter = z.strictObject({
  ...asRead,
  out: z.array(z.strictObject({ mode: z.string(), refs: z.array(z.string()) })),
  first: z.string(),
  p: z.number(),
});

export const diagnoseOutput = z.strictObject({
  suspects: z.array(z.strictObject({ ref: z.string(), mode: z.string(), where: z.string(), p: z.number() })),
  parts: z.array(
    z.strictObject({
      ref: z.string(),
      p: z.number(),
      voices: z.array(voice).optional(),
      /** How often earlier jobs found it, and what that makes of its weight. */
      shop: z.strictObject({ found: z.int(), factor: z.number() }).optional(),
    }),
  ),
  groups: z.array(group),
  /** Share of each group, and the ways to split it. */
  group_shares: z.array(
    z.strictObject({ p: z.number(), splits: z.array(z.strictObject({ how: z.enum(SPLITS), minutes: z.number() })) }),
  ),
  next: z.array(nextTest),
  /** Why the first part is not to be convicted yet; null where nothing stands against it. */
  doubt: z.string().nullable(),
  /** Parts of the board on a net that may as well be it, and are not in the circuit. */
  left_out: z.strictObject({ net: z.string(), refs: z.array(z.string()) }).nullable(),
  power: z.enum(['allowed', 'blocked']),
  why: z.string(),
  done: z.boolean(),
  /** Reading by reading: what it ruled out. */
  story: z.array(chapter),
  notes: z.array(z.string()),
});

export type Diagnosis = z.infer<typeof diagnoseOutput>;

export const nextInput = diagnoseInput.extend({ most: z.int().min(1).max(50).default(8) });
export const nextOutput = diagnoseOutput.pick({ next: true, groups: true, power: true, why: true, done: true });
