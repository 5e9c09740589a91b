/** What jobs keep of plans, in every form it was ever kept in, and its way up to today's. */
import {
  givenMethodSchema,
  givenOf,
  idOfLabel,
  type Method,
  methodIdSchema,
  methodOfGiven,
  methodSchema,
  surroundingsSchema,
} from '@orthos/core/rework';
import { type Planned, plannedSchema } from '@orthos/core/compare';
import { z } from 'zod';

const common = {
  stationId: z.string(),
  ironId: z.string(),
  ambient_C: z.number().min(-20).max(60),
  /** Under and round the board; open, still air without. */
  surroundings: surroundingsSchema.optional(),
};
const today = z.strictObject({
  v: z.literal(2),
  ...common,
  /** Where it is done; the bench of the station where nothing is said. */
  bench: z.string().max(100).optional(),
  methods: z.array(methodSchema).max(30),
  /** Ways of putting it on that somebody set, and the one that was chosen. */
  fits: z.array(methodSchema).max(30).optional(),
  fitBy: methodIdSchema.optional(),
});
/** Methods went by their labels, and were one tool each. */
const first = z.strictObject({ v: z.literal(1), ...common, methods: z.array(givenMethodSchema).min(1).max(30) });

/** What a plan is computed from, as the technician set it. */
export type PlanSettings = z.infer<typeof today>;
export type StoredPlanSettings = PlanSettings | z.input<typeof first>;

export const planSettingsSchema = z
  .discriminatedUnion('v', [today, first])
  .transform((s): PlanSettings => (s.v === 2 ? s : { ...s, v: 2, methods: s.methods.map(methodOfGiven) }));

/** Methods and results of a stored plan, by the ids of its methods; `v` is the form they are stored in. */
export function planOf(
  v: number,
  methods: unknown,
  results: unknown,
): { methods: Method[]; results: Record<string, Planned> } {
  const told = z.record(z.string(), plannedSchema).parse(results);
  if (v >= 2) return { methods: z.array(methodSchema).parse(methods), results: told };
  return {
    methods: z.array(givenMethodSchema).parse(methods).map(methodOfGiven),
    results: Object.fromEntries(Object.entries(told).map(([label, result]) => [idOfLabel(label), result])),
  };
}

/** The settings as the first form had them: what plans of that time were computed from, and are compared by. */
export function asFirst({
  methods,
  bench: _,
  fits: _fits,
  fitBy: _by,
  ...settings
}: PlanSettings): z.input<typeof first> {
  return { ...settings, v: 1, methods: methods.flatMap((m) => givenOf(m) ?? []) };
}
