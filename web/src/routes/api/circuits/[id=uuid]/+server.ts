import { orConflict, readBody } from '$lib/server/body';
import { circuitById, removeCircuit, saveCircuit } from '$lib/server/repositories/circuits';
import { netlistSchema } from '@orthos/core/circuit';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const body = z.strictObject({
  version: z.int32(),
  name: z.string().trim().min(1, 'give the circuit a name').max(80),
  netlist: netlistSchema,
});

/** Saves a circuit; 409 with what is stored when somebody else has saved since. */
export const PUT = async ({ locals, params, request }) => {
  if (!(await circuitById(locals.db, params.id))) error(404, { message: 'There is no such circuit.' });
  const { version, ...circuit } = await readBody(request, body);
  return json({ version: await orConflict(saveCircuit(locals.db, params.id, version, circuit)) });
};

export const DELETE = async ({ locals, params }) => {
  if (!(await circuitById(locals.db, params.id))) error(404, { message: 'There is no such circuit.' });
  await removeCircuit(locals.db, params.id);
  return json({});
};
