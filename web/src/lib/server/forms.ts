import type { z } from 'zod';

/** The first sentence per field of a form that does not fit. */
export function formIssues(error: z.ZodError): Record<string, string> {
  const issues: Record<string, string> = {};
  for (const issue of error.issues) issues[String(issue.path[0] ?? '')] ??= issue.message;
  return issues;
}
