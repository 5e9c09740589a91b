/** What hands are told: two irons on opposite rows at once, until the part floats between them. */
import { setText } from '../../dials.ts';
import { COUNT, heating, heatOff, heatOn, lift, type Say } from '../instruction.ts';
import type { StrokeSettings } from '../stroke/settings.ts';

export const say: Say<StrokeSettings> = (settings, work) => [
  heatOn(`Both irons on at ${setText(settings.set_C, 'iron', work.panel)}. One on each row.`),
  ...heating(work, 'Stroke both rows at once, a second each.'),
  lift(
    'Floats? Slide it aside between the tips.',
    'Nobody has a third hand: it goes onto free mask, not into the air.',
    'Freezing. Irons back on, do not push.',
  ),
  heatOff('Both irons into their stands.', 'Wipe the solder off the tips first.', 'irons away'),
  COUNT,
];
