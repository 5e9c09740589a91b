/** What hands are told: pressed until it sinks, the squeezed out solder taken from the rim later. */
import { heatOff, type Say } from '../instruction.ts';
import type { LiftSettings } from '../lift/settings.ts';

export const say: Say<LiftSettings> = ({ stays_s }) => [
  {
    id: 'press',
    say: 'Press it straight down until it sinks. Hold.',
    watch: `Heat stays on ${stays_s} s. Flat, not on one edge. What it squeezes out is cleared from the rim afterwards, with braid.`,
    tap: 'it has sunk',
    mark: 'done',
  },
  heatOff('Heat off. Go on pressing.', 'Draw the air straight up.', 'heat off'),
];
