import { createTicket, ticketById } from '$lib/server/repositories/tickets';
import { error, json } from '@sveltejs/kit';

/** Takes a closed job up again as a new ticket for the same board, linked both ways. */
export const POST = async ({ locals, params }) => {
  const found = await ticketById(locals.db, params.id);
  if (!found) error(404, { message: 'There is no such job.' });
  const { ticket, customer, modelId } = found;
  if (!ticket.closedAt) error(409, { message: 'This job is still open: go on with it.' });
  const { id } = await createTicket(locals.db, {
    kind: ticket.kind === 'fit-only' ? 'repair' : ticket.kind,
    customer: customer.name,
    device: ticket.device,
    complaint: `Came back: ${ticket.complaint}`.slice(0, 2000),
    modelId,
    boardVersionId: ticket.boardVersionId,
    reopens: { id: ticket.id, boardId: ticket.boardId },
  });
  return json({ id }, { status: 201 });
};
