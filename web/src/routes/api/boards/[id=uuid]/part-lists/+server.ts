import { readBody } from '$lib/server/body';
import { boardModelById } from '$lib/server/repositories/boardModels';
import { forgetPartList, keepPartList, partListsOf } from '$lib/server/repositories/partLists';
import { setItemSchema } from '@orthos/core/job';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const body = z.strictObject({
  id: z.uuidv7(),
  name: z.string().trim().min(1, 'say what it is called').max(80),
  items: z.array(setItemSchema).min(1).max(60),
});

/** Lists of parts that are kept for this kind of board. */
export const GET = async ({ locals, params }) => json(await partListsOf(locals.db, params.id));

/** Keeps one; what was kept under its name before is replaced. */
export const POST = async ({ locals, params, request }) => {
  if (!(await boardModelById(locals.db, params.id))) error(404, { message: 'There is no such board model.' });
  const list = await readBody(request, body);
  await keepPartList(locals.db, params.id, list);
  return json({ name: list.name }, { status: 201 });
};

/** Forgets the list that `list` names. */
export const DELETE = async ({ locals, params, url }) => {
  const id = z.uuid().safeParse(url.searchParams.get('list'));
  if (!id.success || !(await forgetPartList(locals.db, params.id, id.data)))
    error(404, { message: 'There is no such list.' });
  return new Response(null, { status: 204 });
};
