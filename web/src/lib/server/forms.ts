import { parseDecimal } from '@orthos/core';
import { z } from 'zod';

/** The first sentence per field of a form that does not fit. */
export function formIssues(error: z.ZodError): Record<string, string> {
  const issues: Record<string, string> = {};
  for (const issue of error.issues) issues[String(issue.path[0] ?? '')] ??= issue.message;
  return issues;
}

/** A length as it is typed, within these bounds. */
export const millimetres = (least: number, most: number) =>
  z.string('A length in mm').transform((text, ctx): number => {
    const value = parseDecimal(text);
    if (value !== null && value >= least && value <= most) return value;
    ctx.addIssue({ code: 'custom', message: `Between ${least} and ${most} mm` });
    return z.NEVER;
  });
