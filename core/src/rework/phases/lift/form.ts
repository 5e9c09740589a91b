/** How it is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import type { Form } from '../declaration.ts';

export const form: Form = {
  usual: [{ key: 'stays_s', label: 'Heat stays on', unit: 's', range: RANGES.lift.stays_s }],
  moreTitle: '',
  more: [],
};
