/** What hands are told: both ends of a part gripped at once by two heated tips. */
import { setText } from '../../dials.ts';
import { COUNT, fluxIt, heating, heatOff, heatOn, lift, LIFT_LATE, NO_FORCE, type Say } from '../instruction.ts';
import type { TweezersSettings } from './settings.ts';

export const say: Say<TweezersSettings> = ({ set_C }, work) => [
  fluxIt(work, 'A thin, even film.'),
  {
    id: 'feed',
    say: 'Fresh solder on both ends.',
    watch: 'It wets the tips and carries their heat.',
    limbs: { left: 'wire onto each end', right: 'iron on its land' },
    tap: 'fed',
    mark: 'done',
  },
  heatOn(
    `Hot tweezers at ${setText(set_C, 'tweezers', work.panel)}. Grip both ends.`,
    'Both tips flat on their joints. The clock starts with your tap.',
  ),
  ...heating(work, 'Hold both ends. Do not squeeze.'),
  lift('It turns freely? Lift it straight up.', NO_FORCE, LIFT_LATE),
  heatOff('Tweezers into their stand.', 'Tin both tips.', 'tweezers away'),
  COUNT,
];
