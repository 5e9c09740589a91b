/** How a way changes round its settings: a quick run for each of other settings, read with its own ensemble (`glances.ts`). */
import { z } from 'zod';
import type { CalcContext } from '../ground/index.ts';
import { methodIdSchema, planOfSaid, planSaid } from '../rework/index.ts';
import { rowSchema, type Row } from './forms.ts';
import { covered, turned, valueSchema } from './free.ts';
import { Glances, type Setting } from './glances.ts';
import { EVEN } from './order.ts';

const MOST_POINTS = 80;

/** `as`: which way it is; `at`: settings by what is turned, as a search says them. */
export const aroundInput = planSaid
  .extend({
    as: methodIdSchema,
    at: z
      .array(z.record(z.string().min(1).max(80), valueSchema))
      .min(1)
      .max(MOST_POINTS),
  })
  .transform(({ as, at, ...said }, context) => ({ plan: planOfSaid(said, context), as, at }));
export type AroundInput = z.infer<typeof aroundInput>;

/** `known`: the row as set, with its ensemble; `rows`: one of each of the others, as near as one run comes. */
export const aroundOutput = z.strictObject({ known: rowSchema, rows: z.array(rowSchema) });
export type Around = z.infer<typeof aroundOutput>;

/** Throws `CalcInputError` where a setting cannot be so; `OutOfBoundsError` rather than tell a temperature that is not possible. */
export async function rowsAround({ plan, as, at }: AroundInput, context: CalcContext): Promise<Around> {
  const { phases, ...found } = plan;
  const method = { id: as, phases };
  const settings = at.map((said, n): Setting => {
    const values = new Map(Object.entries(said));
    return { name: String(n), at: [], phases: turned(method, values).phases, found: covered(found, values) };
  });
  const glances = new Glances(
    { method: as, weights: EVEN, seed: undefined, budget_runs: at.length + 14 },
    { ...context, progress: () => undefined },
  );
  const { row: known } = await glances.learn({ name: 'as set', at: [], phases, found });
  const rows: Row[] = [];
  for (const [n, setting] of settings.entries()) {
    rows.push((await glances.at(setting, settings.slice(n + 1))).row);
    context.progress?.(rows.length / settings.length, { known, rows });
  }
  return { known, rows };
}
