/** What hands are told: one tip, one pool of solder over all joints of a small part. */
import { writeComposition } from '../../../alloys/index.ts';
import { LEADED } from '../../solders.ts';
import { setText } from '../../dials.ts';
import { COUNT, fluxIt, heating, heatOff, heatOn, lift, LIFT_LATE, NO_FORCE, type Say } from '../instruction.ts';
import type { PoolSettings } from './settings.ts';

export const say: Say<PoolSettings> = ({ set_C, pool_mm3: mm3, alloy = LEADED }, work) => [
  fluxIt(work, 'A drop over the whole part.'),
  heatOn(
    `Iron at ${setText(set_C, 'iron', work.panel)} across it. Feed a pool.`,
    `About ${mm3} mm³ of ${writeComposition(alloy)}, over every joint at once. The clock starts with your tap.`,
  ),
  ...heating(work, 'Tip flat across the part, pool over every joint.'),
  lift('It swims? Lift it off with the tip.', `It comes away with the tip. ${NO_FORCE}`, LIFT_LATE),
  heatOff('Iron into its stand.', 'Wipe the part off the tip first.', 'iron away'),
  COUNT,
];
