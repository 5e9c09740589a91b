import { readBody } from '$lib/server/body';
import { now } from '$lib/server/clock';
import { appendJudged } from '$lib/server/jobs/door';
import { orRefused } from '$lib/server/jobs/refused';
import { standingOf } from '$lib/server/jobs/standing';
import { ticketById } from '$lib/server/repositories/tickets';
import { EVENT_VERSION, jobEventSchema } from '@orthos/core/job';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

/** The last moment that a date can hold here, ms: the end of the year 9999. */
const LAST_MS = 253_402_300_799_999;

const bodySchema = z.strictObject({
  id: z.uuidv7(),
  /**
   * When it happened by the clock of the browser, UTC ms; now when left out. A clock may be wrong by any amount: it dates what it wrote, the order
   * is that of the log.
   */
  at: z.int().positive().max(LAST_MS).optional(),
  body: jobEventSchema,
});

/** The log of a job and how its gates stand. */
export const GET = async ({ locals, params }) => {
  const found = await ticketById(locals.db, params.id);
  if (!found) error(404, { message: 'There is no such job.' });
  const { log, gates } = await standingOf(locals.db, found);
  return json({ events: log.events, gates });
};

/** Appends one event to a job's log; the same again changes nothing. Answers with gates and step. */
export const POST = async ({ locals, params, request }) => {
  const { id, at, body } = await readBody(request, bodySchema);
  const time = now();
  const event = { id, at: at ?? time.getTime(), actor: 'unsigned', v: EVENT_VERSION, body };
  return orRefused(async () => json(await appendJudged(locals.db, params.id, event, time), { status: 201 }));
};
