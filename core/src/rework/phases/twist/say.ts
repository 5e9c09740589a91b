/** What hands are told: a can turned until its leads break: for cans that leak so badly that no joint melts any more. */
import { COUNT, type Say } from '../instruction.ts';
import type { TwistSettings } from './settings.ts';

export const say: Say<TwistSettings> = () => [
  {
    id: 'grip',
    say: 'Goggles on. Press it down, grip it low.',
    watch: 'Only for a can that is scrap: any other way first.',
    tap: 'gripped',
    mark: 'heat-on',
  },
  {
    id: 'turn',
    say: 'Turn a quarter to and fro. Never tilt, never pull.',
    watch: 'Down all the while. Its leads break above the lands after a few turns.',
    tap: 'turns freely',
    mark: 'all-wet',
  },
  {
    id: 'lift',
    say: 'Lift the can off.',
    watch: 'It still holds? Turn on, do not tilt.',
    tap: 'off',
    mark: 'lifted',
  },
  {
    id: 'heat-off',
    say: 'Wipe up what leaked. Gloves stay on.',
    watch: 'Alcohol, then water on skin at once.',
    tap: 'wiped',
    mark: 'heat-off',
  },
  {
    ...COUNT,
    say: 'Stubs off with iron and fresh solder. Lands whole?',
    watch: 'Prove every track and via under the stain.',
  },
];
