import { latestVersion } from '$lib/server/repositories/boardModels';
import { writeBoardJson } from '@orthos/formats';
import { error } from '@sveltejs/kit';

/** The newest version of a board model as a file. */
export const GET = async ({ locals, params }) => {
  const version = await latestVersion(locals.db, params.id);
  if (!version) error(404, 'There is no such board model.');
  const name = version.doc.name.replace(/[^\w-]+/g, '-').toLowerCase();
  return new Response(writeBoardJson(version.doc), {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="${name}-v${version.number}.board.json"`,
    },
  });
};
