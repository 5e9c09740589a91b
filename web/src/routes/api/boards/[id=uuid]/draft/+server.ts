import { orConflict, readBody } from '$lib/server/body';
import { boardModelById, saveDraft } from '$lib/server/repositories/boardModels';
import { boardModelSchema } from '@orthos/core/board';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const body = z.strictObject({ version: z.int32(), doc: boardModelSchema });

/** The draft as it is stored, with the version that an edit starts from. */
export const GET = async ({ locals, params }) => {
  const model = await boardModelById(locals.db, params.id);
  if (!model) error(404, { message: 'There is no such board model.' });
  return json({ version: model.version, doc: model.draft });
};

/** Saves the draft that is being edited; 409 with what is stored when somebody else has saved since. */
export const PUT = async ({ locals, params, request }) => {
  if (!(await boardModelById(locals.db, params.id))) error(404, { message: 'There is no such board model.' });
  const { version, doc } = await readBody(request, body);
  return json({ version: await orConflict(saveDraft(locals.db, params.id, version, doc)) });
};
