/** The steps of a ticket, and what can go wrong at them. */

/** The steps of a ticket, in the order they are walked. */
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

export const SLIP_KINDS = [
  'powered-while-hot',
  'slipped',
  'bumped',
  'dropped',
  'too-hot',
  'not-coming-off',
  'wrong-part',
] as const;
export type SlipKind = (typeof SLIP_KINDS)[number];
