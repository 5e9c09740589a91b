/** What hands are told: row by row with a bead before the tip, bridges off at the end. */
import { packageById, terminalSides } from '../../../packages/index.ts';
import { feed } from '../joint/say.ts';
import { heatOff, type Say } from '../instruction.ts';
import type { DragSettings } from './settings.ts';

export const say: Say<DragSettings> = (settings, work) => {
  const { target } = work;
  const sides = terminalSides(packageById(target.package));
  return [
    {
      id: 'drag',
      say: `Drag along ${sides === 1 ? 'the row' : `all ${sides} sides`}, ${settings.mm_s} mm a second.`,
      watch: `Much flux, a bead before the tip, no pressure. Wait where it does not flow. Lean the board so that it runs along. ${feed(settings, work)}`,
      tap: 'dragged',
      mark: 'done',
    },
    heatOff('Iron into its stand.', 'Bridges: flux, clean tip outwards once. Braid last.', 'iron away'),
  ];
};
