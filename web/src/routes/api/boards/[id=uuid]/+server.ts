import { discardDraft } from '$lib/server/repositories/boardModels';
import { error, json } from '@sveltejs/kit';

/** Throws a draft away that was never published. Versions stay: jobs and plans stand on them. */
export const DELETE = async ({ locals, params }) => {
  if (!(await discardDraft(locals.db, params.id)))
    error(409, { message: 'Only a draft that was never published can be thrown away.' });
  return json({ id: params.id });
};
