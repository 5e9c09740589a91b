import { readPhotoBody } from '$lib/server/photo';
import { addPhoto, photosOf } from '$lib/server/repositories/photos';
import { ticketById } from '$lib/server/repositories/tickets';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

/** Photos of one job. */
const MOST_PHOTOS = 200;

const query = z.object({
  id: z.uuidv7('an id of version 7'),
  taken: z.enum(['before', 'during', 'after'], 'before, during or after'),
  side: z.enum(['top', 'bottom'], 'top or bottom').optional(),
  caption: z.string().max(200).default(''),
});

/** Stores one JPEG, the body of the request; what it is of stands in the query. */
export const POST = async (event) => {
  const { locals, params, url } = event;
  const parsed = query.safeParse(Object.fromEntries(url.searchParams));
  if (!parsed.success) {
    const [{ path, message }] = parsed.error.issues;
    error(400, { message: `${path.join('.')}: ${message}` });
  }
  if (!(await ticketById(locals.db, params.id))) error(404, { message: 'There is no such job.' });
  if ((await photosOf(locals.db, params.id)).length >= MOST_PHOTOS)
    error(409, { message: `A job holds ${MOST_PHOTOS} photos at most.` });
  const stored = await addPhoto(locals.db, {
    ...parsed.data,
    side: parsed.data.side ?? null,
    ticketId: params.id,
    ...(await readPhotoBody(event)),
  });
  return json({ id: parsed.data.id, stored }, { status: 201 });
};
