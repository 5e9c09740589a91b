/** When something goes wrong under the hands: what to do at once and what to look at before going on. */
import type { SlipKind } from './forms.ts';

export interface SlipGuide {
  label: string;
  /** At once, at most twelve words. */
  now: string;
  /** What the check is. */
  check: string;
}

export const SLIPS: Record<SlipKind, SlipGuide> = {
  'powered-while-hot': {
    label: 'Powered while hot',
    now: 'Heat away. Unplug everything. Touch nothing metal.',
    check: 'Every source gone and measured again; foil and strips off the board; short check of every rail.',
  },
  slipped: {
    label: 'Slipped',
    now: 'Heat away. Look where the tool went.',
    check: 'Tracks and mask along the scratch under magnification; continuity of each track it crossed.',
  },
  bumped: {
    label: 'Bumped a neighbour',
    now: 'Still liquid: set it back, then heat away. Frozen: leave it.',
    check: 'The neighbour sits square, both ends wet, value measured; nothing bridged beside it.',
  },
  dropped: {
    label: 'Dropped a part',
    now: 'Stop. Find it before anything moves.',
    check: 'Part found and whole; no loose metal on or under the board or in the housing.',
  },
  'too-hot': {
    label: 'Too hot',
    now: 'Heat away. Let it cool by itself.',
    check: 'Laminate not blistered or brown, lands firm, plastic in shape, chips next door wet and square.',
  },
  'not-coming-off': {
    label: 'Not coming off',
    now: 'Do not pull. Heat away, fresh flux.',
    check: 'Hidden clip, glue, heavy copper or one solid joint found; new plan: more heat below, or another method.',
  },
  'wrong-part': {
    label: 'Unsoldered the wrong part',
    now: 'Heat away. Set it down beside its place, marked.',
    check: 'Back on its lands or replaced, the right way round, value and joints as before. No power until then.',
  },
  tilted: {
    label: 'Sits tilted or aside',
    now: 'Still liquid: nudge it to its middle. Frozen: leave it.',
    check:
      'Flat, every land covered, rim wet all round. Else off again: the centre pad braided to a film, then once more.',
  },
};
