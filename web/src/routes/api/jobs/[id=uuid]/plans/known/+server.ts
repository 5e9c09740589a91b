import { readBody } from '$lib/server/body';
import { standingOf } from '$lib/server/jobs/standing';
import { ticketById } from '$lib/server/repositories/tickets';
import { PLAN_VERSION, storeKnownPlan } from '$lib/server/repositories/plans';
import { ENGINE_VERSION } from '@orthos/core/thermal';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const bodySchema = z.strictObject({ id: z.uuidv7() });

/** Takes over what was computed before from the very same inputs, for this job or another: 201 with it, 204 when nothing was. */
export const POST = async ({ locals, params, request }) => {
  const { id } = await readBody(request, bodySchema);
  const found = await ticketById(locals.db, params.id);
  if (!found) error(404, { message: 'There is no such job.' });
  const { inputs } = await standingOf(locals.db, found);
  if (!inputs) error(409, { message: 'This job has no target to plan for.' });
  const stored = await storeKnownPlan(locals.db, {
    id,
    ticketId: params.id,
    v: PLAN_VERSION,
    target: inputs.target,
    inputHash: inputs.hash,
    engineVersion: ENGINE_VERSION,
    kit: inputs.kit,
  });
  return stored ? json({ id }, { status: 201 }) : new Response(null, { status: 204 });
};
