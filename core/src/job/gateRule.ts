/** What a gate is: a rule, what it needs to know, what it gives. */
import type { SourceKind } from '../board/index.ts';
import type { Step } from '../hands/index.ts';
import type { Proof } from '../prove/index.ts';
import type { LayOut } from '../rework/index.ts';
import type { Attempt, JobState } from './jobState.ts';
import type { JobType } from './jobTypes.ts';
import type { Holding } from './storedForms.ts';

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
  /** What an order of a set would be computed for now; absent where that is not known. */
  setHash?: string;
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
  /** Legs of the target that give under a needle when they are open, and what there is to measure of it without power. */
  legs: readonly string[];
  proofs: readonly Proof[];
  /** Who could suffer by the plan in use; null without a plan. */
  atRisk: readonly { id: string; name: string }[] | null;
}

export type Judgement = Pick<GateResult, 'state' | 'why'> & { evidence?: string[] };
export const met = (why: string, evidence: string[] = []): Judgement => ({ state: 'met', why, evidence });
export const unmet = (why: string, evidence: string[] = []): Judgement => ({ state: 'unmet', why, evidence });
export const unknown = (why: string): Judgement => ({ state: 'unknown', why });

/** Yes, no or nobody looked. */
export const checked = (value: boolean | undefined, yes: string, no: string, nothing: string): Judgement =>
  value === undefined ? unknown(nothing) : value ? met(yes) : unmet(no);

export interface GateRule {
  id: string;
  step: Step;
  label: string;
  hard?: boolean;
  /** Null: nothing of this job is judged by it. */
  judge(state: JobState, attempt: Attempt, facts: JobFacts): Judgement | null;
}
