import { readBody } from '$lib/server/body';
import { boardModelById, createBoardDraft } from '$lib/server/repositories/boardModels';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const body = z.strictObject({ id: z.uuidv7('an id of version 7'), name: z.string().trim().min(1).max(120) });

/** A new model that starts from this one's draft: a later revision of the same board. */
export const POST = async ({ locals, params, request }) => {
  const model = await boardModelById(locals.db, params.id);
  if (!model) error(404, { message: 'There is no such board model.' });
  const { id, name } = await readBody(request, body);
  await createBoardDraft(locals.db, {
    id,
    doc: { ...model.draft, name },
    field: model.field,
    origin: `copy of ${model.name}`.slice(0, 200),
  });
  return json({ id }, { status: 201 });
};
