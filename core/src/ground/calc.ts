/**
 * The form every public computation takes. Worker pool, server threads, command line and HTTP all
 * reach computations through one registry and one `runCalc`.
 */
import { z } from 'zod';
import type { Helper } from './shares.ts';

export interface CalcContext {
  /** Looked at every few dozen steps; a run that sees it set stops with `CancelledError`. */
  signal?: { readonly aborted: boolean };
  /** Fraction done, 0…1, and optionally an early result worth showing. */
  progress?: (done: number, partial?: unknown) => void;
  /** Milliseconds; the core has no clock. */
  now: () => number;
  /** Lets the host handle messages (a cancel, say) in the middle of a long run. */
  breathe?: () => Promise<void>;
  /** An idle place elsewhere that computes runs (`rework/runAsked.ts`) about this, where there is one. */
  idle?: (about: unknown) => Promise<Helper | undefined>;
}

export class CancelledError extends Error {
  constructor() {
    super('Cancelled.');
    this.name = 'CancelledError';
  }
}

export interface CalcIssue {
  /** Dotted path of the field, empty for the input as a whole. */
  field: string;
  message: string;
}

/** The input does not fit: which fields, and what would be accepted. */
export class CalcInputError extends Error {
  readonly issues: CalcIssue[];
  constructor(issues: CalcIssue[]) {
    super(issues.map((i) => (i.field ? `${i.field}: ${i.message}` : i.message)).join('; '));
    this.name = 'CalcInputError';
    this.issues = issues;
  }
}

export interface Calc<I = unknown, O = unknown> {
  name: string;
  /** One line for lists and help. */
  summary: string;
  input: z.ZodType<I>;
  output: z.ZodType<O>;
  /** A valid input, for tests and documentation. */
  example: unknown;
  /** Rough seconds on a bench computer; hosts refuse what they cannot afford. */
  cost?: (input: I) => number;
  run(input: I, context: CalcContext): O | Promise<O>;
}

export function defineCalc<I, O>(calc: Calc<I, O>): Calc<I, O> {
  return calc;
}

/** Turns Zod's issues into field paths with plain sentences. */
export function issuesOf(error: z.ZodError): CalcIssue[] {
  return error.issues.map((issue) => ({
    field: issue.path.map(String).join('.'),
    message: issue.message,
  }));
}

/** Parses with `schema` or throws `CalcInputError`. */
export function parseInput<T>(schema: z.ZodType<T>, value: unknown): T {
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw new CalcInputError(issuesOf(parsed.error));
  return parsed.data;
}
