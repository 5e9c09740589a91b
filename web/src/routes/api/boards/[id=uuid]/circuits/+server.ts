import { readBody } from '$lib/server/body';
import { boardModelById } from '$lib/server/repositories/boardModels';
import { addCircuit } from '$lib/server/repositories/circuits';
import { netlistSchema } from '@orthos/core/circuit';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const body = z.strictObject({
  id: z.uuidv7(),
  name: z.string().trim().min(1, 'give the circuit a name').max(80),
  netlist: netlistSchema,
});

/** Adds a circuit to a kind of board. */
export const POST = async ({ locals, params, request }) => {
  if (!(await boardModelById(locals.db, params.id))) error(404, { message: 'There is no such board model.' });
  const { id, name, netlist } = await readBody(request, body);
  await addCircuit(locals.db, { id, modelId: params.id, name, netlist });
  return json({ id });
};
