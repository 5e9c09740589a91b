import { readBody } from '$lib/server/body';
import { donorOf, nameDonor, shelveDonor } from '$lib/server/jobs/donors';
import { orRefused } from '$lib/server/jobs/refused';
import { donorChoices } from '$lib/server/repositories/tickets';
import { json } from '@sveltejs/kit';
import { z } from 'zod';

/** The board that parts come from, null where none was named; and those that might. */
export const GET = ({ locals: { db }, params }) =>
  orRefused(async () => {
    const [donor, choices] = await Promise.all([donorOf(db, params.id), donorChoices(db, params.id)]);
    return json({ donor, choices });
  });

const namedSchema = z.union([
  z.strictObject({ from: z.uuid().nullable() }),
  /** A board without a job: it gets one. */
  z.strictObject({ shelf: z.strictObject({ serial: z.string().trim().max(80) }) }),
]);

/** Names the board that parts come from. */
export const PUT = ({ locals: { db }, params, request }) =>
  orRefused(async () => {
    const named = await readBody(request, namedSchema);
    if ('shelf' in named) return json({ id: await shelveDonor(db, params.id, named.shelf.serial) }, { status: 201 });
    await nameDonor(db, params.id, named.from);
    return json({ id: named.from });
  });
