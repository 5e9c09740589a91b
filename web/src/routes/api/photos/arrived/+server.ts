import { photoFolder } from '$lib/server/photoFolder';
import { knownPhotos } from '$lib/server/repositories/photos';
import { shownSettings } from '$lib/server/repositories/settings';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const query = z.object({ since: z.coerce.number().min(0).max(1e15).optional() });

/** Pictures that came into the shop's folder since a moment of this server's clock, and are in no job yet. */
export const GET = async ({ locals, url }) => {
  const { photoFolder: path } = await shownSettings(locals.db);
  if (!path) error(404, { message: 'This shop has no folder for photos.' });
  const parsed = query.safeParse(Object.fromEntries(url.searchParams));
  if (!parsed.success) error(400, { message: 'since: milliseconds' });
  const now = Date.now();
  const arrived = await photoFolder(path)
    .arrivedSince(parsed.data.since ?? now, now)
    .catch(() => error(409, { message: 'The folder for photos cannot be read.' }));
  const known = await knownPhotos(
    locals.db,
    arrived.map((p) => p.id),
  );
  return json({ now, photos: arrived.filter((p) => !known.has(p.id)) });
};
