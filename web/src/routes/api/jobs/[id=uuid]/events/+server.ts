import { readBody } from '$lib/server/body';
import { now } from '$lib/server/clock';
import { jobView } from '$lib/server/jobView';
import { appendEvents } from '$lib/server/repositories/jobEvents';
import { jobEventSchema, type JobEventBody } from '@orthos/core';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const bodySchema = z.strictObject({ id: z.uuidv7(), body: jobEventSchema });

/** Appends one event to a job's log; the same id again changes nothing. Answers with gates and step. */
export const POST = async ({ locals, params, request }) => {
  const { id, body } = await readBody(request, bodySchema);
  const before = await jobView(locals.db, params.id);
  const missing = missingReference(body, before);
  if (missing) error(400, { message: missing.message, issues: [missing] });
  await appendEvents(locals.db, params.id, [{ id, at: now().getTime(), actor: 'unsigned', v: 1, body }]);
  const { gates, step } = await jobView(locals.db, params.id);
  return json({ gates, step }, { status: 201 });
};

/** The field of an event that names something this job does not have. */
function missingReference(body: JobEventBody, view: Awaited<ReturnType<typeof jobView>>) {
  const noPart = (partId: string | undefined, field: string) =>
    partId !== undefined && !view.board.parts.some((p) => p.partId === partId)
      ? { field, message: `the board has no part "${partId}"` }
      : undefined;
  switch (body.type) {
    case 'suspect':
    case 'neighbour-covered':
      return noPart(body.partId, 'body.partId');
    case 'reading':
    case 'observation':
      return noPart(body.place?.partId, 'body.place.partId');
    case 'plan':
      if (view.plan?.id !== body.planId)
        return { field: 'body.planId', message: 'is not the plan computed last for this target' };
      return Object.hasOwn(view.plan.results, body.label)
        ? undefined
        : { field: 'body.label', message: `the plan has ${Object.keys(view.plan.results).join(', ')}` };
    case 'power-gone':
    case 'power-connected':
      return view.board.powerSources.some((s) => s.id === body.sourceId)
        ? undefined
        : { field: 'body.sourceId', message: `the board has no source "${body.sourceId}"` };
    case 'withdrawn':
      return view.events.some((e) => e.id === body.eventId)
        ? undefined
        : { field: 'body.eventId', message: 'is not an event of this job' };
    default:
      return undefined;
  }
}
