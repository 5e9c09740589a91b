/** A can turned until its leads break: for cans that leak so badly that no joint melts any more. */
import { packageById } from '../../../packages/index.ts';
import { TWIST_S } from '../../handTimes.ts';
import { definePhase } from '../declaration.ts';
import { anyOf } from '../tears.ts';
import { type TwistSettings, twistSettings } from './settings.ts';

/** A land torn, each, on sound and on corroded metal (judgement). */
const TEARS = { sound: 0.04, corroded: 0.12 } as const;

export const twist = definePhase<'twist', TwistSettings>({
  kind: 'twist',
  name: 'Twisted off',
  settings: twistSettings,
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
  cautions: [
    {
      steps: ['remove'],
      text: 'Twisting tears lands, corroded ones most: never the first way, never for a part that is to live.',
    },
  ],
  wayOut: '',
  spare: '',
});
