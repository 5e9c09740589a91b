import { readPhotoBody } from '$lib/server/photo';
import { boardModelById } from '$lib/server/repositories/boardModels';
import { addPhoto } from '$lib/server/repositories/photos';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const query = z.object({ id: z.uuidv7('an id of version 7'), side: z.enum(['top', 'bottom'], 'top or bottom') });

/** Stores one JPEG to be traced from, the body of the request. Versions refer to it, so it is never taken out. */
export const POST = async (event) => {
  const { locals, params, url } = event;
  const parsed = query.safeParse(Object.fromEntries(url.searchParams));
  if (!parsed.success) {
    const [{ path, message }] = parsed.error.issues;
    error(400, { message: `${path.join('.')}: ${message}` });
  }
  if (!(await boardModelById(locals.db, params.id))) error(404, { message: 'There is no such board model.' });
  const photo = await readPhotoBody(event);
  await addPhoto(locals.db, { ...parsed.data, modelId: params.id, ...photo });
  return json({ id: parsed.data.id, w_px: photo.width, h_px: photo.height }, { status: 201 });
};
