import { boardModelById, latestVersion, versionsOf } from '$lib/server/repositories/boardModels';
import { contentHash } from '@orthos/core/ground';
import { error } from '@sveltejs/kit';

export const load = async ({ locals, params }) => {
  const [model, version, versions] = await Promise.all([
    boardModelById(locals.db, params.id),
    latestVersion(locals.db, params.id),
    versionsOf(locals.db, params.id),
  ]);
  if (!model) error(404, 'There is no such board model.');
  return {
    model: { id: model.id, name: model.name, field: model.field, origin: model.origin },
    version: version?.number ?? null,
    versions,
    /** The draft has gone on since the newest version. */
    changed: version !== undefined && contentHash(model.draft) !== version.hash,
    board: version?.doc ?? model.draft,
  };
};
