/** How it is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import { tipField, tipFields } from '../fields.ts';
import type { Form } from '../declaration.ts';

const { pool_mm3 } = RANGES.pool;

export const form: Form = {
  usual: [
    ...tipFields('Iron power', 'iron'),
    { key: 'pool_mm3', label: 'Solder in the pool', unit: 'mm³', range: pool_mm3 },
  ],
  moreTitle: 'Solder and tip',
  more: [{ key: 'alloy', label: 'Solder of the pool', alloy: true, optional: true, hint: 'Sn63Pb37' }, tipField],
};
