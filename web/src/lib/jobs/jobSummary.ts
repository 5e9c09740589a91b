/** A job as a row of a list: where it stands, what comes next, what it waits for, how long it may still take. From its log and ticket alone. */
import { calendarDay } from '$lib/ui/dates';
import { nextAct } from './words';
import type { Step } from '@orthos/core/hands';
import {
  attemptsOf,
  currentAttempt,
  type JobType,
  outcomeWord,
  type RunningJob,
  setProgress,
  standsAt,
} from '@orthos/core/job';

/** What a job waits for: our hands, the owner's answer, a part, or to be fetched. */
export type Block = 'hands' | 'answer' | 'part' | 'pick-up';

export interface JobSummary {
  step: Step;
  about: string;
  attempt: number;
  block: Block;
  /** What somebody does next. */
  next: string;
  /** Minutes at the bench that are still to be expected. */
  minutes: number;
}

/** Minutes of a job where nothing was offered yet, and the least that is left of any. */
const USUAL_MIN = 45;
const LEAST_MIN = 5;

/** `nameOf`: a part as it is called on this job's board. */
export function summarise(
  { state, minutes }: Pick<RunningJob, 'state' | 'minutes'>,
  { kind, waitsFor = '' }: { kind: JobType; waitsFor?: string },
  nameOf: (partId: string) => string = (id) => id.toUpperCase(),
): JobSummary {
  const a = currentAttempt(state);
  const set = setProgress(state);
  const several = set && set.parts.length !== 1;
  const one = set ? set.parts[0]?.item : a.suspect;
  const target = several ? `${set.parts.length} parts` : one ? nameOf(one.partId) : '';
  const step = standsAt(state, kind);
  const about =
    (state.released && outcomeWord(kind, state.released.outcome)) ??
    (target || (state.readings.length ? `${state.readings.length} readings` : ''));
  const { offer, taken, waits } = state.intake;
  const expected = (offer?.tiers.find((t) => t.label === taken) ?? offer?.tiers[0])?.minutes ?? USUAL_MIN;
  // nothing of a set can be done before what is missing is there
  const missing = set && set.next === null && set.stage !== null ? set.missing : [];
  const block: Block =
    (state.released && 'pick-up') ||
    waits?.for ||
    (missing.length > 0 || waitsFor ? 'part' : offer && !taken ? 'answer' : 'hands');
  const until = waits?.until ? `, ${calendarDay(waits.until, 'bare')}` : '';
  const part = waits?.for === 'part' ? waits.what : missing.map((i) => nameOf(i.partId)).join(', ');
  return {
    step,
    about,
    attempt: Math.max(1, attemptsOf(state).length),
    block,
    next: {
      hands:
        several && step === 'plan'
          ? `put ${target} in order`
          : nextAct(step, set?.next ? nameOf(set.next.partId) : target, kind),
      answer: `ask for an answer ${waits?.for === 'answer' && waits.what ? `about ${waits.what}` : 'to the offer'}${until}`,
      part: `waits for ${part || waitsFor || 'a part'}${until}`,
      'pick-up': `${state.handedOver ? 'handed over' : state.released ? 'hand it over' : 'to be fetched as it is'}${until}`,
    }[block],
    minutes: state.released ? 0 : Math.max(LEAST_MIN, Math.round(expected - minutes)),
  };
}
