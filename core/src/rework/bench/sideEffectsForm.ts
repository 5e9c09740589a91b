/** What a run does to lands, laminate, the part's own body, small neighbours in the wind and ceramics, as plans keep it. */
import { z } from 'zod';

const celsius = z.number();
const harm = z.enum(['hurts', 'may hurt', 'near', 'clear']);
export const sideEffectsSchema = z.strictObject({
  /** Each land of the target: time above the laminate's Tg, and how far above for how long. */
  lands: z.array(
    z.strictObject({ terminal: z.string(), aboveTg_s: z.number(), exposure_K_s: z.number(), peak_C: celsius }),
  ),
  /** How likely a land comes off, and which first; `early_p` when the lift cannot wait. Plans of older engines have an index instead. */
  torn: z.strictObject({ terminal: z.string(), p: z.number(), early_p: z.number() }).optional(),
  padStress: z
    .strictObject({
      terminal: z.string(),
      exposure_K_s: z.number(),
      force_N: z.number(),
      bond_N: z.number(),
      index: z.number(),
      says: z.enum(['easy', 'careful', 'tears']),
    })
    .optional(),
  /** The laminate at the hottest land. */
  laminate: z
    .strictObject({ peak_C: celsius, says: harm, margin_K: z.number().nullable(), dose: z.number().nullable() })
    .optional(),
  /** The target's own body against its row of the limits table, for parts that have to live. */
  body: z.strictObject({
    peak_C: celsius,
    limit_C: celsius.nullable(),
    over: z.boolean(),
    says: harm.optional(),
    margin_K: z.number().nullable().optional(),
    dose: z.number().nullable().optional(),
    why: z.string().optional(),
  }),
  /** Small neighbours in the wind, once their own solder is molten; the target itself while it is laid down. */
  wind: z.array(
    z.strictObject({
      partId: z.string(),
      N: z.number(),
      loosens_s: z.number().nullable(),
      verdict: z.enum(['stays', 'skews', 'flies']),
    }),
  ),
  /** Ceramics that stay, and the target when it is one: steepest rise over a second, step between a tip and the body. */
  ceramics: z.array(
    z.strictObject({
      partId: z.string(),
      ramp_K_s: z.number(),
      step_K: z.number().optional(),
      grade: z.enum(['gentle', 'fair', 'harsh']),
    }),
  ),
  /** Parts on the other side, of plans of older engines: they are neighbours now. */
  farSide: z
    .array(
      z.strictObject({
        partId: z.string(),
        peak_C: celsius,
        limit_C: celsius,
        heavy: z.boolean(),
        verdict: z.enum(['holds', 'loosens', 'falls']),
      }),
    )
    .optional(),
});
export type SideEffects = z.infer<typeof sideEffectsSchema>;
