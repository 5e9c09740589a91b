import { photoFolder } from '$lib/server/photoFolder';
import { shownSettings } from '$lib/server/repositories/settings';
import { error } from '@sveltejs/kit';

/** A picture of the shop's folder, as it lies there: the job's page makes it smaller and gives it back to be stored. */
export const GET = async ({ locals, params }) => {
  const { photoFolder: path } = await shownSettings(locals.db);
  const bytes = path ? await photoFolder(path).read(params.name) : null;
  if (!bytes) error(404, { message: 'No such picture has arrived.' });
  return new Response(new Uint8Array(bytes), {
    headers: {
      ...{ 'content-type': 'application/octet-stream', 'cache-control': 'no-store' },
      ...{ 'content-disposition': 'attachment', 'x-content-type-options': 'nosniff' },
    },
  });
};
