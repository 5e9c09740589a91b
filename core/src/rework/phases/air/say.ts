/** What hands are told while air melts the joints. */
import { dialOf, flowText, setText } from '../../dials.ts';
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
  type Say,
  someJoints,
  type Workplace,
} from '../instruction.ts';
import type { AirSettings } from './settings.ts';

/** "390 °C, 45 litres", or how far an unmarked dial is turned up. */
function dials({ panel }: Workplace, { set_C, flow_L_min }: AirSettings): string {
  const { value, unit } = dialOf(flow_L_min, panel);
  return `${setText(set_C, 'air', panel)}, ${unit === '%' ? `dial at ${value} %` : `${value} litres`}`;
}

/** A direction as on the face of a clock, seen from the working side. */
const oClock = (deg: number): string => `${Math.round((((3 - deg / 30) % 12) + 11) % 12) + 1} o’clock`;

/** How the hand moves, short enough for a sentence at the bench. */
function moving({ sweep_deg, standoff_mm, pulse }: AirSettings): string {
  const way = sweep_deg === undefined ? 'Circle the body' : 'To and fro along it';
  return `${way}, ${standoff_mm} mm above${pulse ? `: ${pulse.on_s} s on, ${pulse.off_s} off` : ' it'}.`;
}

/** All that there is to set besides the dials, told once before the heat. */
function held(settings: AirSettings): string {
  const { nozzle_mm, standoff_mm, mouth, sweep_mm, sweep_deg, tilt_deg = 0, approach_deg = 0, pulse } = settings;
  const nozzle = mouth ? `The ${mouth.w_mm} × ${mouth.h_mm} mm nozzle` : `Nozzle ${nozzle_mm} mm`;
  const lean = tilt_deg > 0 ? `, leaning ${tilt_deg}° from ${oClock(approach_deg)}` : '';
  const line = sweep_deg === undefined ? 'from its middle' : `either way, along ${oClock(sweep_deg)}`;
  const moves = sweep_mm > 0 ? ` The hand goes ${sweep_mm} mm ${line}.` : ' The hand stays over its middle.';
  const pulses = pulse ? ` ${pulse.on_s} s on it, ${pulse.off_s} s away, by turns.` : '';
  return `${nozzle}, ${standoff_mm} mm above the board${lean}.${moves}${pulses}`;
}

/** What changes on the way: each stage until the next. */
const stagesOf = ({ stages }: AirSettings, { panel }: Workplace): Instruction['later'] =>
  stages?.map(({ from_s, set_C, flow_L_min, standoff_mm, sweep_mm }) => {
    const changes = [
      standoff_mm === undefined ? '' : `${standoff_mm} mm above it`,
      set_C === undefined ? '' : setText(set_C, 'air', panel),
      flow_L_min === undefined ? '' : flowText(flow_L_min, panel),
      sweep_mm === undefined ? '' : `moving ${sweep_mm} mm`,
    ];
    const say = `From ${from_s} s: ${changes.filter(Boolean).join(', ')}.`;
    return { from_s, say, watch: 'Like this until it melts, or until told otherwise.' };
  });
/** The stages, for those who want to know before they begin. */
const ahead = (later: Instruction['later']): string => (later ?? []).map((l) => ` ${l.say}`).join('');

function sayRemoval(settings: AirSettings, work: Workplace): Instruction[] {
  const later = stagesOf(settings, work);
  return [
    fluxIt(work, 'A thin, even film.'),
    heatOn(
      `Air on at ${dials(work, settings)}. Start wide.`,
      `${held(settings)}${ahead(later)} The clock starts with your tap.`,
    ),
    ...heating(work, work.held ? `Air on what still holds: ${someJoints(work.held)}.` : moving(settings), later),
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

/** The part on its lands in flux, until it has settled; or, before it is there, the lands alone. */
function sayFitting(settings: AirSettings, work: Workplace): Instruction[] {
  const later = stagesOf(settings, work);
  const on = heatOn(
    `Air on at ${dials(work, settings)}. Stay off.`,
    `${held(settings)}${ahead(later)} Far enough that nothing is blown away.`,
  );
  const lands = work.until && 'loose' in work.until && work.until.loose !== 'all';
  if (lands)
    return [
      on,
      {
        id: 'lands-wet',
        say: 'Air on the lands until all are bright.',
        watch: 'The part is in your tweezers, turned as it goes on.',
        tap: 'all bright',
        mark: 'done',
      },
    ];
  return [
    on,
    ...heating(work, moving(settings), later).map((i) => ({
      ...i,
      ...(i.id === 'all-wet' ? { watch: `${i.watch} It settles by itself: nudge it to its middle.` } : {}),
      phases: i.phases && {
        ...i.phases,
        look: {
          say: 'Look now. Has it settled on its lands?',
          watch: `Last to melt: ${jointName(work, work.guide?.last)}.`,
        },
      },
    })),
    ...(work.goesOn ? [] : [heatOff('Heat off. Do not touch the part.', 'Draw the air straight up.', 'heat off')]),
  ];
}

export const say: Say<AirSettings> = (settings, work) =>
  work.fitting ? sayFitting(settings, work) : sayRemoval(settings, work);
