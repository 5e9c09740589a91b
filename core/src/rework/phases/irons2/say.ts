/** What hands are told: two irons on opposite rows at once, until the part floats between them. */
import { setText } from '../../dials.ts';
import { COUNT, heating, heatOff, heatOn, lift, type Say, type Workplace } from '../instruction.ts';
import { laid, strokedFor, strokes } from '../stroke/say.ts';
import type { StrokeSettings } from '../stroke/settings.ts';

/** Each iron has a dial of its own. */
function bothAt(set_C: number, { panel }: Workplace): string {
  const [one, other] = (['iron', 'iron2'] as const).map((dial) => setText(set_C, dial, panel));
  return one === other ? `Both irons on at ${one}` : `Irons on at ${one} and ${other}`;
}

export const say: Say<StrokeSettings> = (settings, work) => [
  ...laid(settings, work),
  heatOn(`${bothAt(settings.set_C, work)}. One on each row.`, strokedFor(settings)),
  ...heating(work, strokes({ ...settings, irons: 2 })),
  lift(
    'Floats? Slide it aside between the tips.',
    'Nobody has a third hand: it goes onto free mask, not into the air.',
    'Freezing. Irons back on, do not push.',
  ),
  heatOff('Both irons into their stands.', 'Wipe the solder off the tips first.', 'irons away'),
  COUNT,
];
