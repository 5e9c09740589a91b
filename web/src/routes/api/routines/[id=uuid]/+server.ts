import { orConflict, readBody } from '$lib/server/body';
import { removeRoutine, routineById, saveRoutine } from '$lib/server/repositories/routines';
import { routineBody } from '$lib/server/routineBody';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const body = routineBody.extend({ version: z.int32() });

/** Saves a routine; 409 with what is stored when somebody else has saved since. */
export const PUT = async ({ locals, params, request }) => {
  if (!(await routineById(locals.db, params.id))) error(404, { message: 'There is no such routine.' });
  const routine = await readBody(request, body);
  return json({ version: await orConflict(saveRoutine(locals.db, { ...routine, id: params.id })) });
};

export const DELETE = async ({ locals, params }) => {
  if (!(await routineById(locals.db, params.id))) error(404, { message: 'There is no such routine.' });
  await removeRoutine(locals.db, params.id);
  return json({});
};
