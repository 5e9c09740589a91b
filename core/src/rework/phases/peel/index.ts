/** A tail peeled off along its row under a light pull, the air a little ahead. */
import { packageById } from '../../../packages/index.ts';
import { air } from '../air/index.ts';
import { flowText, setText } from '../../dials.ts';
import { definePhase, type Uncertain } from '../declaration.ts';
import { anyOf } from '../tears.ts';
import { type PeelSettings, peelSettings } from './settings.ts';

/** A way torn while the air leads (judgement); lifted straight up it is ten times that. */
const TEARS = 0.003;

export const peel = definePhase<'peel', PeelSettings>({
  kind: 'peel',
  name: 'Peeled along the row',
  settings: peelSettings,
  tool: 'air',
  wants: () => [
    { tool: 'air', name: 'hot-air station' },
    { tool: 'spring', name: 'light spring or clip' },
    { tool: 'flux', name: 'flux' },
  ],
  onBench: (s, bench) => bench.air(s),
  limbs: () => ({ left: 'spring at the free end, along the board', right: 'air, ahead of the click' }),
  line: ({ set_C, flow_L_min, standoff_mm }, panel) =>
    `${setText(set_C, 'air', panel)}, ${flowText(flow_L_min, panel)}, ${standoff_mm} mm, along the row`,
  irons: () => [],
  paced: true,
  fromAbove: true,
  bridges: false,
  inTurn: true,
  unfit: (packageId) =>
    packageById(packageId).terminals.some((t) => t.kind === 'flex') ? undefined : 'only a tail can be peeled',
  tears: (packageId) => anyOf(packageById(packageId).terminals.length, TEARS),
  // the settings have the same names as those of air
  uncertain: air.uncertain as unknown as readonly Uncertain<PeelSettings>[],
  needs: (s, station) => {
    const { tools, setPoints } = air.needs({ ...s, sweep_mm: 0 }, station);
    return { tools: [...tools, 'light spring or clip'], setPoints };
  },
  change_s: 5,
  cautions: air.cautions,
  wayOut: air.wayOut,
  spare: air.spare,
});
