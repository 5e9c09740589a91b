import { ticketById } from '$lib/server/repositories/tickets';
import { error } from '@sveltejs/kit';
import { encode } from 'uqr';

/** A ticket's label; its code opens the job. */
export const load = async ({ locals, params, url }) => {
  const found = await ticketById(locals.db, params.id);
  if (!found) error(404, 'There is no such job.');
  const { data, size } = encode(`${url.origin}/jobs/${params.id}`, { ecc: 'M', border: 2 });
  const squares = data.flatMap((row, y) => row.flatMap((dark, x) => (dark ? [`M${x} ${y}h1v1h-1z`] : [])));
  const { ticket, customer, serial } = found;
  return { ticket, customer: customer.name, serial, code: { size, path: squares.join('') } };
};
