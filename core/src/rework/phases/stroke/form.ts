/** How it is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import { tipField, tipFields } from '../fields.ts';
import type { Form } from '../declaration.ts';

const { bead } = RANGES;
const [set, width, power] = tipFields('Iron power', 'iron');

export const form: Form = {
  usual: [
    set,
    { key: 'bead_mm3_mm', label: 'Bead laid before', unit: 'mm³', range: bead.bead_mm3_mm, optional: true },
    width,
    power,
    { key: 'stroke_s', label: 'Stroking', unit: 's', range: bead.stroke_s },
  ],
  moreTitle: 'Tip and way of working',
  more: [
    { key: 'alloy', label: 'Alloy laid before', alloy: true, optional: true, hint: 'Bi52.5Pb32Sn15.5' },
    tipField,
    {
      key: 'irons',
      label: 'Irons',
      numeric: true,
      choices: [
        ['1', 'one'],
        ['2', 'two, opposite'],
      ],
    },
    { key: 'pass_s', label: 'A stroke takes', unit: 's', range: bead.pass_s, optional: true },
    { key: 'rest_s', label: 'rest at its ends', unit: 's', range: bead.rest_s, optional: true },
  ],
};
