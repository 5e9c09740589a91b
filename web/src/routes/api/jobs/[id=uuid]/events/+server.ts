import { readBody } from '$lib/server/body';
import { now } from '$lib/server/clock';
import { jobView, type JobView } from '$lib/server/jobView';
import { appendEvents } from '$lib/server/repositories/jobEvents';
import { closeTicket } from '$lib/server/repositories/tickets';
import { blocks, currentAttempt, foldJob, jobEventSchema, type JobEventBody } from '@orthos/core';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

/** A browser's clock may run ahead by this much, ms. */
const AHEAD_MS = 5 * 60_000;

/** What the hands did before the release may arrive after it. */
const LATE = new Set<JobEventBody['type']>([
  'run-begun',
  'mark',
  'mark-moved',
  'run-ended',
  'joint',
  'slip',
  'slip-checked',
  'surroundings-scanned',
  'lands-clean',
  'withdrawn',
  'handed-over',
]);

const bodySchema = z.strictObject({
  id: z.uuidv7(),
  /** When it happened, UTC ms, for marks made while the server was away; now when left out. */
  at: z.int().positive().optional(),
  body: jobEventSchema,
});

/** Appends one event to a job's log; the same id again changes nothing. Answers with gates and step. */
export const POST = async ({ locals, params, request }) => {
  const { id, at, body } = await readBody(request, bodySchema);
  const time = now().getTime();
  if (at !== undefined && at > time + AHEAD_MS) refuse({ field: 'at', message: 'lies in the future' });
  const before = await jobView(locals.db, params.id);
  // sent twice: what it says was judged when it came first
  if (!before.events.some((e) => e.id === id)) {
    if (before.ticket.closedAt && !LATE.has(body.type))
      error(409, { message: 'This job is released. Reopen it to go on.' });
    const missing = missingReference(body, before);
    if (missing) refuse(missing);
    const gate = blockedBy(body, before);
    if (gate) error(409, { message: `${gate.label}: ${gate.why}.` });
    await appendEvents(locals.db, params.id, [{ id, at: at ?? time, actor: 'unsigned', v: 1, body }]);
    if (body.type === 'released') await closeTicket(locals.db, params.id, now());
  }
  const { gates, step } = await jobView(locals.db, params.id);
  return json({ gates, step }, { status: 201 });
};

interface Issue {
  field: string;
  message: string;
}

function refuse(issue: Issue): never {
  error(400, { message: `${issue.field}: ${issue.message}`, issues: [issue] });
}

/**
 * The hard gate that an event would pass unmet. A run that was begun while the server was away has happened: it is
 * taken as it is.
 */
function blockedBy(body: JobEventBody, view: JobView) {
  const needs: string[] = [];
  if (body.type === 'run-begun' && !body.offline) {
    needs.push('power-gone');
    if (body.op === 'fit') needs.push('orientation');
  }
  const worked = currentAttempt(foldJob(view.events)).runs.length > 0;
  if ((body.type === 'power-connected' || body.type === 'supply-stage') && worked) needs.push('short-check');
  return view.gates.find((g) => needs.includes(g.id) && blocks(g));
}

/** The field of an event that names something this job does not have. */
function missingReference(body: JobEventBody, view: JobView): Issue | undefined {
  const noPart = (partId: string | undefined, field: string) =>
    partId !== undefined && !view.board.parts.some((p) => p.partId === partId)
      ? { field, message: `the board has no part "${partId}"` }
      : undefined;
  const noEvent = (eventId: string, field: string) =>
    view.events.some((e) => e.id === eventId) ? undefined : { field, message: 'is not an event of this job' };
  const noRun = (runId: string | undefined) =>
    runId === undefined || view.events.some(({ body: b }) => b.type === 'run-begun' && b.runId === runId)
      ? undefined
      : { field: 'body.runId', message: 'is not a run of this job' };
  switch (body.type) {
    case 'suspect':
    case 'neighbour-covered':
    case 'neighbour-accepted':
    case 'swapped':
      return noPart(body.partId, 'body.partId');
    case 'reading':
    case 'observation':
    case 'damage':
      return noPart(body.place?.partId, 'body.place.partId');
    case 'plan':
      if (view.plan?.id !== body.planId)
        return { field: 'body.planId', message: 'is not the plan computed last for this target' };
      return Object.hasOwn(view.plan.results, body.label)
        ? undefined
        : { field: 'body.label', message: `the plan has ${Object.keys(view.plan.results).join(', ')}` };
    case 'power-gone':
    case 'power-connected':
      return [...view.board.powerSources, ...foldJob(view.events).sources].some((s) => s.id === body.sourceId)
        ? undefined
        : { field: 'body.sourceId', message: `the board has no source "${body.sourceId}"` };
    case 'target-confirmed': {
      const known = new Set([...view.board.landmarks.map((l) => l.id), ...view.board.parts.map((p) => p.partId)]);
      const strange = body.landmarks.find((l) => !known.has(l));
      return strange === undefined
        ? undefined
        : { field: 'body.landmarks', message: `the board has no landmark "${strange}"` };
    }
    case 'mark':
    case 'run-ended':
    case 'joint':
    case 'slip':
      return noRun(body.runId);
    case 'slip-checked':
      return noEvent(body.slipId, 'body.slipId');
    case 'closed-again':
      return noEvent(body.stepId, 'body.stepId');
    case 'offer-taken':
      return foldJob(view.events).intake.offer?.tiers.some((t) => t.label === body.tier)
        ? undefined
        : { field: 'body.tier', message: 'is not on the last offer' };
    case 'routine-step':
      return view.routines.some((r) => r.id === body.routineId && r.steps.some((s) => s.id === body.step))
        ? undefined
        : { field: 'body.routineId', message: 'this kind of board has no such routine step' };
    case 'mark-moved':
    case 'withdrawn':
      return noEvent(body.eventId, 'body.eventId');
    case 'override':
      return view.gates.some((g) => g.id === body.gate && g.hard)
        ? undefined
        : { field: 'body.gate', message: 'is not a hard gate' };
    default:
      return undefined;
  }
}
