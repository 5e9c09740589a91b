/**
 * The nine steps and their gates. A gate is computed from what is recorded, never ticked. Four are
 * hard: power gone, nothing left off by mistake, short check before power, orientation; for them unknown blocks as well as unmet.
 * All others let the hands go on and keep "not done" on the record.
 */
import { compareReading } from '../ground/index.ts';
import type { SourceKind } from '../board/index.ts';
import { currentAttempt, isFitted, isOff, saidAllWet, type Attempt, type JobState } from './jobState.ts';
import { landIsGood } from './lands.ts';
import { JOB_TYPES, outcomeWord, type JobType } from './jobTypes.ts';
import { judgeOrientation, type Step } from '../hands/index.ts';
import { copyOf, type Holding, shortSum, type Stored } from './stored.ts';
import { methodName, type LayOut } from '../rework/index.ts';
import { judgeShort } from '../diagnosis/index.ts';

export interface GateResult {
  id: string;
  step: Step;
  label: string;
  state: 'met' | 'unmet' | 'unknown';
  hard: boolean;
  why: string;
  /** What the judgement rests on: ids of events, sources, parts. */
  evidence: string[];
  /** An override that lets the hands go on, with its reason. */
  overridden?: string;
}

/** What the gates need to know beyond the log. */
export interface JobFacts {
  /** As taken in; null when the ticket is not at hand. */
  complaint: string | null;
  type: JobType;
  powerSources: readonly { id: string; label: string; kind?: SourceKind }[];
  /** Whether the chosen plan still matches its inputs; null when that is not known. */
  planFresh: boolean | null;
  /** Neighbours the chosen plan puts over their limit before the joints are wet; null without a plan. */
  hotNeighbours: readonly string[] | null;
  /** What the lay-out has to bring: tools in reach, what each is set to; null without a plan. */
  layOut: LayOut | null;
  /** Rails and removable loads that the short check has to cover; empty when the board lists none. */
  rails: readonly { id: string; label: string }[];
  loads: readonly { id: string; label: string }[];
  /** Terminals of the target; null when the target is unknown. */
  terminals: readonly string[] | null;
  /** Whether the target can be fitted the wrong way round; null when the target is unknown. */
  targetPolarised: boolean | null;
  /** Where its mark belongs as it is drawn, by the terminal next to it; null where it is drawn without one. */
  drawnMark: string | null;
  /** What the target may hold, by what it is called. */
  mayHold: readonly Holding[];
}

/** A residual voltage above this is not "gone", V. */
const GONE_BELOW_V = 0.5;
/** Sources that hold their charge: what is left has to be measured. */
export const HOLDS_CHARGE: ReadonlySet<SourceKind> = new Set<SourceKind>(['capacitor', 'mains']);

type Judgement = Pick<GateResult, 'state' | 'why'> & { evidence?: string[] };
const met = (why: string, evidence: string[] = []): Judgement => ({ state: 'met', why, evidence });
const unmet = (why: string, evidence: string[] = []): Judgement => ({ state: 'unmet', why, evidence });
const unknown = (why: string): Judgement => ({ state: 'unknown', why });

/** Yes, no or nobody looked. */
const checked = (value: boolean | undefined, yes: string, no: string, nothing: string): Judgement =>
  value === undefined ? unknown(nothing) : value ? met(yes) : unmet(no);

interface GateRule {
  id: string;
  step: Step;
  label: string;
  hard?: boolean;
  /** Null: nothing of this job is judged by it. */
  judge(state: JobState, attempt: Attempt, facts: JobFacts): Judgement | null;
}

const RULES: GateRule[] = [
  {
    id: 'complaint',
    step: 'intake',
    label: 'Complaint recorded',
    judge: (_, __, { complaint }) => {
      if (complaint === null) return unknown('the ticket is not at hand');
      return complaint.trim() ? met(complaint) : unmet('no complaint on the ticket');
    },
  },
  {
    id: 'target',
    step: 'diagnose',
    label: 'A target and why',
    judge: (state, { suspect }, facts) => {
      if (suspect) return met(suspect.why, [suspect.id]);
      const { target } = JOB_TYPES[facts.type];
      const found = state.readings.length + state.observations.length;
      if (target === null) return found > 0 ? met(`${found} readings and signs`) : unmet('nothing measured yet');
      const searching = facts.type === 'repair' || facts.type === 'express';
      return searching && found === 0 ? unknown('nothing looked at or measured yet') : unmet(target);
    },
  },
  {
    id: 'plan-fresh',
    step: 'plan',
    label: 'A plan whose inputs have not changed',
    judge: (_, { plan }, facts) => {
      if (!plan) return unmet('no plan chosen');
      if (facts.planFresh === null) return unknown('the plan could not be compared with its inputs');
      return facts.planFresh
        ? met(methodName(plan.methodId), [plan.planId])
        : unmet('inputs changed since it was computed', [plan.planId]);
    },
  },
  {
    id: 'power-gone',
    step: 'protect',
    label: 'Power gone',
    hard: true,
    judge: (state, _, facts) => {
      const sources = [...facts.powerSources, ...state.sources];
      if (sources.length === 0) return unknown('what can feed this board is not listed');
      const open = sources.filter((s) => s.kind !== 'none' && openSource(state, s) !== undefined);
      if (open.length === 0)
        return met(sources.every((s) => s.kind === 'none') ? 'nothing can feed it' : 'every source shown gone', [
          ...state.powerGone.keys(),
        ]);
      const why = open.map((s) => `${s.label}: ${openSource(state, s)}`).join('; ');
      return unmet(
        why,
        open.map((s) => s.id),
      );
    },
  },
  {
    id: 'target-marked',
    step: 'protect',
    label: 'Target confirmed from two landmarks',
    judge: (_, { targetConfirmed, suspect }) => {
      if (targetConfirmed) return met(`found from ${targetConfirmed.landmarks.length} landmarks`, [targetConfirmed.id]);
      return suspect ? unmet('not yet confirmed on the working side') : unknown('no target yet');
    },
  },
  {
    id: 'stored-read',
    step: 'protect',
    label: 'What it holds is read twice',
    judge: (state, { suspect }, { mayHold }) => {
      const stored = suspect && state.stored.get(suspect.partId);
      if (!stored?.holds) return mayHold.length > 0 ? unknown(`may hold ${mayHold.join(', ')}: say so`) : null;
      if (!stored.holds.includes('data')) return mayHold.includes('data') ? met('holds no data') : null;
      const { state: is, read } = copyOf(stored);
      if (is === 'copy' && read) return met(`twice ${shortSum(read.checksum)}`, [read.id]);
      if (is === 'differ') return unmet('two reads differ: contact, clip, supply');
      return unmet(is === 'once' ? 'read once' : 'not read yet');
    },
  },
  {
    id: 'neighbours-covered',
    step: 'protect',
    label: 'Neighbours over their limit covered',
    judge: (_, { neighbours }, { hotNeighbours }) => {
      if (hotNeighbours === null) return unknown('no plan says who gets hurt');
      const open = hotNeighbours.filter((id) => !neighbours.has(id));
      return open.length === 0
        ? met('none left open', [...neighbours.keys()])
        : unmet(`${open.map((id) => id.toUpperCase()).join(', ')} neither covered nor accepted`, open);
    },
  },
  {
    id: 'laid-out',
    step: 'protect',
    label: 'Tools laid out and set as planned',
    judge: (_, { laidOut }, { layOut }) => {
      if (layOut === null) return unknown('no plan in use says which tools');
      if (!laidOut) return unmet('not laid out yet');
      const missing = layOut.tools.filter((t) => !laidOut.tools.includes(t));
      if (missing.length > 0) return unmet(`not in reach: ${missing.join(', ')}`, [laidOut.id]);
      const off = layOut.setPoints.flatMap((want) => {
        const is = laidOut.setPoints.find((p) => p.id === want.id);
        if (is && Math.abs(is.value - want.value) <= want.tolerance) return [];
        return [`${want.label} ${is ? `at ${is.value}` : 'not read'}, planned ${want.value} ${want.unit}`];
      });
      return off.length === 0 ? met('as planned', [laidOut.id]) : unmet(off.join('; '), [laidOut.id]);
    },
  },
  {
    id: 'all-wet',
    step: 'remove',
    label: 'All joints wet before the lift',
    judge: (_, a) => {
      if (saidAllWet(a)) return met('said by the technician');
      return isOff(a) ? unmet('taken off without "all wet"') : unknown('not begun');
    },
  },
  {
    id: 'surroundings',
    step: 'prepare',
    label: 'Surroundings scanned',
    judge: (_, a) =>
      checked(a.scans.removal, 'compared with the photo before', 'something is amiss', 'not looked at yet'),
  },
  {
    id: 'lands',
    step: 'prepare',
    label: 'Lands and legs clean',
    judge: (_, { lands, landsClean, landRepairs }, { terminals }) => {
      // varnish over bare copper comes after the part
      const bad = [...lands].filter(([t, state]) => !landIsGood(state) && !landRepairs.has(t));
      if (bad.length > 0) return unmet(bad.map(([t, state]) => `${t} ${state}`).join(', '));
      const all = terminals ?? [];
      if (all.length > 0 && all.every((t) => lands.has(t))) return met(`${all.length} looked at one by one`);
      return checked(landsClean, 'flat, shiny, nothing lifted', 'not clean', 'not looked at yet');
    },
  },
  {
    id: 'off-board',
    step: 'fit',
    label: 'Suspect tested off the board',
    judge: (_, { offBoardTest }) => {
      if (offBoardTest === undefined) return unknown('not tested yet');
      const { result } = offBoardTest;
      if (result === 'not tested') return unmet('left untested');
      return met(result === 'bad' ? 'bad, as suspected' : 'good: look again before fitting');
    },
  },
  {
    id: 'new-part',
    step: 'fit',
    label: 'New part measured',
    judge: (_, { newPart }) => {
      const note = newPart?.note || 'measured good';
      const other = newPart?.substitute;
      return checked(
        newPart?.ok,
        other ? `${note}; ${other.number} instead: ${other.why}` : note,
        'measured bad',
        'not measured yet',
      );
    },
  },
  {
    id: 'orientation',
    step: 'fit',
    label: 'Polarity and orientation',
    hard: true,
    judge: (_, { orientation }, { targetPolarised, drawnMark }) => {
      if (orientation?.seen) {
        const { ok, why } = judgeOrientation(orientation.seen, drawnMark);
        return ok ? met(why, [orientation.id]) : unmet(why, [orientation.id]);
      }
      if (orientation) return met(`against ${orientation.against.join(', ')}`, [orientation.id]);
      if (targetPolarised === null) return unknown('the target is not known');
      return targetPolarised ? unmet('not checked') : met('this part has no wrong way round');
    },
  },
  {
    id: 'restored',
    step: 'verify',
    label: 'Nothing left off by mistake',
    hard: true,
    judge: (state) => {
      const off = state.slips.filter((s) => s.kind === 'wrong-part' && !s.checked?.ok);
      if (off.length === 0) return met('no other part came off');
      const named = (slips: typeof off) => slips.map((s) => s.partId?.toUpperCase() ?? 'a part').join(', ');
      const bad = off.filter((s) => s.checked);
      if (bad.length === 0) return unknown(`${named(off)} to put back and check`);
      return unmet(
        `${named(bad)} not as before`,
        bad.map((s) => s.id),
      );
    },
  },
  {
    id: 'short-check',
    step: 'verify',
    label: 'Short check before power',
    hard: true,
    judge: (_, { shortChecks }, { rails, loads }) => {
      if (shortChecks.length === 0) return unknown('not done since the last work on the board');
      // the last reading of a rail with a load counts
      const latest = new Map(shortChecks.map((c) => [`${c.rail}\n${c.load ?? ''}`, c]));
      const judged = [...latest.values()].map((c) => ({ ...c, verdict: judgeShort(c) }));
      const name = (c: { rail: string; load: string | null }) => `${c.rail}${c.load ? ` with ${c.load}` : ''}`;
      const short = judged.find((c) => c.verdict.state === 'unmet');
      if (short) return unmet(`${name(short)}: ${short.verdict.why}`, [short.id]);
      const open = judged.find((c) => c.verdict.state === 'unknown');
      if (open) return unknown(`${name(open)}: ${open.verdict.why}`);
      const missing = [
        ...rails.filter((r) => !latest.has(`${r.label}\n`)).map((r) => r.label),
        ...loads.filter((l) => !judged.some((c) => c.load === l.label)).map((l) => `with ${l.label}`),
      ];
      if (!judged.some((c) => c.load === null)) missing.unshift('the board alone');
      if (missing.length > 0) return unknown(`still to measure: ${[...new Set(missing)].join(', ')}`);
      return met(
        judged.map((c) => `${name(c)} ${c.verdict.why}`).join('; '),
        judged.map((c) => c.id),
      );
    },
  },
  {
    id: 'joints',
    step: 'verify',
    label: 'Every joint looked at',
    judge: (_, { joints }, { terminals }) => {
      if (joints.size === 0) return unknown('not looked at since the last work');
      const bad = [...joints].filter(([, state]) => state !== 'good').map(([t, state]) => `${t} ${state}`);
      if (bad.length > 0) return unmet(bad.join(', '));
      const left = (terminals ?? []).filter((t) => !joints.has(t));
      return left.length === 0 ? met(`${joints.size} good`) : unmet(`${left.length} not looked at`);
    },
  },
  {
    id: 'surroundings-after',
    step: 'verify',
    label: 'Surroundings scanned again',
    judge: (_, a) =>
      checked(a.scans.fitting, 'neighbours as before', 'something is amiss', 'not looked at after fitting'),
  },
  {
    id: 'stored-back',
    step: 'verify',
    label: 'What it holds is there again',
    judge: (state, attempt) => {
      const stored = attempt.suspect && state.stored.get(attempt.suspect.partId);
      const holds = stored?.holds ?? [];
      if (!stored || holds.length === 0) return null;
      const carried = attempt.newPart?.origin === 'the old one';
      const said: Record<Holding, Judgement> = {
        data: dataBack(stored),
        firmware: stored.firmware
          ? met(`firmware ${stored.firmware}`)
          : carried
            ? met('firmware came along')
            : unmet('no firmware loaded'),
        settings:
          stored.settings === undefined
            ? unmet('settings not set again')
            : met(stored.settings || 'settings set again'),
      };
      const all = holds.map((h) => said[h]);
      const open = all.filter((j) => j.state !== 'met');
      const why = (open.length > 0 ? open : all).map((j) => j.why).join('; ');
      return open.length === 0 ? met(why) : open.some((j) => j.state === 'unmet') ? unmet(why) : unknown(why);
    },
  },
  {
    id: 'readings-back',
    step: 'verify',
    label: 'Readings back',
    judge: (state) => {
      if (state.beforeWork === null) return unknown('no work on the board yet');
      const { off, again } = readingsToRepeat(state);
      if (off.length === 0) return met('no reading was off before');
      const open = off.filter((r) => !again.has(pointOf(r)));
      if (open.length === off.length) return unknown(`${off.length} to take again`);
      const still = off.filter((r) => {
        const now = again.get(pointOf(r));
        return now && compareReading(now.value, now.good ?? r.good, r.quantity) !== 'same';
      });
      if (still.length > 0)
        return unmet(
          `${still.length} still off`,
          still.map((r) => r.id),
        );
      return open.length > 0 ? unmet(`${open.length} to take again`) : met('all as a good board');
    },
  },
  {
    id: 'functions',
    step: 'verify',
    label: 'Complaint and functions tried',
    judge: (state) => {
      if (state.intake.proof?.by === 'readings') return met('can only be measured: the readings decide');
      const tried = [...state.functions].filter(([, f]) => f.after !== undefined && f.after !== 'not tried');
      if (tried.length === 0) return unknown('not tried since the last work');
      const complaint = state.functions.get(COMPLAINT)?.after;
      if (complaint === undefined || complaint === 'not tried') return unmet('the complaint itself not tried');
      const dead = tried.filter(([name, f]) => f.after === 'dead' && name !== COMPLAINT && f.before !== 'dead');
      if (complaint === 'dead') return unmet('the complaint is still there');
      if (dead.length > 0) return unmet(`${dead.map(([name]) => name).join(', ')} worked before and is dead now`);
      const open = [...state.functions].filter(([, f]) => f.before === 'works' && f.after === undefined);
      return open.length > 0
        ? unmet(`not tried again: ${open.map(([name]) => name).join(', ')}`)
        : met('complaint gone, functions as before');
    },
  },
  {
    id: 'slips',
    step: 'verify',
    label: 'Slips and bumps followed up',
    judge: (state, attempt) => {
      const open = state.slips.filter((s) => !s.checked);
      if (state.slips.length === 0 && !isOff(attempt) && !isFitted(attempt)) return unknown('no work on the board yet');
      return open.length === 0
        ? met('none open')
        : unmet(
            `${open.length} not looked at`,
            open.map((s) => s.id),
          );
    },
  },
  {
    id: 'outcome',
    step: 'release',
    label: 'Outcome recorded',
    judge: (state, attempt, facts) => {
      if (state.released) return met(outcomeWord(facts.type, state.released.outcome), [state.released.id]);
      const hands = !JOB_TYPES[facts.type].skips.includes('fit');
      return hands && attempt.runs.length === 0 ? unknown('no work on the board yet') : unmet('say how it ended');
    },
  },
];

/** Data read after, against the copy taken before. */
function dataBack(stored: Stored): Judgement {
  const { state: is, read: before } = copyOf(stored);
  const now = stored.after.at(-1);
  if (!now) return unknown('data not read since it went on');
  if (is !== 'copy' || !before) return unmet('data: no copy from before to hold it against');
  return now.checksum === before.checksum
    ? met(`data as before, ${shortSum(now.checksum)}`, [now.id])
    : unmet('data differs from the copy', [now.id]);
}

/** The function list's entry for the complaint: "works" means that it is gone. */
export const COMPLAINT = 'the complaint';

/** Where and what a reading was of; the same point is named the same again. */
export const pointOf = ({ place: p, quantity }: JobState['readings'][number]): string =>
  `${p.partId ? `${p.partId}/${p.terminal ?? ''}` : `${p.x_mm},${p.y_mm},${p.side}`} ${quantity}`;

/** Readings that were off before the work, and the latest reading of each point since. */
export function readingsToRepeat(state: JobState) {
  const cut = state.beforeWork?.readings ?? state.readings.length;
  const before = new Map(state.readings.slice(0, cut).map((r) => [pointOf(r), r]));
  const off = [...before.values()].filter((r) => {
    const d = compareReading(r.value, r.good, r.quantity);
    return d === 'low' || d === 'high';
  });
  return { off, again: new Map(state.readings.slice(cut).map((r) => [pointOf(r), r])) };
}

/** Why a source is not gone; undefined when it is. */
function openSource(state: JobState, source: { id: string; label: string; kind?: SourceKind }): string | undefined {
  const gone = state.powerGone.get(source.id);
  if (!gone) return state.powerLapse ?? 'not shown gone';
  if (gone.residual_V === undefined)
    return HOLDS_CHARGE.has(source.kind ?? 'lead') ? 'not measured after discharging' : undefined;
  return gone.residual_V > GONE_BELOW_V ? `still ${gone.residual_V} V` : undefined;
}

/** All gates of a job, in the order of the steps. */
export function judgeGates(state: JobState, facts: JobFacts): GateResult[] {
  const attempt = currentAttempt(state);
  return RULES.flatMap((rule) => {
    const judged = rule.judge(state, attempt, facts);
    if (judged === null) return [];
    const { state: result, why, evidence = [] } = judged;
    const override = state.overrides.findLast((o) => o.gate === rule.id && !o.spent);
    return {
      id: rule.id,
      step: rule.step,
      label: rule.label,
      hard: rule.hard ?? false,
      state: result,
      why,
      evidence,
      ...(override && result !== 'met' ? { overridden: override.why } : {}),
    };
  });
}

/** A hard gate that is not met, and not overridden, stops the hands. */
export function blocks(gate: GateResult): boolean {
  return gate.hard && gate.state !== 'met' && gate.overridden === undefined;
}

/**
 * Gates still to be met; a kind of job that has no use for a step skips its gates. Once the short check is met, power
 * is back on purpose: its gate stays lapsed (no tool may touch the board), but the job does not go back for it.
 */
export function openGates(gates: readonly GateResult[], type: JobType): GateResult[] {
  const { skips } = JOB_TYPES[type];
  const tested = gates.some((g) => g.id === 'short-check' && g.state === 'met');
  return gates.filter((g) => g.state !== 'met' && !skips.includes(g.step) && !(tested && g.id === 'power-gone'));
}
