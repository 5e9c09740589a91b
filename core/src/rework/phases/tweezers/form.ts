/** How it is set, as a form asks for it. */
import { tipField, tipFields } from '../fields.ts';
import type { Form } from '../declaration.ts';

export const form: Form = {
  usual: tipFields('Power of a tip', 'tweezers'),
  moreTitle: 'Tip and way of working',
  more: [tipField],
};
