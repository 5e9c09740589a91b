import { redirect } from '@sveltejs/kit';

/** A job opens at the step it stands at, a closed one at its end. */
export const load = async ({ parent, params, url }) => {
  const { view } = await parent();
  const step = view.ticket.closedAt ? 'release' : view.step;
  redirect(307, `/jobs/${params.id}/${step}${url.search}`);
};
