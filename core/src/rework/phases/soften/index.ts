/** A label, coating or glue warmed until it gives, and taken off: work of its own before anything melts. */
import { setText } from '../../dials.ts';
import { RANGES, within } from '../../ranges.ts';
import { air } from '../air/index.ts';
import { definePhase } from '../declaration.ts';
import { type SoftenSettings, softenSettings } from './settings.ts';

/** A label's glue, a coating or a glue gives so far from what is said, K (estimate). */
const GIVES_K = 15;

export const soften = definePhase<'soften', SoftenSettings>({
  kind: 'soften',
  name: 'Warmed until it gives',
  settings: softenSettings,
  tool: 'air',
  wants: () => [{ tool: 'air', name: 'hot-air station' }],
  onBench: (s, bench) => bench.air(s),
  limbs: () => ({ left: 'wooden pick or tweezers at its edge', right: 'air handle' }),
  line: ({ what, soft_C, set_C }, panel) =>
    `${what} off at about ${Math.round(soft_C)} °C, ${setText(set_C, 'air', panel)}`,
  irons: () => [],
  paced: true,
  fromAbove: true,
  bridges: false,
  uncertain: [
    {
      name: 'where it gives',
      settings: ({ soft_C }, z) => ({ soft_C: within(soft_C + GIVES_K * z, RANGES.soften.soft_C) }),
    },
  ],
  needs(settings, station) {
    const { tools, setPoints } = air.needs(settings, station);
    return { tools: [...tools, 'wooden pick'], setPoints };
  },
  change_s: 5,
  cautions: [
    {
      steps: ['remove'],
      text: 'Warm coating and glue give off fumes: extraction on. Not hotter than it takes to give: it chars, and polyurethane gives off isocyanates.',
    },
  ],
  wayOut: 'Longer, or a solvent made for it, would change that.',
  spare: 'Cover it, turn the nozzle away from it,',
});
