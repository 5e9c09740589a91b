/** What hands are told while air melts the joints. */
import { packageById } from '../../../packages/index.ts';
import { dialOf, setText } from '../../dials.ts';
import {
  COUNT,
  fluxIt,
  heating,
  heatOff,
  heatOn,
  type Instruction,
  jointName,
  lift,
  LIFT_LATE,
  someJoints,
  type Workplace,
} from '../instruction.ts';
import type { AirSettings } from './settings.ts';

/** "390 °C, 45 litres", or how far an unmarked dial is turned up. */
function dials({ panel }: Workplace, { set_C, flow_L_min }: AirSettings): string {
  const { value, unit } = dialOf(flow_L_min, panel);
  return `${setText(set_C, 'air', panel)}, ${unit === '%' ? `dial at ${value} %` : `${value} litres`}`;
}

export function sayRemoval(settings: AirSettings, work: Workplace): Instruction[] {
  return [
    fluxIt(work, 'A thin, even film.'),
    heatOn(
      `Air on at ${dials(work, settings)}. Start wide.`,
      `Nozzle ${settings.nozzle_mm} mm, ${settings.standoff_mm} mm above the board. The clock starts with your tap.`,
    ),
    ...heating(
      work,
      work.held
        ? `Air on what still holds: ${someJoints(work.held)}.`
        : `${settings.sweep_deg === undefined ? 'Circle the body' : 'To and fro along it'}, ${settings.standoff_mm} mm above it.`,
    ),
    lift(
      'Nudge it. It floats? Lift straight up.',
      'Heat stays on while lifting. No force: one solid joint tears its pad.',
      LIFT_LATE,
    ),
    heatOff(
      'Heat off. Hold the part clear and level.',
      'Handle into its stand, fan runs on. The board stays hot for minutes.',
      'heat off',
    ),
    COUNT,
  ];
}

/** From the lands to the part lying on molten solder; what goes before and after is the same for all tools. */
export function sayFitting(settings: AirSettings, work: Workplace): { before: Instruction; heat: Instruction[] } {
  const { terminals } = packageById(work.target.package);
  return {
    before: {
      id: 'flux',
      say: 'Thin film of solder on the lands, then flux.',
      watch: terminals.some((t) => t.kind === 'pad')
        ? 'A film only on the centre pad, or the edges will not touch.'
        : 'Even height: a fat land tilts the part.',
      tap: 'fluxed',
      mark: 'done',
    },
    heat: [
      heatOn(
        `Air on at ${dials(work, settings)}. Stay off.`,
        `${settings.standoff_mm} mm above the board, so that nothing is blown away.`,
      ),
      ...heating(work, `Circle wide, ${settings.standoff_mm} mm above it.`).map((i) => ({
        ...i,
        ...(i.id === 'all-wet' ? { watch: `${i.watch} It settles by itself.` } : {}),
        phases: i.phases && {
          ...i.phases,
          look: {
            say: 'Look now. Has it settled on its lands?',
            watch: `Last to melt: ${jointName(work, work.guide?.last)}.`,
          },
        },
      })),
      heatOff('Heat off. Do not touch the part.', 'Draw the air straight up.', 'heat off'),
    ],
  };
}
