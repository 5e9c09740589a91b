import { boardModelById, versionByNumber, versionsOf } from '$lib/server/repositories/boardModels';
import { compareBoards } from '@orthos/core/board';
import { error } from '@sveltejs/kit';

export const load = async ({ locals, params, url }) => {
  const model = await boardModelById(locals.db, params.id);
  if (!model) error(404, 'There is no such board model.');
  const side = async (name: string) => {
    const said = url.searchParams.get(name) ?? 'draft';
    if (said === 'draft') return { said, doc: model.draft };
    if (!/^\d{1,6}$/.test(said)) error(400, `${name} is a version's number, or draft.`);
    const version = await versionByNumber(locals.db, params.id, Number(said));
    if (!version) error(404, `There is no version ${said} of this board.`);
    return { said, doc: version.doc };
  };
  const [from, to] = [await side('from'), await side('to')];
  return {
    model: { id: model.id, name: model.name },
    from: from.said,
    to: to.said,
    versions: (await versionsOf(locals.db, params.id)).map((v) => v.number),
    changes: compareBoards(from.doc, to.doc),
    board: to.doc,
    before: from.doc,
  };
};
