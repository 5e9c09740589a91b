/** What a calculation takes and gives, as JSON Schema (draft 2020-12), with an input that works. */
import { z } from 'zod';
import type { Calc } from '../ground/index.ts';

export function describeCalc({ name, summary, input, output, example }: Calc): object {
  // binary fields have no JSON type; they stand as anything
  const schema = (form: z.ZodType, io: 'input' | 'output') => z.toJSONSchema(form, { io, unrepresentable: 'any' });
  return { name, summary, input: schema(input, 'input'), output: schema(output, 'output'), example };
}
