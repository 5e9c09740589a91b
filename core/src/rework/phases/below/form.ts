/** How it is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import type { Form } from '../declaration.ts';

const { below: range } = RANGES;

export const form: Form = {
  usual: [
    {
      key: 'source',
      label: 'Source',
      choices: [
        ['plate', 'hot plate'],
        ['infrared', 'infrared'],
        ['air', 'air'],
      ],
    },
    { key: 'T_C', label: 'Set-point', unit: 'temperature', range: range.T_C },
  ],
  moreTitle: 'Opening',
  more: (['x', 'y', 'w', 'h'] as const).map((k) => ({
    key: `window.${k}_mm`,
    label: { x: 'Opening from the left', y: 'from the top', w: 'Opening, wide', h: 'Opening, high' }[k],
    unit: 'mm' as const,
    optional: true as const,
  })),
  missing(texts) {
    const keys = ['window.x_mm', 'window.y_mm', 'window.w_mm', 'window.h_mm'];
    const empty = (key: string) => (texts[key] ?? '').trim() === '';
    if (keys.every(empty)) return {};
    return Object.fromEntries(keys.filter(empty).map((k) => [k, 'all four, or none']));
  },
  tidy(settings) {
    if (settings.window && Object.keys(settings.window).length === 0) delete settings.window;
  },
};
