/**
 * The nine steps and their gates. A gate is computed from what is recorded, never ticked. Three are
 * hard: power gone, short check before power, orientation; for them unknown blocks as well as unmet.
 * All others let the hands go on and keep "not done" on the record.
 */
import { currentAttempt, type Attempt, type JobState } from './jobState.ts';

export const STEPS = [
  'intake',
  'diagnose',
  'plan',
  'protect',
  'remove',
  'prepare',
  'fit',
  'verify',
  'release',
] as const;
export type Step = (typeof STEPS)[number];

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
  fitOnly: boolean;
  powerSources: readonly { id: string; label: string }[];
  /** Whether the chosen plan still matches its inputs; null when that is not known. */
  planFresh: boolean | null;
  /** Neighbours the chosen plan puts over their limit before the joints are wet; null without a plan. */
  hotNeighbours: readonly string[] | null;
  /** Whether the target can be fitted the wrong way round; null when the target is unknown. */
  targetPolarised: boolean | null;
}

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
  judge(state: JobState, attempt: Attempt, facts: JobFacts): Judgement;
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
      if (facts.fitOnly) return unmet('say which part is to be fitted');
      return state.readings.length + state.observations.length > 0
        ? unmet('no suspect chosen yet')
        : unknown('nothing looked at or measured yet');
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
        ? met(plan.label, [plan.planId])
        : unmet('inputs changed since it was computed', [plan.planId]);
    },
  },
  {
    id: 'power-gone',
    step: 'protect',
    label: 'Power gone',
    hard: true,
    judge: (state, _, facts) => {
      if (facts.powerSources.length === 0) return unknown('the power sources of this board are not listed');
      const open = facts.powerSources.filter((s) => !state.powerGone.has(s.id));
      if (open.length === 0) return met('every source shown gone', [...state.powerGone.keys()]);
      const names = open.map((s) => s.label).join(', ');
      return unmet(
        state.powerLapse ? `${names}: ${state.powerLapse}` : `${names} not shown gone`,
        open.map((s) => s.id),
      );
    },
  },
  {
    id: 'target-marked',
    step: 'protect',
    label: 'Target confirmed from two landmarks',
    judge: (_, { targetConfirmed, suspect }) => {
      if (targetConfirmed) return met(`from ${targetConfirmed.landmarks.join(' and ')}`, [targetConfirmed.id]);
      return suspect ? unmet('not yet confirmed on the working side') : unknown('no target yet');
    },
  },
  {
    id: 'neighbours-covered',
    step: 'protect',
    label: 'Neighbours over their limit covered',
    judge: (_, { covered }, { hotNeighbours }) => {
      if (hotNeighbours === null) return unknown('no plan says who gets hurt');
      const open = hotNeighbours.filter((id) => !covered.includes(id));
      return open.length === 0 ? met('none left open', [...covered]) : unmet(`${open.join(', ')} not covered`, open);
    },
  },
  {
    id: 'all-wet',
    step: 'remove',
    label: 'All joints wet before the lift',
    judge: (_, a) => {
      if (a.allWet) return met('said by the technician');
      return a.lifted ? unmet('lifted without "all wet"') : unknown('not begun');
    },
  },
  {
    id: 'surroundings',
    step: 'prepare',
    label: 'Surroundings scanned',
    judge: (_, a) =>
      checked(a.surroundings, 'compared with the photo before', 'something is amiss', 'not looked at yet'),
  },
  {
    id: 'lands',
    step: 'prepare',
    label: 'Lands and legs clean',
    judge: (_, a) => checked(a.landsClean, 'flat, shiny, nothing lifted', 'not clean', 'not looked at yet'),
  },
  {
    id: 'off-board',
    step: 'fit',
    label: 'Suspect tested off the board',
    judge: (_, { offBoardTest }) => {
      if (offBoardTest === undefined) return unknown('not tested yet');
      if (offBoardTest === 'not tested') return unmet('left untested');
      return met(offBoardTest === 'bad' ? 'bad, as suspected' : 'good: look again before fitting');
    },
  },
  {
    id: 'new-part',
    step: 'fit',
    label: 'New part measured',
    judge: (_, a) => checked(a.newPartMeasured, 'measured good', 'measured bad', 'not measured yet'),
  },
  {
    id: 'orientation',
    step: 'fit',
    label: 'Polarity and orientation',
    hard: true,
    judge: (_, { orientation }, { targetPolarised }) => {
      if (orientation) return met(`against ${orientation.join(', ')}`);
      if (targetPolarised === null) return unknown('the target is not known');
      return targetPolarised ? unmet('not checked') : met('this part has no wrong way round');
    },
  },
  {
    id: 'short-check',
    step: 'verify',
    label: 'Short check before power',
    hard: true,
    judge: (_, { shortCheck }) => {
      if (!shortCheck) return unknown('not done since the last work on the board');
      return shortCheck.ok ? met(`judged by ${shortCheck.judgedBy}`) : unmet('a rail reads short');
    },
  },
  {
    id: 'readings-back',
    step: 'verify',
    label: 'Readings back',
    judge: (_, a) => checked(a.readingsBack, 'as a good board', 'still off', 'not measured again yet'),
  },
  {
    id: 'functions',
    step: 'verify',
    label: 'Complaint and functions tried',
    judge: (_, a) =>
      checked(a.functionsTried, 'complaint gone, functions as before', 'something does not work', 'not tried yet'),
  },
  {
    id: 'slips',
    step: 'verify',
    label: 'Slips and bumps followed up',
    judge: (state, attempt) => {
      const open = state.slips.filter((s) => !s.checked);
      if (state.slips.length === 0 && !attempt.lifted && !attempt.fitted) return unknown('no work on the board yet');
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
    judge: (state, attempt) => {
      if (state.outcome) return met(state.outcome);
      return attempt.functionsTried === undefined ? unknown('the work is not finished') : unmet('say how it ended');
    },
  },
];

/** All gates of a job, in the order of the steps. */
export function judgeGates(state: JobState, facts: JobFacts): GateResult[] {
  const attempt = currentAttempt(state);
  return RULES.map((rule) => {
    const { state: result, why, evidence = [] } = rule.judge(state, attempt, facts);
    const override = state.overrides.findLast((o) => o.gate === rule.id);
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

/** The step a job stands at: the first whose gates are not all met (fit-only jobs start their hands at Fit). */
export function stepAt(gates: readonly GateResult[], fitOnly: boolean): Step {
  const skipped: readonly Step[] = fitOnly ? ['remove', 'prepare'] : [];
  const open = gates.find((g) => g.state !== 'met' && !g.overridden && !skipped.includes(g.step));
  return open?.step ?? 'release';
}
