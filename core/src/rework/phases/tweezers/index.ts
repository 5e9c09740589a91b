/** Both ends of a part gripped at once by two heated tips. */
import { setText } from '../../dials.ts';
import { definePhase } from '../declaration.ts';
import { ironSetPoint, ironTools, uncertainTip } from '../tip.ts';
import { type TweezersSettings, tweezersSettings } from './settings.ts';

export const tweezers = definePhase<'tweezers', TweezersSettings>({
  kind: 'tweezers',
  name: 'Hot tweezers',
  settings: tweezersSettings,
  tool: 'tweezers',
  wants: () => [
    { tool: 'tweezers', name: 'hot tweezers' },
    { tool: 'flux', name: 'flux' },
  ],
  onBench: (s, bench) => bench.tip(s, 'tweezers'),
  limbs: () => ({ left: 'board held', right: 'hot tweezers: the part comes away in them' }),
  line: ({ set_C }, panel) => `${setText(set_C, 'tweezers', panel)}, both ends at once`,
  irons: ({ power_W, set_C }) => [0, 1].map(() => ({ power_W, set_C })),
  fromAbove: false,
  bridges: false,
  uncertain: uncertainTip,
  needs: (iron) => ({
    tools: ironTools(iron, 'hot tweezers'),
    setPoints: [ironSetPoint(iron.set_C, 'tweezers')],
  }),
  change_s: 5,
  cautions: [],
  wayOut: 'Wider or hotter tips would change that, warming from below most of all.',
  spare: 'Cover it,',
});
