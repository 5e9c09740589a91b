import { listTickets } from '$lib/server/repositories/tickets';
import { json } from '@sveltejs/kit';

/** Open jobs that match, for the command palette. */
export const GET = async ({ locals, url }) => {
  const search = (url.searchParams.get('q') ?? '').slice(0, 100);
  const { rows } = await listTickets(locals.db, { search });
  return json(
    rows
      .slice(0, 20)
      .map(({ id, number, device, customer, complaint }) => ({ id, number, device, customer, complaint })),
  );
};
