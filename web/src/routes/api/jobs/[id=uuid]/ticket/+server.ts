import { orConflict, readBody } from '$lib/server/body';
import { calendarDate } from '$lib/server/forms';
import { saveTicket, ticketById } from '$lib/server/repositories/tickets';
import { JOB_TYPE_IDS } from '@orthos/core/job';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const body = z.strictObject({
  version: z.int32(),
  kind: z.enum(JOB_TYPE_IDS),
  device: z.string().trim().min(1, 'What is it?').max(200),
  complaint: z.string().trim().min(1, "The complaint, in the owner's words").max(2000),
  inBox: z.string().trim().max(500),
  waitsFor: z.string().trim().max(200),
  promisedOn: calendarDate('a date from 2000 on').nullable(),
});

/** Changes the ticket of an open job; 409 when somebody else has since, or when it is released. */
export const PUT = async ({ locals, params, request }) => {
  const found = await ticketById(locals.db, params.id);
  if (!found) error(404, { message: 'There is no such job.' });
  const { version, ...change } = await readBody(request, body);
  if (found.ticket.closedAt) error(409, { message: 'This job is released. Reopen it to go on.' });
  if ((change.kind === 'express') !== (found.ticket.kind === 'express'))
    error(400, { message: 'kind: an express job stays one; take in a new job for a board model.' });
  return json({ version: await orConflict(saveTicket(locals.db, params.id, version, change)) });
};
