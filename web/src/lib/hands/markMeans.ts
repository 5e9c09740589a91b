import type { Polarity } from '@orthos/core/packages';

/** By what a package shows. Makers shade boards differently: what is printed on the board is no law. */
export const MARK_MEANS: Record<Polarity, string> = {
  none: 'Nothing on its package says which way: look for a band, dot or plus on the part itself.',
  pin1: 'Pin 1 is at the cut corner or dot.',
  cathode: 'The stripe is the cathode.',
  'minus-stripe': 'Aluminium or polymer can: the stripe is minus. What is shaded on the board differs between makers.',
  'plus-stripe': 'Moulded tantalum: the stripe is plus.',
};
