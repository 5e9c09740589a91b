/** The steps of a ticket, what can go wrong at them, and what a bare land can be found to be. */

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
  'tilted',
] as const;
export type SlipKind = (typeof SLIP_KINDS)[number];

/** States of a bare land; of one without copper by design nothing is missing. */
export const LAND_STATES = ['good', 'dirty', 'lifted', 'torn', 'mask-gone', 'burnt', 'plugged', 'no-copper'] as const;
export type LandMark = (typeof LAND_STATES)[number];
