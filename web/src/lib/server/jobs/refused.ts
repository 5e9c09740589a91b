/** Refusals of the door as answers: a sentence, and the field where what was sent is wrong. */
import { error } from '@sveltejs/kit';
import { EventRefused } from './door.ts';

export async function orRefused<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (e) {
    if (!(e instanceof EventRefused)) throw e;
    error(e.status, { message: e.message, ...(e.field ? { issues: [{ field: e.field, message: e.message }] } : {}) });
  }
}
