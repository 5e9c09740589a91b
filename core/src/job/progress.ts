/** Where a job stands and how long it was on the bench, from its log alone: the same for the list of jobs and for the job itself. */
import type { JobEvent } from './events.ts';
import { COMPLAINT, STEPS, type Step } from './gates.ts';
import { JOB_TYPES, type JobType } from './jobTypes.ts';
import { currentAttempt, isFitted, isOff, type JobState } from './jobState.ts';

/** The step that comes next, by what was done; steps that its kind has no use for are passed over. */
export function standsAt(state: JobState, type: JobType): Step {
  const { skips } = JOB_TYPES[type];
  const reached = STEPS.indexOf(reachedBy(state, type));
  return STEPS.slice(reached).find((s) => !skips.includes(s)) ?? 'release';
}

function reachedBy(state: JobState, type: JobType): Step {
  const a = currentAttempt(state);
  if (state.released) return 'release';
  if (isFitted(a)) return (state.functions.get(COMPLAINT)?.after ?? 'not tried') === 'not tried' ? 'verify' : 'release';
  if (isOff(a)) return a.landsClean ? 'fit' : 'prepare';
  if (a.laidOut || a.runs.length > 0) return 'remove';
  if (a.plan) return 'protect';
  if (a.suspect || (JOB_TYPES[type].target === null && state.readings.length > 0)) return 'plan';
  const begun = state.readings.length + state.observations.length + state.attempts.length > 1;
  return begun || state.intake.opened.length > 0 || type === 'express' ? 'diagnose' : 'intake';
}

/** Nobody was at it any more when nothing was written for so long, ms; the last thing before it took this much. */
const PAUSE_MS = 15 * 60_000;
const TAIL_MS = 2 * 60_000;

/**
 * Minutes at the bench: everything that was written down, from opening to closing, with pauses left out. A run counts from its beginning to its
 * end, however long nobody touched a key.
 */
export function benchMinutes(events: readonly JobEvent[]): number {
  const runs = new Map<string, { from: number; to: number }>();
  for (const { at, body } of events) {
    if (body.type === 'run-begun') runs.set(body.runId, { from: at, to: at });
    else if ('runId' in body && body.runId) {
      const run = runs.get(body.runId);
      if (run) run.to = Math.max(run.to, at);
    }
  }
  const spans = [...runs.values()];
  const times = events.map((e) => e.at).toSorted((a, b) => a - b);
  let ms = 0;
  for (let i = 1; i < times.length; i++) {
    const [from, to] = [times[i - 1], times[i]];
    const working = spans.some((s) => s.from <= from && s.to >= to);
    ms += working || to - from <= PAUSE_MS ? to - from : TAIL_MS;
  }
  return ms / 60_000;
}
