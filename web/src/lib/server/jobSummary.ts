import {
  currentAttempt,
  foldJob,
  isFitted,
  isOff,
  outcomeWord,
  type JobEvent,
  type JobType,
  type Step,
} from '@orthos/core';

/** Where a job stands and on what, from its log alone (a list need not judge every gate). */
export function summarise(events: JobEvent[], kind: JobType): { step: Step; about: string; attempt: number } {
  const state = foldJob(events);
  const a = currentAttempt(state);
  const target = a.suspect ? a.suspect.partId.toUpperCase() : '';
  const step: Step = state.released
    ? 'release'
    : isFitted(a)
      ? 'verify'
      : isOff(a)
        ? 'prepare'
        : a.plan
          ? 'protect'
          : a.suspect
            ? 'plan'
            : events.length > 0 || kind === 'express'
              ? 'diagnose'
              : 'intake';
  const about =
    (state.released && outcomeWord(kind, state.released.outcome)) ??
    (target || (state.readings.length ? `${state.readings.length} readings` : ''));
  return { step, about, attempt: state.attempts.length };
}
