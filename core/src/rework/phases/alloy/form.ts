/** How it is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import { tipField, tipFields } from '../fields.ts';
import type { Form } from '../declaration.ts';

const { bead } = RANGES;
const [set, width, power] = tipFields('Iron power', 'iron');

export const form: Form = {
  usual: [
    set,
    { key: 'bead_mm3_mm', label: 'Bead, a mm of row', unit: 'mm³', range: bead.bead_mm3_mm },
    { key: 'wire_mm', label: 'Wire', unit: 'mm', range: bead.wire_mm, optional: true, hint: '1' },
    width,
    power,
  ],
  moreTitle: 'Alloy and tip',
  more: [{ key: 'alloy', label: 'Alloy of the bead', alloy: true, optional: true, hint: 'Bi52.5Pb32Sn15.5' }, tipField],
};
