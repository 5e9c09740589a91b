import { redirect } from '@sveltejs/kit';

/** A job opens at the step it stands at; later steps are seen, not yet worked, so no further than the plan. */
export const load = async ({ parent, params }) => {
  const { view } = await parent();
  const step = view.ticket.closedAt
    ? 'release'
    : ['intake', 'diagnose'].includes(view.step) && view.events.length > 0
      ? 'diagnose'
      : view.step;
  redirect(307, `/jobs/${params.id}/${step}`);
};
