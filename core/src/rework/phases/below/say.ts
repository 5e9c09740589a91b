/** What hands are told: the board warmed from below, all of it or through an opening. */
import { formatTemperature } from '../../../ground/index.ts';
import {
  COUNT,
  heatOff,
  heating,
  heatOn,
  type Instruction,
  lift,
  LIFT_LATE,
  NO_FORCE,
  type Workplace,
} from '../instruction.ts';
import type { BelowSettings } from './settings.ts';
import { SOURCES } from './source.ts';

const mm = (value: number) => value.toFixed(1);

/** Warming up comes before another tool; alone it takes the part off. */
export function say(settings: BelowSettings, work: Workplace): Instruction[] {
  const { source, T_C, window } = settings;
  const over = window ? 'over the opening' : 'on it';
  const opening = window
    ? ` The opening is ${mm(window.w_mm)} × ${mm(window.h_mm)} mm, its middle ${mm(window.x_mm + window.w_mm / 2)} mm from the board’s left and ${mm(window.y_mm + window.h_mm / 2)} mm from its top, seen from the upper side.`
    : '';
  if (!work.until || 'loose' in work.until)
    return [
      heatOn(
        `Board ${over}: ${SOURCES[source]} at ${formatTemperature(T_C, work.panel)}.`,
        `Parts below clear of the heat.${opening} The clock starts with your tap.`,
      ),
      ...heating(work, 'Heat from below. Hands off the part.'),
      lift('It springs back from a nudge? Lift it.', NO_FORCE, LIFT_LATE),
      heatOff('Board off the heat, level.', 'It stays hot for minutes.', 'heat off'),
      COUNT,
    ];
  const C = 'C' in work.until ? work.until.C : null;
  return [
    {
      id: 'warm-up',
      say: `Board ${over}: ${SOURCES[source]} at ${formatTemperature(T_C, work.panel)}.`,
      watch:
        C === null
          ? `It stays on while you work from above.${opening}`
          : `Until flux runs round the part, about ${formatTemperature(C, work.panel)} on the board. It stays on while you work.${opening}`,
      tap: 'board warm',
      mark: 'done',
    },
  ];
}
