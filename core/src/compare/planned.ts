/** A plan of one way of working: what is computed of it, and where it stands among the others. */
import { z } from 'zod';
import type { CalcContext } from '../ground/index.ts';
import {
  methodIdSchema,
  planEnsemble,
  type PlanInput,
  planOfSaid,
  planResultSchema,
  planSaid,
} from '../rework/index.ts';
import { fitRowOf } from './fit.ts';
import { fitRowSchema, rowSchema } from './forms.ts';
import { placeOf, rowOf } from './row.ts';

/** `as`: which way it is; its row in a comparison then comes with it. */
export const plannedInput = planSaid
  .extend({
    as: methodIdSchema.optional(),
    /** Without, the run as set stands for all that may be: first answers. */
    ranges: z.boolean().default(true),
  })
  .transform(({ as, ranges, ...said }, context) => ({
    plan: planOfSaid(said, context),
    ranges,
    ...(as ? { as } : {}),
  }));

/** Frames are for pictures: they are not kept. */
export const plannedSchema = planResultSchema.extend({ row: z.union([rowSchema, fitRowSchema]).optional() });
export type Planned = z.infer<typeof plannedSchema>;

/** Throws `OutOfBoundsError` rather than tell a temperature that is not possible. */
export async function planWay(
  { plan, as, ranges }: { plan: PlanInput; as?: string; ranges: boolean },
  context: CalcContext,
): Promise<Planned> {
  const { result, ensemble } = await planEnsemble(plan, context, ranges);
  if (!as) return result;
  const make = plan.fitting ? fitRowOf : rowOf;
  return { ...result, row: make({ id: as, phases: plan.phases }, ensemble, placeOf(plan)) };
}
