import { readBody } from '$lib/server/body';
import { boardModelById } from '$lib/server/repositories/boardModels';
import { addGoodStartUp } from '$lib/server/repositories/goodStartUps';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const body = z.strictObject({
  id: z.uuidv7(),
  unit: z.string().trim().min(1, 'say which unit it was').max(80),
  stages: z
    .array(
      z.strictObject({
        stage: z.string().trim().min(1).max(80),
        at_s: z.number().min(0).max(86_400),
        current_A: z.number().min(0).max(1000),
        limit_A: z.number().positive().max(1000),
      }),
    )
    .min(1)
    .max(100),
});

/** Keeps what a good unit draws while it starts. */
export const POST = async ({ locals, params, request }) => {
  if (!(await boardModelById(locals.db, params.id))) error(404, { message: 'There is no such board model.' });
  const startUp = await readBody(request, body);
  await addGoodStartUp(locals.db, params.id, startUp);
  return json({ id: startUp.id }, { status: 201 });
};
