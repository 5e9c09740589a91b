/** How it is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import { tipFields } from '../fields.ts';
import type { Form } from '../declaration.ts';

const { dwell_s, most_s } = RANGES.iron;

export const form: Form = {
  usual: [
    ...tipFields('Power of a tip', 'vacuum'),
    { key: 'dwell_s', label: 'Stays once molten', unit: 's', range: dwell_s },
    { key: 'most_s', label: 'on to the next after', unit: 's', range: most_s, optional: true },
  ],
  moreTitle: '',
  more: [],
};
