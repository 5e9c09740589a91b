import { boardModelById, publishBoardModel } from '$lib/server/repositories/boardModels';
import { error, json } from '@sveltejs/kit';

/** Makes the draft a numbered version that never changes again. */
export const POST = async ({ locals, params }) => {
  if (!(await boardModelById(locals.db, params.id))) error(404, { message: 'There is no such board model.' });
  const { number } = await publishBoardModel(locals.db, params.id);
  return json({ number }, { status: 201 });
};
