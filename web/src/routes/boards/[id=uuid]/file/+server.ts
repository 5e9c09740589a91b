import { boardModelById, latestVersion } from '$lib/server/repositories/boardModels';
import type { BoardModel } from '@orthos/core/board';
import { boardSvg, writeBoardJson, writePlacement } from '@orthos/formats';
import { error } from '@sveltejs/kit';

const KINDS: Record<string, { ending: string; type: string; write: (b: BoardModel) => string }> = {
  board: { ending: 'board.json', type: 'application/json', write: writeBoardJson },
  // never served as a document of this site: a drawing is downloaded
  top: { ending: 'top.svg', type: 'image/svg+xml', write: (b) => boardSvg(b, 'top') },
  bottom: { ending: 'bottom.svg', type: 'image/svg+xml', write: (b) => boardSvg(b, 'bottom') },
  placement: { ending: 'placement.csv', type: 'text/csv; charset=utf-8', write: writePlacement },
};

/** The newest version of a board model (its draft while there is none) as a file. */
export const GET = async ({ locals, params, url }) => {
  const as = url.searchParams.get('as') ?? 'board';
  const kind = Object.hasOwn(KINDS, as) ? KINDS[as] : undefined;
  if (!kind) error(400, `as is one of ${Object.keys(KINDS).join(', ')}.`);
  const [model, version] = await Promise.all([
    boardModelById(locals.db, params.id),
    latestVersion(locals.db, params.id),
  ]);
  if (!model) error(404, 'There is no such board model.');
  const doc = version?.doc ?? model.draft;
  const name = doc.name.replace(/[^\w-]+/g, '-').toLowerCase();
  return new Response(kind.write(doc), {
    headers: {
      'content-type': kind.type,
      'content-disposition': `attachment; filename="${name}-${version ? `v${version.number}` : 'draft'}.${kind.ending}"`,
    },
  });
};
