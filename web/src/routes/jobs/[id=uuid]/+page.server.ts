import { redirect } from '@sveltejs/kit';

/** A job opens at the step it stands at; a new one at its intake, a closed one at its end. */
export const load = async ({ parent, params }) => {
  const { view } = await parent();
  const step = view.ticket.closedAt ? 'release' : view.events.length === 0 ? 'intake' : view.step;
  redirect(307, `/jobs/${params.id}/${step}`);
};
