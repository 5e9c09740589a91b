import { CalcInputError, parseInput } from '@orthos/core';
import { error } from '@sveltejs/kit';
import type { z } from 'zod';
import { ConflictError } from './repositories/conflict';

/** A JSON body that fits `schema`; 400 with fields and sentences otherwise. */
export async function readBody<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  let value: unknown;
  try {
    value = await request.json();
  } catch {
    error(400, { message: 'The body is not JSON.' });
  }
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
