/** The state of a job: a pure fold over its events, in the order they were written. */
import type { BoardEvent, Swap } from '../diagnosis/index.ts';
import { applyIntake, freshIntake, type IntakeState } from './intake.ts';
import { benchMinutes } from './benchMinutes.ts';
import type { SourceKind } from '../board/index.ts';
import type { JobEvent, JobEventBody, JointMark } from './events.ts';
import { applyProving, freshProven, type Proven } from './proving.ts';
import { applySet, freshSet, type SetState } from './set.ts';
import type { DonorEvent } from './donorForms.ts';
import type { SetEvent } from './setForms.ts';
import { applyStored, type Stored } from './stored.ts';
import { landKey } from './lands.ts';
import type { LandMark, SlipKind } from '../hands/index.ts';
import { type Guide, type Mark, methodName, type Operation, type Phase } from '../rework/index.ts';

type Body<T extends JobEventBody['type']> = Extract<JobEventBody, { type: T }>;
type Kept<T extends JobEventBody['type']> = Body<T> & { id: string; at: number };

interface RunMark {
  eventId: string;
  instruction: string;
  what: Mark;
  /** Of runs begun long ago nobody knows. */
  phase?: string;
  /** UTC ms, as corrected last. */
  at: number;
}

/** One operation of the hands, from its beginning to its end. */
export interface Run {
  id: string;
  op: Operation;
  methodId: string;
  /** What it is called. */
  method: string;
  /** What exactly the hands do, and by which plan; runs begun long ago do not say. */
  phases?: Phase[];
  planId?: string;
  guide: Guide | null;
  /** How hands do otherwise than planned, and how much later its tool came, s. */
  changes: string[];
  late_s?: number;
  begun: number;
  offline: boolean;
  bench: boolean;
  marks: RunMark[];
  /** Joints worked on one by one, as they were told: those that hold come round again. */
  walked: { instruction?: string; terminal: string; state: JointMark }[];
  ended?: { outcome: 'finished' | 'given up'; at: number };
}

/** What belongs to one attempt at one part; a new attempt starts it afresh, the old ones stay. */
type LandRepaired = Extract<JobEventBody, { type: 'land-repaired' }>;

export interface Attempt {
  /** The part of a set that it is about: work that was listed, no suspicion. */
  ofSet?: string;
  suspect?: Kept<'suspect'>;
  plan?: Kept<'plan'>;
  targetConfirmed?: Kept<'target-confirmed'>;
  /** Neighbours dealt with: how covered, or why left open. */
  neighbours: Map<string, Kept<'neighbour-covered'> | Kept<'neighbour-accepted'>>;
  laidOut?: Kept<'laid-out'>;
  runs: Run[];
  /** Looks at what stands round the part, after it came off and after it went on: as before? */
  scans: Partial<Record<'removal' | 'fitting', boolean>>;
  landsClean?: boolean;
  /** Lands looked at one by one. */
  /** By `landKey`: of a hole each face has its own. */
  lands: Map<string, LandMark>;
  /** Lands that were mended, and how. */
  landRepairs: Map<string, LandRepaired>;
  /** The part that came off: where it lies, what it went through. */
  partOff?: Kept<'part-off'>;
  offBoardTest?: Kept<'off-board-test'>;
  newPart?: Kept<'new-part-measured'>;
  orientation?: Kept<'orientation-checked'>;
  /** Joints looked at after fitting. */
  joints: Map<string, JointMark>;
  /** Since the last work on the board. */
  proven: Proven;
  shortChecks: Kept<'short-check'>[];
}

export interface JobState {
  observations: Kept<'observation'>[];
  readings: Kept<'reading'>[];
  /** How much was measured before the last work on the board, and says nothing about it now; null: no work yet. */
  beforeWork: { readings: number; profiles: number; startUps: number } | null;
  /** Sources the technician named besides those of the board model. */
  sources: { id: string; label: string; kind: SourceKind }[];
  /** Sources shown gone since anything powered was last logged. */
  powerGone: Map<string, Kept<'power-gone'>>;
  /** Why the power gate lapsed, if it did. */
  powerLapse?: string;
  /** Functions by name, tried before and after the work. */
  functions: Map<string, Partial<Record<Body<'function'>['when'], Body<'function'>['state']>>>;
  slips: {
    id: string;
    kind: SlipKind;
    at: number;
    runId?: string;
    partId?: string;
    checked?: { ok: boolean; result: string };
  }[];
  /** A spent override stays on the record but no longer lets anything through. */
  overrides: (Kept<'override'> & { spent?: boolean })[];
  attempts: Attempt[];
  /** Parts that are done together; null: nothing was ever listed. */
  set: SetState | null;
  /** The job of the board that parts are brought from. */
  donor: Body<'donor'>['from'];
  /** Parts that came from other boards, with their records, by their place here. */
  came: Map<string, Kept<'part-came'>>;
  /** What was checked of a board without parts; null: it is none. */
  bareBoard: Omit<Body<'bare-board'>, 'type'> | null;
  /** Where photos lie on the board. */
  photosPlaced: Map<string, Body<'photo-placed'>>;
  /** What parts hold, by part. */
  stored: Map<string, Stored>;
  /** What happened to the board before it came in. */
  onset: BoardEvent[];
  intake: IntakeState;
  /** Circuit that the readings are judged by. */
  circuitId: string | null;
  /** Whether software can imitate the complaint, once somebody said. */
  software?: Body<'software'>;
  /** Parts changed for a good board's, and whether the fault went along. */
  swapped: Map<string, { followed: boolean; how: Swap }>;
  /** Two faults weighed together. */
  pair: Body<'pair'>['faults'];
  profiles: Kept<'profile'>[];
  /** Steps of test routines, by routine and step. */
  routineSteps: Map<string, Kept<'routine-step'>>;
  /** Why each attempt but the first was begun. */
  attemptReasons: string[];
  released?: Kept<'released'>;
  /** When the owner had it back. */
  handedOver?: Kept<'handed-over'>;
  /** Events withdrawn later, by id. */
  withdrawn: Set<string>;
}

const freshAttempt = (): Attempt => ({
  neighbours: new Map(),
  runs: [],
  scans: {},
  lands: new Map(),
  landRepairs: new Map(),
  joints: new Map(),
  proven: freshProven(),
  shortChecks: [],
});

/** A second attempt at the same part: what is known of it, of its lands and of what is covered round it comes along. */
function carriedOn(last: Attempt): Attempt {
  const { ofSet, suspect, plan, targetConfirmed, laidOut, partOff, offBoardTest, newPart } = last;
  const known = { ofSet, suspect, plan, targetConfirmed, laidOut, partOff, offBoardTest, newPart };
  return {
    ...freshAttempt(),
    ...(Object.fromEntries(Object.entries(known).filter(([, v]) => v !== undefined)) as Partial<Attempt>),
    neighbours: new Map(last.neighbours),
    landRepairs: new Map(last.landRepairs),
  };
}

/** What is done to a part of a set, in words. */
const FATE_WORDS = {
  renew: 'of the set: renewed',
  leave: 'of the set: left off',
  move: 'of the set: moved to another board',
  salvage: 'of the set: salvaged',
  lend: 'of the set: lent to another board',
  place: 'of the set: put on where nothing stood',
} as const;

export function foldJob(events: readonly JobEvent[]): JobState {
  const withdrawn = new Set(events.flatMap((e) => (e.body.type === 'withdrawn' ? [e.body.eventId] : [])));
  const state: JobState = {
    observations: [],
    readings: [],
    beforeWork: null,
    sources: [],
    powerGone: new Map(),
    functions: new Map(),
    slips: [],
    overrides: [],
    attempts: [freshAttempt()],
    set: null,
    donor: null,
    came: new Map(),
    bareBoard: null,
    onset: [],
    intake: freshIntake(),
    circuitId: null,
    swapped: new Map(),
    photosPlaced: new Map(),
    stored: new Map(),
    pair: null,
    profiles: [],
    routineSteps: new Map(),
    attemptReasons: [],
    withdrawn,
  };
  for (const event of events) if (!withdrawn.has(event.id)) apply(state, event);
  return state;
}

/** A log as it grows: its state is at every moment what `foldJob` makes of all its events. */
export class RunningJob {
  readonly events: JobEvent[] = [];
  private readonly ids = new Set<string>();
  private readonly runs = new Set<string>();
  private folded = foldJob([]);
  private spent: number | undefined;

  constructor(events: readonly JobEvent[] = []) {
    this.append(events);
  }

  get state(): JobState {
    return this.folded;
  }

  /** Minutes at the bench so far. */
  get minutes(): number {
    return (this.spent ??= benchMinutes(this.events));
  }

  append(events: readonly JobEvent[]): void {
    this.spent = undefined;
    let withdraws = false;
    for (const event of events) {
      this.events.push(event);
      this.ids.add(event.id);
      if (event.body.type === 'run-begun') this.runs.add(event.body.runId);
      if (event.body.type === 'withdrawn') withdraws = true;
      else if (!withdraws && !this.folded.withdrawn.has(event.id)) apply(this.folded, event);
    }
    // what is withdrawn may have changed anything since
    if (withdraws) this.folded = foldJob(this.events);
  }

  hasEvent(id: string): boolean {
    return this.ids.has(id);
  }
  hasRun(runId: string): boolean {
    return this.runs.has(runId);
  }
}

/** The attempt being worked on: of a set, at the part that hands are at. */
export function currentAttempt({ attempts, set }: JobState): Attempt {
  const own = set?.at ? attemptAt(attempts, set.at) : undefined;
  return own ?? attempts.findLast((a) => a.ofSet === undefined) ?? attempts[attempts.length - 1];
}

const attemptAt = (attempts: readonly Attempt[], partId: string): Attempt | undefined =>
  attempts.findLast((a) => a.ofSet === partId);

/** What was done at a part of the set, so far. */
export const workAt = ({ attempts }: Pick<JobState, 'attempts'>, partId: string): Attempt | undefined =>
  attemptAt(attempts, partId);

/** What was done at a part, of the set or as a suspect; undefined: nothing. */
export const workOn = ({ attempts }: Pick<JobState, 'attempts'>, partId: string): Attempt | undefined =>
  attemptAt(attempts, partId) ?? attempts.findLast((a) => a.suspect?.partId === partId && a.runs.length > 0);

/** Attempts at a suspect: all but the work that was listed. */
export const attemptsOf = ({ attempts }: Pick<JobState, 'attempts'>): Attempt[] => {
  const own = attempts.filter((a) => a.ofSet === undefined);
  const begun = own.filter((a) => a.suspect !== undefined || a.runs.length > 0);
  return own.length === attempts.length ? own : begun;
};

/** The last run of an operation in this attempt. */
export function lastRun(attempt: Attempt, op: Operation): Run | undefined {
  return attempt.runs.findLast((r) => r.op === op);
}

const marked = (attempt: Attempt, op: Operation, what: Mark): boolean =>
  attempt.runs.some((r) => r.op === op && r.marks.some((m) => m.what === what));
const finished = (attempt: Attempt, op: Operation): boolean =>
  attempt.runs.some((r) => r.op === op && r.ended?.outcome === 'finished');

/** The technician said that every joint was wet. */
export const saidAllWet = (attempt: Attempt): boolean => marked(attempt, 'remove', 'all-wet');
/** The part is off: marked, or the removal was finished without marks. */
export const isOff = (attempt: Attempt): boolean => marked(attempt, 'remove', 'lifted') || finished(attempt, 'remove');
/** The part is on. */
export const isFitted = (attempt: Attempt): boolean => marked(attempt, 'fit', 'fitted') || finished(attempt, 'fit');

/** What was said last of each joint that was worked on. */
export const jointStates = ({ walked }: Pick<Run, 'walked'>): Map<string, JointMark> =>
  new Map(walked.map((w) => [w.terminal, w.state]));

/** When a run's mark was made, s after its heat came on; null without either. */
export function secondsOf(run: Run, what: Mark): number | null {
  const on = run.marks.find((m) => m.what === 'heat-on');
  const mark = run.marks.find((m) => m.what === what);
  return on && mark ? (mark.at - on.at) / 1000 : null;
}

function runOf(state: JobState, runId: string | undefined): Run | undefined {
  return state.attempts.flatMap((a) => a.runs).find((r) => r.id === runId);
}

/** What an event meets: the job as it was, the attempt under way, and the event's id and time. */
interface Met {
  state: JobState;
  attempt: Attempt;
  id: string;
  at: number;
}
type Effects<T extends JobEventBody['type']> = { [K in T]: (body: Body<K>, met: Met) => void };

const OF_SEARCHING: Effects<
  | 'observation'
  | 'reading'
  | 'onset'
  | 'circuit-used'
  | 'software'
  | 'swapped'
  | 'pair'
  | 'profile'
  | 'routine-step'
  | 'suspect'
> = {
  observation: (body, { state, id, at }) => state.observations.push({ ...body, id, at }),
  reading(body, { state, id, at }) {
    state.readings.push({ ...body, id, at });
    if (body.powered) lapsePower(state, 'a reading was taken under power');
  },
  onset: (body, { state }) => (state.onset = body.events),
  'circuit-used': (body, { state }) => (state.circuitId = body.circuitId),
  software: (body, { state }) => (state.software = body),
  swapped: (body, { state }) =>
    state.swapped.set(body.partId, { followed: body.followed, how: body.how ?? 'good board' }),
  pair: (body, { state }) => (state.pair = body.faults),
  profile(body, { state, id, at }) {
    state.profiles.push({ ...body, id, at });
    lapsePower(state, 'a current was injected');
  },
  'routine-step': (body, { state, id, at }) =>
    state.routineSteps.set(`${body.routineId} ${body.step}`, { ...body, id, at }),
  suspect: (body, { attempt, id, at }) => (attempt.suspect = { ...body, id, at }),
};

const OF_PREPARING: Effects<
  | 'plan'
  | 'power-source'
  | 'power-gone'
  | 'power-connected'
  | 'target-confirmed'
  | 'neighbour-covered'
  | 'neighbour-accepted'
  | 'laid-out'
> = {
  plan: (body, { attempt, id, at }) => (attempt.plan = { ...body, id, at }),
  'power-source': (body, { state, id }) => state.sources.push({ id, label: body.label, kind: body.kind }),
  'power-gone': (body, { state, id, at }) => state.powerGone.set(body.sourceId, { ...body, id, at }),
  'power-connected': (body, { state }) => lapsePower(state, 'it was connected again', body.sourceId),
  'target-confirmed': (body, { attempt, id, at }) => (attempt.targetConfirmed = { ...body, id, at }),
  'neighbour-covered': (body, { attempt, id, at }) => attempt.neighbours.set(body.partId, { ...body, id, at }),
  'neighbour-accepted': (body, { attempt, id, at }) => attempt.neighbours.set(body.partId, { ...body, id, at }),
  'laid-out': (body, { attempt, id, at }) => (attempt.laidOut = { ...body, id, at }),
};

const OF_HANDS: Effects<
  | 'run-begun'
  | 'run-changed'
  | 'mark'
  | 'mark-moved'
  | 'run-ended'
  | 'joint'
  | 'surroundings-scanned'
  | 'lands-clean'
  | 'land'
  | 'land-repaired'
  | 'slip'
  | 'slip-checked'
> = {
  'run-begun'(body, { state, attempt, at }) {
    beginWork(state, attempt);
    attempt.runs.push({
      id: body.runId,
      op: body.op,
      methodId: body.methodId,
      method: body.method ?? methodName(body.methodId),
      ...(body.phases ? { phases: body.phases } : {}),
      ...(body.planId ? { planId: body.planId } : {}),
      guide: body.guide,
      begun: at,
      offline: body.offline,
      bench: body.bench,
      changes: [],
      marks: [],
      walked: [],
    });
  },
  mark: (body, { state, id, at }) =>
    runOf(state, body.runId)?.marks.push({
      eventId: id,
      instruction: body.instruction,
      what: body.what,
      ...(body.phase === undefined ? {} : { phase: body.phase }),
      at,
    }),
  'run-changed'({ runId, why, phases, late_s, guide }, { state }) {
    const run = runOf(state, runId);
    if (!run) return;
    if (!run.changes.includes(why)) run.changes.push(why);
    Object.assign(run, { guide }, phases ? { phases } : {}, late_s === undefined ? {} : { late_s });
  },
  'mark-moved'(body, { state }) {
    for (const run of state.attempts.flatMap((a) => a.runs))
      for (const mark of run.marks) if (mark.eventId === body.eventId) mark.at = body.to;
  },
  'run-ended'(body, { state, at }) {
    const run = runOf(state, body.runId);
    if (run) run.ended = { outcome: body.outcome, at };
  },
  joint({ runId, terminal, state: is, instruction }, { state, attempt }) {
    const run = runOf(state, runId);
    if (run) run.walked.push({ ...(instruction === undefined ? {} : { instruction }), terminal, state: is });
    else attempt.joints.set(terminal, is);
  },
  'surroundings-scanned': (body, { attempt }) => (attempt.scans[body.after] = body.ok),
  'lands-clean': (body, { attempt }) => (attempt.landsClean = body.ok),
  land(body, { attempt }) {
    attempt.lands.set(landKey(body), body.state);
    attempt.landRepairs.delete(landKey(body));
  },
  'land-repaired': (body, { attempt }) => attempt.landRepairs.set(landKey(body), body),
  slip(body, { state, id, at }) {
    const { kind, runId, partId } = body;
    state.slips.push({ id, kind, at, ...(runId ? { runId } : {}), ...(partId ? { partId } : {}) });
    if (body.kind === 'powered-while-hot') lapsePower(state, 'the board was found powered while hot');
  },
  'slip-checked'(body, { state }) {
    for (const slip of state.slips) if (slip.id === body.slipId) slip.checked = { ok: body.ok, result: body.result };
  },
};

const OF_PROVING: Effects<
  | 'part-off'
  | 'off-board-test'
  | 'new-part-measured'
  | 'orientation-checked'
  | 'photo-placed'
  | 'part-holds'
  | 'stored-read'
  | 'firmware-loaded'
  | 'settings-again'
  | 'short-check'
  | 'function'
  | 'override'
  | 'leg-pushed'
  | 'proved'
  | 'neighbour-looked'
  | 'power-stopped'
  | 'new-attempt'
  | 'released'
  | 'handed-over'
> = {
  // what is said of it later does not tell anew what it went through
  'part-off': (body, { attempt, id, at }) => (attempt.partOff = { ...attempt.partOff, ...body, id, at }),
  'off-board-test': (body, { attempt, id, at }) => (attempt.offBoardTest = { ...body, id, at }),
  'new-part-measured': (body, { attempt, id, at }) => (attempt.newPart = { ...body, id, at }),
  'orientation-checked': (body, { attempt, id, at }) => (attempt.orientation = { ...body, id, at }),
  'photo-placed': (body, { state }) => state.photosPlaced.set(body.photoId, body),
  'part-holds': (body, { state, id }) => applyStored(state.stored, id, body),
  'stored-read': (body, { state, id }) => applyStored(state.stored, id, body),
  'firmware-loaded': (body, { state, id }) => applyStored(state.stored, id, body),
  'settings-again': (body, { state, id }) => applyStored(state.stored, id, body),
  'short-check': (body, { attempt, id, at }) => attempt.shortChecks.push({ ...body, id, at }),
  function(body, { state }) {
    const tried = state.functions.get(body.name) ?? {};
    state.functions.set(body.name, { ...tried, [body.when]: body.state });
  },
  override: (body, { state, id, at }) => state.overrides.push({ ...body, id, at }),
  'leg-pushed': (body, { attempt, id }) => applyProving(attempt.proven, id, body),
  proved: (body, { attempt, id }) => applyProving(attempt.proven, id, body),
  'neighbour-looked': (body, { attempt, id }) => applyProving(attempt.proven, id, body),
  'power-stopped'(body, { state, attempt, id }) {
    applyProving(attempt.proven, id, body);
    lapsePower(state, 'it had been powered');
    if (body.stop === 'called off') return;
    // what was measured before says nothing of what it did to the board
    dropShortChecks(state, attempt);
  },
  'new-attempt'(body, { state, attempt }) {
    state.attempts.push(body.same ? carriedOn(attempt) : freshAttempt());
    if (state.set && !body.same) state.set.at = null;
    state.attemptReasons.push(body.why);
  },
  released: (body, { state, id, at }) => (state.released = { ...body, id, at }),
  'handed-over': (body, { state, id, at }) => (state.handedOver = { ...body, id, at }),
};

/** Goes to a part of the set: what was found once for its side, laid out and covered for the others is so for it too. */
function goTo(state: JobState, partId: string, { id, at }: Pick<Met, 'id' | 'at'>): void {
  const { set } = state;
  const item = set?.items.get(partId);
  if (!set || !item) return;
  const before = currentAttempt(state);
  const others = state.attempts.filter((a) => a.ofSet !== undefined);
  let own = attemptAt(state.attempts, partId);
  if (!own) {
    own = { ...freshAttempt(), ofSet: partId, suspect: { type: 'suspect', partId, why: FATE_WORDS[item.do], id, at } };
    state.attempts.push(own);
  }
  const sameSide = others.findLast((a) => a.targetConfirmed && set.items.get(a.ofSet ?? '')?.side === item.side);
  own.targetConfirmed ??= sameSide?.targetConfirmed;
  own.laidOut ??= others.findLast((a) => a.laidOut)?.laidOut;
  for (const other of others)
    for (const [k, v] of other.neighbours) if (!own.neighbours.has(k)) own.neighbours.set(k, v);
  if (before.ofSet !== undefined) own.shortChecks = before.shortChecks;
}

const OF_SETS: Effects<SetEvent['type']> = {
  'set-parts': (body, { state }) => applySet((state.set ??= freshSet()), body),
  'set-dropped': (body, { state }) => state.set && applySet(state.set, body),
  'set-ordered': (body, { state }) => state.set && applySet(state.set, body),
  'set-at'(body, { state, id, at }) {
    goTo(state, body.partId, { id, at });
    if (state.set?.items.has(body.partId)) applySet(state.set, body);
  },
};

const OF_DONORS: Effects<DonorEvent['type']> = {
  donor: (body, { state }) => (state.donor = body.from),
  'part-came'(body, { state, id, at }) {
    state.came.set(body.partId, { ...body, id, at });
    const { holds, copy, firmware, settings } = body.record;
    if (holds.length === 0) return;
    // a copy is two reads that agree
    const read = copy === null ? [] : [{ id, checksum: copy }];
    state.stored.set(body.partId, {
      ...{ holds, before: [...read, ...read], after: [] },
      ...(firmware ? { firmware } : {}),
      ...(settings ? { settings } : {}),
    });
  },
  'bare-board': ({ type: _, ...found }, { state }) => (state.bareBoard = { ...state.bareBoard, ...found }),
};

const EFFECTS = { ...OF_SEARCHING, ...OF_PREPARING, ...OF_HANDS, ...OF_PROVING, ...OF_SETS, ...OF_DONORS };

type Own = keyof typeof EFFECTS;
const isOwn = (body: JobEventBody): body is Body<Own> => body.type in EFFECTS;

/** What says its part belongs to the work at it, whichever part hands are at: two may write at once. */
const OF_A_PART = new Set<JobEventBody['type']>([
  'run-begun',
  'joint',
  'part-off',
  'plan',
  'laid-out',
  'target-confirmed',
]);

/** The attempt that an event belongs to. */
export function attemptFor(state: JobState, body: JobEventBody): Attempt {
  const partId = OF_A_PART.has(body.type) && 'partId' in body ? body.partId : undefined;
  return (partId === undefined ? undefined : attemptAt(state.attempts, partId)) ?? currentAttempt(state);
}

function apply(state: JobState, { id, at, body }: JobEvent): void {
  if (isOwn(body)) {
    // an event's effect takes its own body
    const effect = EFFECTS[body.type] as (body: Body<Own>, met: Met) => void;
    effect(body, { state, attempt: attemptFor(state, body), id, at });
  } else if (body.type !== 'withdrawn') ofIntake(state, { id, at }, body);
}

/** What intake folds of its own, and what it means for the job besides. */
function ofIntake(state: JobState, key: { id: string; at: number }, body: Parameters<typeof applyIntake>[2]): void {
  if (body.type === 'functions-listed') {
    for (const name of body.names) if (!state.functions.has(name)) state.functions.set(name, {});
  }
  if (body.type === 'supply-stage') lapsePower(state, 'it was started on the bench supply');
  applyIntake(state.intake, key, body);
}

/** What was checked before the hands went to work says nothing about the board now. */
function beginWork(state: JobState, attempt: Attempt): void {
  dropShortChecks(state, attempt);
  attempt.joints.clear();
  attempt.proven = freshProven();
  delete attempt.scans.fitting;
  state.beforeWork = {
    readings: state.readings.length,
    profiles: state.profiles.length,
    startUps: state.intake.startUps.length,
  };
  for (const tried of state.functions.values()) {
    delete tried.after;
    delete tried.closed;
  }
}

/** A short check is of the board, not of a part: of a set, all of them go. */
function dropShortChecks(state: JobState, attempt: Attempt): void {
  attempt.shortChecks = [];
  if (attempt.ofSet !== undefined) for (const a of state.attempts) if (a.ofSet !== undefined) a.shortChecks = [];
  spendOverrides(state, 'short-check');
}

/** A source connected again is no longer gone; a powered reading tells nothing about which source fed it. */
function lapsePower(state: JobState, why: string, sourceId?: string): void {
  if (state.powerGone.size > 0) state.powerLapse = why;
  if (sourceId === undefined) state.powerGone.clear();
  else state.powerGone.delete(sourceId);
  spendOverrides(state, 'power-gone');
}

/** An override holds until what it passed over comes up again. */
function spendOverrides(state: JobState, gate: string): void {
  for (const o of state.overrides) if (o.gate === gate) o.spent = true;
}
