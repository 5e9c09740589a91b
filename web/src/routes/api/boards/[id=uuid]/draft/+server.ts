import { orConflict, readBody } from '$lib/server/body';
import { boardModelById, saveDraft } from '$lib/server/repositories/boardModels';
import { boardModelSchema } from '@orthos/core';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const body = z.strictObject({ version: z.int(), doc: boardModelSchema });

/** Saves the draft that is being edited; 409 with what is stored when somebody else has saved since. */
export const PUT = async ({ locals, params, request }) => {
  if (!(await boardModelById(locals.db, params.id))) error(404, { message: 'There is no such board model.' });
  const { version, doc } = await readBody(request, body);
  return json({ version: await orConflict(saveDraft(locals.db, params.id, version, doc)) });
};
