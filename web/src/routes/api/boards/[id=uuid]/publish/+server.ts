import { boardModelById, publishBoardModel } from '$lib/server/repositories/boardModels';
import { looseEnds } from '@orthos/core/board';
import { error, json } from '@sveltejs/kit';

/** Makes the draft a numbered version that never changes again. */
export const POST = async ({ locals, params }) => {
  const model = await boardModelById(locals.db, params.id);
  if (!model) error(404, { message: 'There is no such board model.' });
  const loose = looseEnds(model.draft);
  if (loose.length > 0)
    error(409, { message: `${loose[0]}${loose.length > 1 ? `, and ${loose.length - 1} more like it` : ''}.` });
  const { number } = await publishBoardModel(locals.db, params.id);
  return json({ number }, { status: 201 });
};
