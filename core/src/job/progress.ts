/** Where a job stands, from its log alone: the same for the list of jobs and for the job itself. */
import { COMPLAINT } from './provingRules.ts';
import { type Step, STEPS } from '../hands/index.ts';
import { JOB_TYPES, type JobType } from './jobTypes.ts';
import { currentAttempt, isFitted, isOff, type JobState } from './jobState.ts';
import type { Fate } from '../sets/index.ts';
import { setProgress, type SetProgress } from './setProgress.ts';

/** The step that comes next, by what was done; steps that its kind has no use for are passed over. */
export function standsAt(state: JobState, type: JobType): Step {
  const { skips } = JOB_TYPES[type];
  const reached = STEPS.indexOf(reachedBy(state, type));
  return STEPS.slice(reached).find((s) => !skips.includes(s)) ?? 'release';
}

function reachedBy(state: JobState, type: JobType): Step {
  if (state.released) return 'release';
  const proved = () => ((state.functions.get(COMPLAINT)?.after ?? 'not tried') === 'not tried' ? 'verify' : 'release');
  const set = setProgress(state);
  if (set) return reachedBySet(state, set) ?? (set.parts.every((p) => GIVEN.has(p.item.do)) ? 'release' : proved());
  const a = currentAttempt(state);
  if (isFitted(a)) return proved();
  if (isOff(a)) return a.landsClean ? 'fit' : 'prepare';
  if (a.laidOut || a.runs.length > 0) return 'remove';
  if (a.plan) return 'protect';
  if (a.suspect || (JOB_TYPES[type].target === null && state.readings.length > 0)) return 'plan';
  const begun = state.readings.length + state.observations.length + state.attempts.length > 1;
  return begun || state.intake.opened.length > 0 || type === 'express' ? 'diagnose' : 'intake';
}

/** What a board gives away: of one that only gave, nothing is tried in the end. */
const GIVEN = new Set<Fate>(['move', 'salvage']);

/** Where a set stands; undefined once every part of it is done. */
function reachedBySet({ set, attempts }: JobState, { stage, next }: SetProgress): Step | undefined {
  if (stage === null) return undefined;
  if (!set || set.ordered.size === 0) return 'plan';
  const own = attempts.filter((a) => a.ofSet !== undefined);
  if (own.every((a) => a.runs.length === 0)) return own.some((a) => a.laidOut) ? 'remove' : 'protect';
  return next?.op ?? 'fit';
}
