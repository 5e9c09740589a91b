/** Kinds of job: which steps they have no use for, what they ask for, how a good end is called. */
import type { Step } from '../hands/index.ts';

export const JOB_TYPE_IDS = [
  'repair',
  'fit-only',
  'refurbish',
  'transplant',
  'conversion',
  'data-only',
  'measure-only',
  'express',
] as const;
export type JobType = (typeof JOB_TYPE_IDS)[number];

interface JobTypeRow {
  label: string;
  says: string;
  /** Steps without gates to meet. */
  skips: readonly Step[];
  /** What is asked for where a target is missing; null: none is needed. */
  target: string | null;
  /** How it is called when it went well. */
  done: string;
}

/** How a job ended, in the words of its kind. */
export const outcomeWord = (type: JobType, outcome: 'repaired' | 'not repaired' | 'declined'): string =>
  outcome === 'repaired' ? JOB_TYPES[type].done : outcome;

const HANDS = ['plan', 'protect', 'remove', 'prepare', 'fit', 'verify'] as const;

export const JOB_TYPES: Record<JobType, JobTypeRow> = {
  repair: {
    label: 'repair',
    says: 'find the bad part and renew it',
    skips: [],
    target: 'no suspect chosen yet',
    done: 'repaired',
  },
  'fit-only': {
    label: 'fit only',
    says: 'the old part is off already',
    skips: ['remove', 'prepare'],
    target: 'say which part is to be fitted',
    done: 'fitted',
  },
  refurbish: {
    label: 'refurbish',
    says: 'a set of parts is renewed, broken or not',
    skips: [],
    target: 'say which part comes first',
    done: 'refurbished',
  },
  transplant: {
    label: 'transplant or harvest',
    says: 'a part moves from one board to another and has to live',
    skips: [],
    target: 'say which part moves',
    done: 'part moved',
  },
  conversion: {
    label: 'conversion',
    says: 'a part is changed for another value or kind',
    skips: [],
    target: 'say which part is changed',
    done: 'converted',
  },
  'data-only': {
    label: 'data only',
    says: 'what is stored in a part is read and kept',
    skips: HANDS,
    target: 'say which part holds the data',
    done: 'data kept',
  },
  'measure-only': {
    label: 'measure only',
    says: 'readings and a verdict, no heat',
    skips: HANDS,
    target: null,
    done: 'measured',
  },
  express: {
    label: 'express',
    says: 'a plan without a board model',
    skips: [],
    target: 'no suspect chosen yet',
    done: 'repaired',
  },
};
