import { readBody } from '$lib/server/body';
import { boardModelById } from '$lib/server/repositories/boardModels';
import { addRoutine } from '$lib/server/repositories/routines';
import { routineBody } from '$lib/server/routineBody';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const body = routineBody.extend({ id: z.uuidv7() });

/** Adds a test routine; the same id again changes nothing. */
export const POST = async ({ locals, request }) => {
  const routine = await readBody(request, body);
  for (const id of routine.modelIds)
    if (!(await boardModelById(locals.db, id))) error(400, { message: 'modelIds: there is no such board model.' });
  await addRoutine(locals.db, routine);
  return json({ id: routine.id }, { status: 201 });
};
