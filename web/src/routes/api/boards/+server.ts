import { readBody } from '$lib/server/body';
import { createBoardDraft, createBoardModel } from '$lib/server/repositories/boardModels';
import { drawingGzip } from '$lib/server/repositories/boardDrawings';
import { boardModelSchema, looseEnds } from '@orthos/core/board';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const body = z.strictObject({
  id: z.uuidv7('an id of version 7'),
  doc: boardModelSchema,
  field: z.string().max(60).default(''),
  origin: z.string().max(200).default(''),
  /** Publish version 1 at once (an accepted import), or leave it a draft (a tracing begun). */
  publish: z.boolean().default(false),
});

/** Makes a board model; its copper drawing has to be there before it. */
export const POST = async ({ locals, request }) => {
  const { publish, ...model } = await readBody(request, body);
  if (model.doc.drawing && !(await drawingGzip(locals.db, model.doc.drawing)))
    error(409, { message: 'The copper drawing of this board has not been stored yet.' });
  const [loose] = looseEnds(model.doc);
  if (loose) error(400, { message: `doc: ${loose}`, issues: [{ field: 'doc', message: loose }] });
  if (publish) await createBoardModel(locals.db, model);
  else await createBoardDraft(locals.db, model);
  return json({ id: model.id }, { status: 201 });
};
