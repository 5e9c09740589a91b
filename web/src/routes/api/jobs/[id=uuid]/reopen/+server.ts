import { reopenTicket, ticketById } from '$lib/server/repositories/tickets';
import { error, json } from '@sveltejs/kit';

/** Takes a closed job up again as a new ticket for the same board, linked both ways. */
export const POST = async ({ locals, params }) => {
  if (!(await ticketById(locals.db, params.id))) error(404, { message: 'There is no such job.' });
  const again = await reopenTicket(locals.db, params.id);
  if (!again) error(409, { message: 'This job is still open: go on with it.' });
  return json({ id: again.id }, { status: 201 });
};
