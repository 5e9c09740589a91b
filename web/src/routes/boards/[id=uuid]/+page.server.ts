import { boardModelById, latestVersion } from '$lib/server/repositories/boardModels';
import { error } from '@sveltejs/kit';

export const load = async ({ locals, params }) => {
  const [model, version] = await Promise.all([
    boardModelById(locals.db, params.id),
    latestVersion(locals.db, params.id),
  ]);
  if (!model || !version) error(404, 'There is no such board model.');
  return { model: { id: model.id, name: model.name, field: model.field }, version: version.number, board: version.doc };
};
