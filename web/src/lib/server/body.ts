import { CalcInputError, parseInput } from '@orthos/core/ground';
import { error } from '@sveltejs/kit';
import type { z } from 'zod';
import { ConflictError } from './repositories/conflict';

/** No document of ours is nested deeper. */
const MOST_DEEP = 60;

/** A text that a database can hold: no NUL, no half of a character. */
const isWritable = (text: string): boolean => !text.includes('\0') && text.isWellFormed();

/** What is wrong with a value whatever it means: texts that cannot be written down, or nesting without end. */
function troubleIn(value: unknown): string | undefined {
  const left: { value: unknown; deep: number }[] = [{ value, deep: 0 }];
  for (let at = left.pop(); at; at = left.pop()) {
    const { value: v, deep } = at;
    if (typeof v === 'string' && !isWritable(v)) return 'A text holds a character that cannot be written down.';
    if (typeof v !== 'object' || v === null) continue;
    if (deep >= MOST_DEEP) return `Nested deeper than ${MOST_DEEP}.`;
    if (!Object.keys(v).every(isWritable)) return 'A name holds a character that cannot be written down.';
    for (const inner of Object.values(v)) left.push({ value: inner, deep: deep + 1 });
  }
  return undefined;
}

/** A JSON body; 400 with a sentence when it is none or cannot be written down. */
export async function readJson(request: Request): Promise<unknown> {
  let value: unknown;
  try {
    value = await request.json();
  } catch {
    error(400, { message: 'The body is not JSON.' });
  }
  const trouble = troubleIn(value);
  if (trouble) error(400, { message: trouble });
  return value;
}

/** The texts of a form by their names; 400 with a sentence when it is none or cannot be written down. */
export async function readForm(request: Request): Promise<Record<string, string>> {
  let form: FormData;
  try {
    form = await request.formData();
  } catch {
    error(400, { message: 'The body is not a form.' });
  }
  const values: Record<string, string> = {};
  for (const [name, value] of form) {
    if (typeof value !== 'string') error(400, { message: `${name}: a text, not a file.` });
    if (!isWritable(name + value)) error(400, { message: 'A text holds a character that cannot be written down.' });
    if (name !== '__proto__') values[name] = value;
  }
  return values;
}

/** A JSON body that fits `schema`; 400 with fields and sentences otherwise. */
export async function readBody<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  const value = await readJson(request);
  try {
    return parseInput(schema, value);
  } catch (e) {
    if (e instanceof CalcInputError) error(400, { message: e.message, issues: e.issues });
    throw e;
  }
}

/** Turns an optimistic-lock conflict into 409 with what is stored now. */
export async function orConflict<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (e) {
    if (e instanceof ConflictError) error(409, { message: e.message, stored: e.stored });
    throw e;
  }
}
