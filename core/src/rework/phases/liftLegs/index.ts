/** Gull legs lifted one by one, with iron, braid and a needle. */
import { packageById } from '../../../packages/index.ts';
import { LIFT_LEG_S } from '../../handTimes.ts';
import { setText } from '../../dials.ts';
import { definePhase } from '../declaration.ts';
import { anyOf, pitchOf } from '../tears.ts';
import { ironSetPoint, ironTools, uncertainTip } from '../tip.ts';
import { type LiftLegsSettings, liftLegsSettings } from './settings.ts';

/** A land torn, a leg, at ordinary and at fine pitch (judgement). */
const TEARS = { leg: 0.002, fine: 0.005 } as const;

export const liftLegs = definePhase<'lift-legs', LiftLegsSettings>({
  kind: 'lift-legs',
  name: 'Legs lifted',
  settings: liftLegsSettings,
  tool: 'iron',
  wants: () => [
    { tool: 'iron', name: 'soldering iron' },
    { tool: 'braid', name: 'braid' },
    { tool: 'flux', name: 'flux' },
  ],
  onBench: (s, bench) => bench.tip(s),
  limbs: () => ({ left: 'needle behind the leg', right: 'iron on braid' }),
  line: ({ set_C }, panel) => `${setText(set_C, 'iron', panel)}, leg by leg`,
  irons: ({ power_W, set_C }) => [{ power_W, set_C }],
  paced: true,
  fromAbove: false,
  bridges: false,
  inTurn: true,
  unfit: (packageId) =>
    packageById(packageId).terminals.every((t) => t.kind === 'gull')
      ? undefined
      : 'it has joints that are no gull legs',
  tears(packageId) {
    const { terminals } = packageById(packageId);
    return anyOf(terminals.length, pitchOf(terminals) <= LIFT_LEG_S.fine_mm + 0.01 ? TEARS.fine : TEARS.leg);
  },
  uncertain: uncertainTip,
  needs: (iron) => ({
    tools: ['braid', 'needle', ...ironTools(iron)],
    setPoints: [ironSetPoint(iron.set_C)],
  }),
  change_s: 5,
  cautions: [],
  wayOut: 'A hotter or wider tip or warming from below would change that.',
  spare: 'Cover it,',
});
