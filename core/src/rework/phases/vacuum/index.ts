/** Pin by pin: each hole melted through by a hollow tip, then sucked empty. */
import { formatTemperature } from '../../../ground/index.ts';
import { packageById } from '../../../packages/index.ts';
import { RANGES } from '../../ranges.ts';
import { definePhase } from '../declaration.ts';
import { COUNT, fluxIt, heatOff, heatOn, type Instruction, lift, type Workplace } from '../instruction.ts';
import { tipField, tipFields, uncertainTip } from '../tip.ts';
import { type VacuumSettings, vacuumSettings } from './settings.ts';

const { dwell_s, most_s } = RANGES.iron;

function say({ set_C, dwell_s: stays_s }: VacuumSettings, work: Workplace): Instruction[] {
  return [
    fluxIt(work, 'On both faces.'),
    {
      id: 'feed',
      say: 'Feed fresh solder into every hole.',
      watch: 'Old solder alone does not carry the heat through.',
      tap: 'fed',
      mark: 'done',
    },
    heatOn(`Vacuum iron at ${set_C} °C on the first pin.`),
    {
      id: 'pins',
      say: 'Molten through? Wait, turn the tip, then suck.',
      watch: `${stays_s} s more once it is molten. Ground pins last longest.`,
      tap: 'this pin empty',
      mark: 'done',
      walk: packageById(work.target.package).terminals.map((t) => t.id),
    },
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

export const vacuum = definePhase<'vacuum', VacuumSettings>({
  kind: 'vacuum',
  name: 'Vacuum iron',
  settings: vacuumSettings,
  form: {
    usual: [
      ...tipFields('Power of a tip'),
      { key: 'dwell_s', label: 'Stays once molten', unit: 's', range: dwell_s },
      { key: 'most_s', label: 'on to the next after', unit: 's', range: most_s, optional: true },
    ],
    moreTitle: 'Tip and way of working',
    more: [tipField],
  },
  line: ({ set_C }, panel) => `${formatTemperature(set_C, panel)}, pin by pin`,
  irons: ({ power_W, set_C }) => [{ power_W, set_C }],
  fromAbove: false,
  bridges: false,
  inTurn: true,
  opensHoles: true,
  uncertain: uncertainTip,
  needs: ({ set_C, tip_mm }) => ({
    tools: ['vacuum iron', `tip ${tip_mm} mm`],
    setPoints: [{ id: 'iron', label: 'iron temperature', value: set_C, unit: '°C', tolerance: 5 }],
  }),
  change_s: 5,
  say,
  cautions: [],
  wayOut: 'Longer on each pin, a wider tip or warming from below would change that.',
  spare: 'Cover it,',
});
