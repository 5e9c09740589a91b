/** What hands are told: pin by pin: each hole melted through by a hollow tip, then sucked empty. */
import { packageById } from '../../../packages/index.ts';
import { setText } from '../../dials.ts';
import { COUNT, fluxIt, heatOff, heatOn, type Instruction, lift, type Words, type Workplace } from '../instruction.ts';
import type { VacuumSettings } from './settings.ts';

const AGAIN: Words = {
  say: 'It holds: fresh solder, molten through, suck once more.',
  watch: 'From the other face where you get at it, and longer. Iron or air on that face helps a ground pin.',
};

export function say({ set_C, dwell_s: stays_s, most_s, fresh = true }: VacuumSettings, work: Workplace): Instruction[] {
  const lap: Instruction[] = [
    fluxIt(work, 'On both faces.'),
    heatOn(
      `Vacuum iron at ${setText(set_C, 'vacuum', work.panel)} on the first pin.`,
      'Seat it, test the suction once. The clock starts with your tap.',
    ),
    {
      id: 'pins',
      say: fresh ? 'Feed fresh solder. Molten through? Turn, suck.' : 'Molten through? Wait, turn the tip, then suck.',
      watch: `${stays_s} s more once it is molten, until daylight shows. ${most_s === undefined ? 'Ground pins last longest' : `Not through after ${most_s} s: on to the next`}; one that stays shut comes round again.`,
      tap: 'this pin empty',
      mark: 'done',
      walk: work.held ? [...work.held] : packageById(work.target.package).terminals.map((t) => t.id),
      ...(work.goesOn ? {} : { again: AGAIN }),
    },
  ];
  if (work.goesOn)
    return [
      ...lap.map((i) => (i.mark === 'heat-on' ? { ...i, id: 'suction-on', mark: 'done' as const } : i)),
      {
        id: 'stuck',
        say: 'Nudge every pin. Does another one hold?',
        watch: 'Those that hold alone come round again, with the next tool.',
        tap: 'no other',
        mark: 'done',
        tries: true,
      },
    ];
  return [
    ...lap,
    {
      id: 'all-wet',
      say: 'Push every pin. Do all of them move?',
      watch: 'One that holds: fresh solder, once more, or a breath of air.',
      tap: 'all free',
      mark: 'all-wet',
      tries: true,
    },
    lift('Lift it out straight. No prying.', 'A pin that holds pulls the plating out of its hole.'),
    heatOff('Vacuum iron into its stand.', 'Empty its chamber.', 'iron away'),
    COUNT,
  ];
}
