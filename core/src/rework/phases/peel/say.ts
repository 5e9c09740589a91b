/** What hands are told: a tail peeled off along its row under a light pull, the air a little ahead. */
import { setText } from '../../dials.ts';
import { COUNT, fluxIt, heatOff, heatOn, type Say } from '../instruction.ts';
import type { PeelSettings } from './settings.ts';

export const say: Say<PeelSettings> = ({ set_C, standoff_mm }, work) => [
  fluxIt(work, 'Along the whole row.'),
  heatOn(
    `Air at ${setText(set_C, 'air', work.panel)} on the first way, ${standoff_mm} mm off.`,
    'A light pull along the board on the free end. The clock starts with your tap.',
  ),
  {
    id: 'first-wet',
    say: 'Wait for the first click.',
    watch: 'The pull does the lifting, not the hand. Never straight up.',
    tap: 'first click',
    mark: 'first-wet',
  },
  {
    id: 'all-wet',
    say: 'Air follows the click to the end.',
    watch: 'It stops? Stay there. More pull tears a way.',
    tap: 'tail free',
    mark: 'all-wet',
  },
  { id: 'lift', say: 'Tail away, flat.', watch: 'Hold it until it is cool.', tap: 'off', mark: 'lifted' },
  heatOff('Heat off.', 'Handle into its stand, fan runs on.', 'heat off'),
  COUNT,
];
