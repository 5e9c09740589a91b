/**
 * The nine steps and their gates. A gate is computed from what is recorded, never ticked. Four are
 * hard: power gone, nothing left off by mistake, short check before power, orientation; for them unknown blocks as well as unmet.
 * All others let the hands go on and keep "not done" on the record.
 */
import type { SourceKind } from '../board/index.ts';
import { judgeOrientation } from '../hands/index.ts';
import { methodName } from '../rework/index.ts';
import { few } from '../ground/index.ts';
import { judgeBareBoard } from './bareBoard.ts';
import {
  checked,
  type GateResult,
  type GateRule,
  type JobFacts,
  type Judgement,
  met,
  unknown,
  unmet,
} from './gateRule.ts';
import { currentAttempt, isOff, saidAllWet, type JobState } from './jobState.ts';
import { JOB_TYPES, outcomeWord, type JobType } from './jobTypes.ts';
import { landIsGood } from './lands.ts';
import { PROVING_RULES } from './provingRules.ts';
import { isFreshOrder } from './set.ts';
import { setProgress, type SetProgress } from './setProgress.ts';
import { copyOf, shortSum } from './stored.ts';

/** A residual voltage above this is not "gone", V. */
const GONE_BELOW_V = 0.5;
/** Sources that hold their charge: what is left has to be measured. */
export const HOLDS_CHARGE: ReadonlySet<SourceKind> = new Set<SourceKind>(['capacitor', 'mains']);

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
      const listed = state.set?.items.size ?? 0;
      if (listed > 0) return met(`${listed} ${listed === 1 ? 'part' : 'parts'} listed`);
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
    judge: (state, { plan }, facts) => {
      const set = setProgress(state);
      if (set) return judgeOrder(state, set, facts.setHash);
      if (!plan) return unmet('no plan chosen');
      if (facts.planFresh === null) return unknown('the plan could not be compared with its inputs');
      return facts.planFresh
        ? met(methodName(plan.methodId), [plan.planId])
        : unmet('inputs changed since it was computed', [plan.planId]);
    },
  },
  {
    id: 'bare-board',
    step: 'protect',
    label: 'The new board before any part is on it',
    judge: judgeBareBoard,
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
    judge: (_, { offBoardTest, ofSet }) => {
      // what is renewed by a list is no suspect
      if (ofSet !== undefined) return null;
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
  ...PROVING_RULES,
  {
    id: 'set-done',
    step: 'verify',
    label: 'Every part of the set done',
    judge: (state) => {
      const set = setProgress(state);
      if (!set) return null;
      const open = set.parts.filter((p) => p.left.length > 0).map((p) => p.item.partId.toUpperCase());
      if (open.length === 0) return met(`${set.parts.length} done`);
      return unmet(`${open.length} of ${set.parts.length} open: ${few(open)}`);
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

/** An order that has every part of the set that is still to be done in its stage. */
function judgeOrder({ set }: JobState, { stage, ahead }: SetProgress, hash: string | undefined): Judgement {
  if (stage === null) return met('every part is done');
  const order = set?.ordered.get(stage);
  if (!order) return unmet('no order of the set yet');
  const without = ahead.filter((a) => !order.legs.some((l) => l.partId === a.partId && l.op === a.op));
  if (without.length > 0) return unmet(`not in the order: ${few(without.map((a) => a.partId.toUpperCase()))}`);
  if (!isFreshOrder(order, hash)) return unmet('bench, board or surroundings changed since the order was computed');
  return met(`${order.legs.length} in order, about ${Math.round(order.minutes)} min`);
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
