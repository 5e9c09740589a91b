/** Pin by pin: each hole melted through by a hollow tip, then sucked empty. */
import { formatTemperature } from '../../../ground/index.ts';
import { packageById } from '../../../packages/index.ts';
import { tipOn, WIRE } from '../../kit.ts';
import { RANGES } from '../../ranges.ts';
import { definePhase } from '../declaration.ts';
import { reachOf } from '../rows.ts';
import { COUNT, fluxIt, heatOff, heatOn, type Instruction, lift, type Workplace } from '../instruction.ts';
import { tipField, tipFields, uncertainTip } from '../tip.ts';
import { type VacuumSettings, vacuumSettings } from './settings.ts';

const { dwell_s, most_s } = RANGES.iron;

function say({ set_C, dwell_s: stays_s, fresh = true }: VacuumSettings, work: Workplace): Instruction[] {
  const lap: Instruction[] = [
    fluxIt(work, 'On both faces.'),
    heatOn(
      `Vacuum iron at ${set_C} °C on the first pin.`,
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
  tool: 'vacuum',
  wants: ({ fresh = true }) => [
    { tool: 'vacuum', name: 'vacuum iron' },
    ...(fresh ? [WIRE.solder] : []),
    { tool: 'flux', name: 'flux' },
  ],
  onBench: (s, kit) => tipOn(s, kit, 'vacuum'),
  limbs: () => ({ left: 'wire, then a nudge at the pin', right: 'vacuum iron upright on the pin', foot: 'suction' }),
  unfit: (packageId) => (reachOf(packageId).pins ? undefined : 'its joints lie in no holes'),
  line: ({ set_C }, panel) => `${formatTemperature(set_C, panel)}, pin by pin`,
  irons: ({ power_W, set_C }) => [{ power_W, set_C }],
  paced: true,
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
