/** How it is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import { shareField, tipField, tipFields } from '../fields.ts';
import type { Form } from '../declaration.ts';

export const form: Form = {
  usual: [
    ...tipFields('Iron power', 'iron'),
    shareField,
    { key: 'most_s', label: 'On one joint at most', unit: 's', range: RANGES.iron.most_s },
  ],
  moreTitle: 'Solder and tip',
  more: [{ key: 'alloy', label: 'Solder', alloy: true, optional: true, hint: 'Sn63Pb37' }, tipField],
};
