/** How it is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import { tipField, tipFields } from '../fields.ts';
import type { Form } from '../declaration.ts';

const { ratio, most_s } = RANGES.spike;
const [set, width, power] = tipFields('Iron power', 'iron');

export const form: Form = {
  usual: [
    set,
    { key: 'ratio', label: 'Worked in', unit: '×', range: ratio },
    width,
    power,
    { key: 'most_s', label: 'Longest on one place', unit: 's', range: most_s },
  ],
  moreTitle: 'Solder and tip',
  more: [{ key: 'alloy', label: 'Solder worked in', alloy: true, optional: true, hint: 'Sn63Pb37' }, tipField],
};
