import { pictureOf, removePhoto } from '$lib/server/repositories/photos';
import { error, json } from '@sveltejs/kit';

export const GET = async ({ locals, params, url }) => {
  const data = await pictureOf(locals.db, params.id, url.searchParams.has('small') ? 'thumbnail' : 'image');
  if (!data) error(404, { message: 'There is no such photo.' });
  return new Response(new Uint8Array(data), {
    headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable' },
  });
};

export const DELETE = async ({ locals, params }) => {
  if (!(await removePhoto(locals.db, params.id))) error(404, { message: 'There is no such photo.' });
  return json({ id: params.id });
};
