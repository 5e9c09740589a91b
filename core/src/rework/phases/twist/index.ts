/** A can turned until its leads break: for cans that leak so badly that no joint melts any more. */
import { packageById } from '../../../packages/index.ts';
import { TWIST_S } from '../../handTimes.ts';
import { definePhase } from '../declaration.ts';
import { COUNT } from '../instruction.ts';
import { anyOf } from '../tears.ts';
import { type TwistSettings, twistSettings } from './settings.ts';

/** A land torn, each, on sound and on corroded metal (judgement). */
const TEARS = { sound: 0.04, corroded: 0.12 } as const;

export const twist = definePhase<'twist', TwistSettings>({
  kind: 'twist',
  name: 'Twisted off',
  settings: twistSettings,
  form: { usual: [], moreTitle: '', more: [] },
  tool: 'hand',
  wants: () => [{ tool: 'pliers', name: 'pliers with flat jaws' }],
  limbs: () => ({ left: 'board held down beside it', right: 'pliers round the can' }),
  line: () => `turned only, about ${TWIST_S} s`,
  irons: () => [],
  paced: true,
  fromAbove: true,
  bridges: false,
  unfit(packageId) {
    const { shape, terminals } = packageById(packageId);
    return shape === 'round' && terminals.length === 2 && !terminals.some((t) => t.drill_mm)
      ? undefined
      : 'only a can that stands flat on two lands can be turned';
  },
  destroys: 'its leads are broken',
  tears: (packageId, corroded) =>
    anyOf(packageById(packageId).terminals.length, corroded ? TEARS.corroded : TEARS.sound),
  uncertain: [],
  needs: () => ({ tools: ['pliers with flat jaws', 'goggles'], setPoints: [] }),
  change_s: 5,
  say: () => [
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
  ],
  cautions: [
    {
      steps: ['remove'],
      text: 'Twisting tears lands, corroded ones most: never the first way, never for a part that is to live.',
    },
  ],
  wayOut: '',
  spare: '',
});
