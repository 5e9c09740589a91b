/** Where a job stands, from its log alone: the same for the list of jobs and for the job itself. */
import { COMPLAINT } from './provingRules.ts';
import { type Step, STEPS } from '../hands/index.ts';
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
