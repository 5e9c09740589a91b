import { boardModelById, latestVersion } from '$lib/server/repositories/boardModels';
import { listOwnPackages } from '$lib/server/repositories/ownPackages';
import { error } from '@sveltejs/kit';

export const load = async ({ locals, params }) => {
  const [model, version, own] = await Promise.all([
    boardModelById(locals.db, params.id),
    latestVersion(locals.db, params.id),
    listOwnPackages(locals.db),
  ]);
  if (!model) error(404, 'There is no such board model.');
  return {
    model: { id: model.id, version: model.version, draft: model.draft, published: version?.number ?? null },
    own,
  };
};
