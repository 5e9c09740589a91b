import { parseDecimal } from '@orthos/core/ground';
import { z } from 'zod';
import { readForm } from './body';

/** The first sentence per field of a form that does not fit. */
export function formIssues(error: z.ZodError): Record<string, string> {
  const issues: Record<string, string> = {};
  for (const issue of error.issues) issues[String(issue.path[0] ?? '')] ??= issue.message;
  return issues;
}

/** What was posted, by a schema: its data, or a sentence per field that does not fit. `values` is what was typed. */
export async function readPosted<S extends z.ZodType>(
  request: Request,
  schema: S,
): Promise<
  | { values: Record<string, string>; data: z.output<S>; issues?: undefined }
  | { values: Record<string, string>; data?: undefined; issues: Record<string, string> }
> {
  const values = await readForm(request);
  const parsed = schema.safeParse(values);
  return parsed.success ? { values, data: parsed.data } : { values, issues: formIssues(parsed.error) };
}

/** The version a form was loaded with; 0, which nothing has, when it is none. */
export const versionOf = (text: string | undefined): number =>
  z.coerce.number().pipe(z.int32().min(0)).catch(0).parse(text);

/** A day as a calendar of a shop has it. */
export const calendarDate = (message: string) =>
  z.iso.date(message).refine((day) => day >= '2000' && day < '2200', { error: message });

/** A length as it is typed, within these bounds. */
export const millimetres = (least: number, most: number) =>
  z.string('A length in mm').transform((text, ctx): number => {
    const value = parseDecimal(text);
    if (value !== null && value >= least && value <= most) return value;
    ctx.addIssue({ code: 'custom', message: `Between ${least} and ${most} mm` });
    return z.NEVER;
  });
