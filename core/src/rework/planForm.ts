/** What a plan is computed from: what is found at the bench, and the phases of the work. */
import { z } from 'zod';
import { type ReworkCase, reworkCaseSchema } from './bench/caseForm.ts';
import { givenMethodSchema, phaseOfGiven } from './methods/given.ts';
import { type Phase, phasesSchema } from './phases/schema.ts';

export interface PlanInput extends ReworkCase {
  phases: Phase[];
  /** Also return the temperature field of the working side over time. */
  frames: boolean;
}

/** A plan as it is said: `phases`, or one tool as `method` says it. */
export const planSaid = reworkCaseSchema.extend({
  method: givenMethodSchema.optional(),
  phases: phasesSchema.optional(),
  frames: z.boolean().default(false),
});

export function planOfSaid({ method, phases, ...rest }: z.infer<typeof planSaid>, context: z.RefinementCtx): PlanInput {
  if (method && !phases) return { ...rest, phases: [phaseOfGiven(method)] };
  if (phases && !method) return { ...rest, phases };
  const message = phases ? 'either a method or phases' : 'say a method, or phases';
  context.addIssue({ code: 'custom', path: [phases ? 'phases' : 'method'], message });
  return z.NEVER;
}

export const planInputSchema = planSaid.transform(planOfSaid);
