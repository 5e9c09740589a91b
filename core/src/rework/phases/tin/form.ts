/** How it is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import { shareField, tipField, tipFields } from '../fields.ts';
import type { Form } from '../declaration.ts';

const { share } = RANGES.fit;

export const form: Form = {
  usual: [shareField, ...tipFields('Iron power', 'iron')],
  moreTitle: 'Pad, solder and tip',
  more: [
    { key: 'pad_share', label: 'on a pad under the body', unit: '×', range: share, optional: true },
    { key: 'alloy', label: 'Solder', alloy: true, optional: true, hint: 'Sn63Pb37' },
    tipField,
  ],
};
