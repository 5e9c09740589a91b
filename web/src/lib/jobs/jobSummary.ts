/** A job as a row of a list: where it stands, what comes next, what it waits for, how long it may still take. From its log and ticket alone. */
import { nextAct } from './words';
import type { Step } from '@orthos/core/hands';
import { attemptsOf, currentAttempt, type JobType, outcomeWord, type RunningJob, standsAt } from '@orthos/core/job';

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
  const target = a.suspect ? nameOf(a.suspect.partId) : '';
  const step = standsAt(state, kind);
  const about =
    (state.released && outcomeWord(kind, state.released.outcome)) ??
    (target || (state.readings.length ? `${state.readings.length} readings` : ''));
  const { offer, taken } = state.intake;
  const expected = (offer?.tiers.find((t) => t.label === taken) ?? offer?.tiers[0])?.minutes ?? USUAL_MIN;
  const block: Block = state.released ? 'pick-up' : waitsFor ? 'part' : offer && !taken ? 'answer' : 'hands';
  return {
    step,
    about,
    attempt: Math.max(1, attemptsOf(state).length),
    block,
    next: {
      hands: nextAct(step, target, kind),
      answer: 'ask for an answer to the offer',
      part: `waits for ${waitsFor}`,
      'pick-up': state.handedOver ? 'handed over' : 'hand it over',
    }[block],
    minutes: state.released ? 0 : Math.max(LEAST_MIN, Math.round(expected - minutes)),
  };
}
