/** A job as its pages see it, at the part of a set that hands are at now: also where the server has not told of that part yet. */
import { stateOf } from '$lib/jobs/stateOf';
import type { JobView } from '$lib/jobs/view';
import { currentAttempt, isFreshOrder, type JobState, legAt, orderFor, type SetLeg } from '@orthos/core/job';
import type { Method, Operation } from '@orthos/core/rework';

/** What is known of the whole bench stays; what was computed for another part goes. */
export function atPart(view: JobView, state: JobState): JobView {
  const partId = currentAttempt(state).ofSet;
  const { inputs } = view;
  if (partId === undefined || !inputs || inputs.target === partId) return view;
  return {
    ...view,
    ...{ plan: null, inUse: null, freshness: null, layOut: null },
    inputs: { ...inputs, target: partId, methods: [], fits: [], fitBy: null, edited: [], free: {} },
  };
}

/** Whether bench, board or surroundings changed since the order of the set was computed. */
export function isVoid(view: JobView, op: Operation): boolean {
  const order = orderFor(stateOf(view.events), op);
  return order !== undefined && !isFreshOrder(order, view.inputs?.setHash);
}

/** What the order of the set says of the part that hands are at. */
export function legOf(view: JobView, op: Operation): SetLeg | undefined {
  const state = stateOf(view.events);
  const leg = legAt(state, currentAttempt(state).ofSet, op);
  // seconds that were computed for another bench say nothing of this one
  return leg && (isVoid(view, op) ? { ...leg, guide: null } : leg);
}

/** The way that the order was computed for. */
export function wayOf(view: JobView, op: Operation): Method | undefined {
  const leg = legOf(view, op);
  return leg?.phases && leg.methodId ? { id: leg.methodId, phases: leg.phases } : undefined;
}
