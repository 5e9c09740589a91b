import { readBody } from '$lib/server/body';
import { standingOf } from '$lib/server/jobs/standing';
import { ticketById } from '$lib/server/repositories/tickets';
import { PLAN_VERSION, storePlan } from '$lib/server/repositories/plans';
import { plannedSchema } from '@orthos/core/compare';
import { ENGINE_VERSION } from '@orthos/core/thermal';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const bodySchema = z.strictObject({
  id: z.uuidv7(),
  inputHash: z.string().length(64),
  engineVersion: z.int32().positive(),
  /** False: computing goes on, and what is whole comes after it. */
  whole: z.boolean().default(true),
  results: z.record(z.string().max(60), plannedSchema.omit({ frames: true })),
});

/** Stores a plan the browser has computed, if its inputs are still those of the database. */
export const POST = async ({ locals, params, request }) => {
  const plan = await readBody(request, bodySchema);
  const found = await ticketById(locals.db, params.id);
  if (!found) error(404, { message: 'There is no such job.' });
  const { inputs } = await standingOf(locals.db, found);
  if (!inputs) error(409, { message: 'This job has no target to plan for.' });
  if (inputs.hash !== plan.inputHash || plan.engineVersion !== ENGINE_VERSION)
    error(409, { message: 'The inputs changed while the plan was computed: compute it again.' });
  const ids = inputs.methods.filter((m) => !m.unfit).map((m) => m.method.id);
  const strange = Object.keys(plan.results).find((id) => !ids.includes(id));
  if (strange !== undefined || Object.keys(plan.results).length === 0)
    error(400, { message: `results: name the methods ${ids.join(', ')}` });
  await storePlan(locals.db, {
    id: plan.id,
    ticketId: params.id,
    v: PLAN_VERSION,
    target: inputs.target,
    inputHash: plan.inputHash,
    engineVersion: plan.engineVersion,
    kit: inputs.kit,
    methods: inputs.settings.methods,
    results: plan.results,
    whole: plan.whole,
  });
  return json({ id: plan.id }, { status: 201 });
};
