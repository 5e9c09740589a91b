/** A method as it is set for a part: a recipe, by its id, and its phases in order. */
import { z } from 'zod';
import { type KindName, type Phase, phasesSchema } from '../phases/schema.ts';

/** Stable: what was computed and done is kept by it. */
export const methodIdSchema = z
  .string()
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/)
  .max(60);

export interface Method {
  id: string;
  phases: Phase[];
}
export const methodSchema: z.ZodType<Method> = z.strictObject({ id: methodIdSchema, phases: phasesSchema });

/** The phase that takes the part off, or lays it down: the last. */
export const mainPhase = ({ phases }: Pick<Method, 'phases'>): Phase => phases[phases.length - 1];

/** The phase of a kind, where there is one. */
export const phaseOf = <K extends KindName>({ phases }: Pick<Method, 'phases'>, kind: K) =>
  phases.find((p): p is Extract<Phase, { kind: K }> => p.kind === kind);
