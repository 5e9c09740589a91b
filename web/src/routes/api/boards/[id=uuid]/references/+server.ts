import { readBody } from '$lib/server/body';
import { boardModelById } from '$lib/server/repositories/boardModels';
import { addGoodReadings } from '$lib/server/repositories/goodReadings';
import { METER_TYPES } from '@orthos/core/circuit';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const net = z.string().max(80);
const body = z.strictObject({
  readings: z
    .array(
      z.strictObject({
        id: z.uuidv7(),
        unit: z.string().trim().min(1, 'say which board it was').max(80),
        type: z.enum(METER_TYPES),
        red: net,
        black: net,
        state: net,
        value: z.union([z.number(), z.literal('OL')]),
      }),
    )
    .min(1)
    .max(1000),
});

/** Adds what a good board reads. */
export const POST = async ({ locals, params, request }) => {
  if (!(await boardModelById(locals.db, params.id))) error(404, { message: 'There is no such board model.' });
  const { readings } = await readBody(request, body);
  await addGoodReadings(locals.db, params.id, readings);
  return json({ stored: readings.length });
};
