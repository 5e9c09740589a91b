/** The board warmed from below, all of it or through an opening. */
import { formatTemperature } from '../../../ground/index.ts';
import { RANGES, within } from '../../ranges.ts';
import { definePhase } from '../declaration.ts';
import { type BelowSettings, belowSettings } from './settings.ts';
import { infrared_W_m2, SOURCES, USUAL_H } from './source.ts';

const { below: range } = RANGES;
/** A source's own dial, and how the board lies over it, are off by so much (estimates): K, and shares. */
const [DIAL_K, CONTACT] = [10, 0.3];
const round = (mm: number) => Number(mm.toFixed(1));

export const below = definePhase<'below', BelowSettings>({
  kind: 'below',
  name: 'Heat from below',
  settings: belowSettings,
  tool: 'below',
  wants: () => [{ tool: 'below', name: 'heat from below' }],
  onBench(settings, { kit }) {
    const own = kit.filter((i) => i.tool === 'below');
    const item = own.find((i) => i.kind === settings.source) ?? own[0];
    if (!item) return settings;
    const { flux_W_m2, ...rest } = settings;
    const focused = item.kind === 'infrared' && flux_W_m2 !== undefined ? { flux_W_m2 } : {};
    return { ...rest, ...focused, source: item.kind, T_C: within(settings.T_C, item.T_C) };
  },
  limbs: () => ({ left: 'free', right: 'free' }),
  line: ({ source, T_C, window }, panel) =>
    `${SOURCES[source]} at ${formatTemperature(T_C, panel)}${window ? `, opening ${round(window.w_mm)} × ${round(window.h_mm)} mm` : ''}`,
  irons: () => [],
  fromAbove: true,
  bridges: false,
  uncertain: [
    {
      name: 'temperature of what heats from below',
      settings: (s, z) => ({ T_C: within(s.T_C + DIAL_K * z, range.T_C) }),
    },
    {
      name: 'contact with what heats from below',
      settings: ({ source, h, flux_W_m2, T_C }, z) =>
        source === 'infrared'
          ? { flux_W_m2: within((flux_W_m2 ?? infrared_W_m2(T_C)) * (1 + CONTACT * z), range.flux_W_m2) }
          : { h: within((h ?? USUAL_H[source]) * (1 + CONTACT * z), range.h) },
    },
  ],
  needs: ({ source, T_C, window }) => ({
    tools: [
      SOURCES[source],
      ...(window ? [`mask under the board with an opening of ${round(window.w_mm)} × ${round(window.h_mm)} mm`] : []),
    ],
    setPoints: [{ id: 'below', label: 'heat from below', value: T_C, unit: '°C', tolerance: 10 }],
  }),
  change_s: 5,
  cautions: [
    {
      steps: ['remove', 'fit'],
      text: 'The whole board gets hot from below: plugs, labels, cells and cans on it too. Gloves to move it.',
    },
  ],
  wayOut: 'A hotter source, or air from above with it, would change that.',
  spare: 'Keep it off the heat, over an opening that spares it,',
});
