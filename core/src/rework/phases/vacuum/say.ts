/** What hands are told: pin by pin: each hole melted through by a hollow tip, then sucked empty. */
import { packageById } from '../../../packages/index.ts';
import { formatTemperature } from '../../../ground/index.ts';
import { COUNT, fluxIt, heatOff, heatOn, type Instruction, lift, type Workplace } from '../instruction.ts';
import type { VacuumSettings } from './settings.ts';

export function say({ set_C, dwell_s: stays_s, fresh = true }: VacuumSettings, work: Workplace): Instruction[] {
  const lap: Instruction[] = [
    fluxIt(work, 'On both faces.'),
    heatOn(
      `Vacuum iron at ${formatTemperature(set_C, work.panel)} on the first pin.`,
      'Seat it, test the suction once. The clock starts with your tap.',
    ),
    {
      id: 'pins',
      say: fresh ? 'Feed fresh solder. Molten through? Turn, suck.' : 'Molten through? Wait, turn the tip, then suck.',
      watch: `${stays_s} s more once it is molten, until daylight shows. Ground pins last longest; one that stays shut comes round again.`,
      tap: 'this pin empty',
      mark: 'done',
      walk: packageById(work.target.package).terminals.map((t) => t.id),
    },
  ];
  if (work.goesOn)
    return [
      ...lap.map((i) => (i.mark === 'heat-on' ? { ...i, id: 'suction-on', mark: 'done' as const } : i)),
      {
        id: 'stuck',
        say: 'Nudge every pin. Which ones hold?',
        watch: 'They alone come round again, with the next tool.',
        tap: 'lap done',
        mark: 'done',
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
    },
    lift('Lift it out straight. No prying.', 'A pin that holds pulls the plating out of its hole.'),
    heatOff('Vacuum iron into its stand.', 'Empty its chamber.', 'iron away'),
    COUNT,
  ];
}
