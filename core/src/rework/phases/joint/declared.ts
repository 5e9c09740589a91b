/** What all iron work at the joints of a part that goes on declares alike: one joint after the other, wire fed into each. */
import { writeComposition } from '../../../alloys/index.ts';
import { packageById } from '../../../packages/index.ts';
import { LEADED } from '../../solders.ts';
import { setText } from '../../dials.ts';
import { RANGES, within } from '../../ranges.ts';
import type { PhaseKind } from '../declaration.ts';
import { outOfReach } from '../rows.ts';
import { ironSetPoint, ironTools, uncertainTip } from '../tip.ts';
import { LAID } from '../tin/index.ts';
import { type JointSettings, jointSettings } from './settings.ts';

export const atJoints = {
  settings: jointSettings,
  tool: 'iron',
  wants: (_, wire) => [{ tool: 'iron', name: 'soldering iron' }, wire.solder, { tool: 'flux', name: 'flux' }],
  onBench: (s, bench) => bench.tip(s),
  limbs: () => ({ left: 'wire', right: 'iron' }),
  line: ({ set_C, tip_mm }, panel) => `${setText(set_C, 'iron', panel)}, ${tip_mm} mm tip`,
  irons: ({ power_W, set_C }) => [{ power_W, set_C }],
  paced: true,
  fromAbove: false,
  bridges: false,
  inTurn: true,
  unfit(packageId) {
    const what = outOfReach(packageId);
    return what && `an iron cannot reach ${what}`;
  },
  brings: ({ share, alloy = LEADED }, packageId, own_mm3 = new Map()) =>
    new Map(
      packageById(packageId).terminals.map((t) => [t.id, { alloy, mm3: share * (own_mm3.get(t.id) ?? t.volume_mm3) }]),
    ),
  uncertain: [
    ...uncertainTip,
    {
      name: 'solder fed',
      settings: (s, z) => ({ share: within(s.share * (1 + LAID * z), RANGES.fit.share) }),
    },
  ],
  needs: ({ alloy = LEADED, ...iron }) => ({
    tools: [`${writeComposition(alloy)} wire`, ...ironTools(iron)],
    setPoints: [ironSetPoint(iron.set_C)],
  }),
  change_s: 5,
  cautions: [],
  wayOut: 'A wider or hotter tip, or warming from below would change that.',
  spare: 'Cover it,',
} satisfies Omit<PhaseKind<string, JointSettings>, 'kind' | 'name'>;
