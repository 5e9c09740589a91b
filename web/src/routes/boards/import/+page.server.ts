import { boardModelById } from '$lib/server/repositories/boardModels';
import { error } from '@sveltejs/kit';
import { z } from 'zod';

/** `into` in the address: the board that the file is of. */
export const load = async ({ locals, url }) => {
  const id = url.searchParams.get('into');
  if (id === null) return {};
  const model = z.uuid().safeParse(id).success ? await boardModelById(locals.db, id) : undefined;
  if (!model) error(404, 'There is no such board model.');
  return { into: { id: model.id, name: model.name } };
};
