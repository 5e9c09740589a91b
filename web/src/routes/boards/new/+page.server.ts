import { millimetres, readPosted } from '$lib/server/forms';
import { createBoardDraft } from '$lib/server/repositories/boardModels';
import { blankBoard } from '@orthos/core/board';
import { fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';

const schema = z.object({
  name: z.string().trim().min(1, 'What is it called?').max(120),
  field: z.string().trim().max(60),
  width: millimetres(5, 1500),
  height: millimetres(5, 1500),
  layers: z.coerce.number().int().min(1).max(16),
  thickness: millimetres(0.2, 6),
});

export const actions = {
  default: async ({ request, locals }) => {
    const { values, data, issues } = await readPosted(request, schema);
    if (!data) return fail(400, { values, issues });
    const { name, field, width, height, layers, thickness } = data;
    const id = await createBoardDraft(locals.db, {
      doc: blankBoard(name, width, height, layers, thickness),
      field,
      origin: 'traced',
    });
    redirect(303, `/boards/${id}/edit`);
  },
};
