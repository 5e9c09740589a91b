/** What a plan says of parts round the target: what is planned for them, what they need. */
import type { JobView } from '$lib/jobs/view';
import { plannedCovers, TAKEN_OUT } from '@orthos/core/hands';

/** What the plan counts on being over each part, or that it is off the board. */
export const byPlanOf = (view: JobView): Map<string, string> =>
  new Map(plannedCovers(view.inputs?.settings.surroundings ?? {}).map(({ partId, how }) => [partId, how]));

/** What was computed for a part. */
export const computedFor = (view: JobView, partId: string) =>
  view.inUse?.result.neighbours.find((n) => n.partId === partId);

/** No method works with it there. */
export const mustGo = (view: JobView, partId: string): boolean => computedFor(view, partId)?.takeOut ?? false;

/** What has to be done about a part, in a few words. */
export function needOf(view: JobView, partId: string): string {
  const how = byPlanOf(view).get(partId);
  if (how) return how === TAKEN_OUT ? 'comes out, by the plan' : `${how}, by the plan`;
  return mustGo(view, partId) ? 'take it out first' : 'too hot for it: cover';
}

/** What an event about a part beside the target says it is for. */
export const aboutNeighbour = ({ ticket, inputs, inUse }: JobView) => ({
  boardId: ticket.boardId,
  ...(inputs ? { target: inputs.target } : {}),
  ...(inUse ? { methodId: inUse.method.id } : {}),
});
