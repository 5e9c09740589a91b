import { foldJob, type JobEvent, type JobState } from '@orthos/core/job';

const folded = new WeakMap<readonly JobEvent[], JobState>();

/** A log folded, once however many ask: a list of events that was handed out is never changed. */
export function stateOf(events: readonly JobEvent[]): JobState {
  const known = folded.get(events);
  if (known) return known;
  const state = foldJob(events);
  folded.set(events, state);
  return state;
}
