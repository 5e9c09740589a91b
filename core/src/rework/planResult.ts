/** What a plan comes to: a run with its ranges. */
import { z } from 'zod';
import { type PlanRun, planRunSchema } from './bench/runForm.ts';

const range = z.strictObject({ from: z.number().nullable(), to: z.number().nullable() });
export type Range = z.infer<typeof range>;

export const planResultSchema = planRunSchema.extend({
  /** All joints loose: earliest and latest time, 19 times out of 20. `to` is null where it may never happen, `from` as well where no run of the ensemble got there. */
  allWetRange_s: range,
  /** When the window closes (first neighbour over its limit, or joints frozen again), over the same spread. */
  closesRange_s: range,
  /** The same for every joint and neighbour. Plans of older engines lack them. */
  jointRanges_s: z.array(range.extend({ terminal: z.string() })).optional(),
  neighbourRanges: z
    .array(
      z.strictObject({
        partId: z.string(),
        over_s: range,
        /** Spread of its temperature until the joints are wet, K to either side. */
        atWetPlusMinus_K: z.number(),
      }),
    )
    .optional(),
  /** What each input shifts the last joint by when it is off to the worse, s, largest first; null: it then stays solid. */
  matters: z.array(z.strictObject({ input: z.string(), shift_s: z.number().nullable() })),
  calibrated: z.boolean(),
  /** Lowest set-point that keeps a bead liquid for a lift after the iron has left, °C; null where none does. Of beads only. */
  lowestTip_C: z.number().nullable().optional(),
});
export type PlanResult = z.infer<typeof planResultSchema>;

/** End of the window of one run: a neighbour over its limit or the joints solid again. */
export function windowEnd(run: PlanRun): number | null {
  const ends = [run.closes?.at_s, run.freezes_s].filter((t) => typeof t === 'number');
  return ends.length ? Math.min(...ends) : null;
}
