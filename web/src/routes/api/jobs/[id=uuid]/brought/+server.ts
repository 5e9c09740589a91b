import { readBody } from '$lib/server/body';
import { bring, leaveThere } from '$lib/server/jobs/donors';
import { orRefused } from '$lib/server/jobs/refused';
import { z } from 'zod';

const partId = z.string().min(1).max(60);
const MOST = 60;
const broughtSchema = z.strictObject({
  from: z.uuid(),
  items: z
    .array(z.strictObject({ partId, from: partId, place: z.literal(true).optional() }))
    .min(1)
    .max(MOST),
  owed: z.strictObject({ until: z.iso.date().optional() }).optional(),
});

/** Brings parts over from another board: both sets list them, or neither. */
export const POST = ({ locals, params, request }) =>
  orRefused(async () => {
    await bring(locals.db, params.id, await readBody(request, broughtSchema));
    return new Response(null, { status: 204 });
  });

/** They stay where they are. */
export const DELETE = ({ locals, params, request }) =>
  orRefused(async () => {
    const { partIds } = await readBody(request, z.strictObject({ partIds: z.array(partId).min(1).max(MOST) }));
    await leaveThere(locals.db, params.id, partIds);
    return new Response(null, { status: 204 });
  });
