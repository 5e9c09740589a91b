/** The state of a job: a pure fold over its events, in the order they were written. */
import type { JobEvent, JobEventBody } from './events.ts';

type Body<T extends JobEventBody['type']> = Extract<JobEventBody, { type: T }>;
type Kept<T extends JobEventBody['type']> = Body<T> & { id: string; at: number };

/** What belongs to one attempt at one part; a new attempt starts it afresh, the old ones stay. */
export interface Attempt {
  suspect?: Kept<'suspect'>;
  plan?: Kept<'plan'>;
  targetConfirmed?: Kept<'target-confirmed'>;
  covered: string[];
  allWet: boolean;
  lifted: boolean;
  surroundings?: boolean;
  landsClean?: boolean;
  offBoardTest?: Body<'off-board-test'>['result'];
  newPartMeasured?: boolean;
  orientation?: string[];
  fitted: boolean;
  shortCheck?: { ok: boolean; judgedBy: string };
  readingsBack?: boolean;
  functionsTried?: boolean;
}

export interface JobState {
  observations: Kept<'observation'>[];
  readings: Kept<'reading'>[];
  /** Sources shown gone since anything powered was last logged. */
  powerGone: Map<string, string>;
  /** Why the power gate lapsed, if it did. */
  powerLapse?: string;
  slips: { id: string; kind: string; checked: boolean }[];
  overrides: Kept<'override'>[];
  attempts: Attempt[];
  outcome?: Body<'released'>['outcome'];
  /** Events withdrawn later, by id. */
  withdrawn: Set<string>;
}

const freshAttempt = (): Attempt => ({ covered: [], allWet: false, lifted: false, fitted: false });

export function foldJob(events: readonly JobEvent[]): JobState {
  const withdrawn = new Set(events.flatMap((e) => (e.body.type === 'withdrawn' ? [e.body.eventId] : [])));
  const state: JobState = {
    observations: [],
    readings: [],
    powerGone: new Map(),
    slips: [],
    overrides: [],
    attempts: [freshAttempt()],
    withdrawn,
  };
  for (const event of events) if (!withdrawn.has(event.id)) apply(state, event);
  return state;
}

/** The attempt being worked on. */
export function currentAttempt(state: JobState): Attempt {
  return state.attempts[state.attempts.length - 1];
}

function apply(state: JobState, { id, at, body }: JobEvent): void {
  const attempt = currentAttempt(state);
  switch (body.type) {
    case 'observation':
      state.observations.push({ ...body, id, at });
      break;
    case 'reading':
      state.readings.push({ ...body, id, at });
      if (body.powered) lapsePower(state, 'a reading was taken under power');
      break;
    case 'suspect':
      attempt.suspect = { ...body, id, at };
      break;
    case 'plan':
      attempt.plan = { ...body, id, at };
      break;
    case 'power-gone':
      state.powerGone.set(body.sourceId, body.how);
      break;
    case 'power-connected':
      lapsePower(state, `${body.sourceId} was connected`);
      break;
    case 'target-confirmed':
      attempt.targetConfirmed = { ...body, id, at };
      break;
    case 'neighbour-covered':
      attempt.covered.push(body.partId);
      break;
    case 'all-wet':
      attempt.allWet = true;
      break;
    case 'lifted':
      attempt.lifted = true;
      break;
    case 'surroundings-scanned':
      attempt.surroundings = body.ok;
      break;
    case 'lands-clean':
      attempt.landsClean = body.ok;
      break;
    case 'off-board-test':
      attempt.offBoardTest = body.result;
      break;
    case 'new-part-measured':
      attempt.newPartMeasured = body.ok;
      break;
    case 'orientation-checked':
      attempt.orientation = body.against;
      break;
    case 'fitted':
      attempt.fitted = true;
      // what was checked before the part went on says nothing about the board now
      attempt.shortCheck = undefined;
      break;
    case 'short-check':
      attempt.shortCheck = { ok: body.ok, judgedBy: body.judgedBy };
      break;
    case 'readings-back':
      attempt.readingsBack = body.ok;
      break;
    case 'functions-tried':
      attempt.functionsTried = body.ok;
      break;
    case 'slip':
      state.slips.push({ id, kind: body.kind, checked: false });
      break;
    case 'slip-checked':
      for (const slip of state.slips) if (slip.id === body.slipId) slip.checked = true;
      break;
    case 'override':
      state.overrides.push({ ...body, id, at });
      break;
    case 'new-attempt':
      state.attempts.push(freshAttempt());
      break;
    case 'released':
      state.outcome = body.outcome;
      break;
    case 'withdrawn':
      break;
  }
}

function lapsePower(state: JobState, why: string): void {
  if (state.powerGone.size > 0) state.powerLapse = why;
  state.powerGone.clear();
}
