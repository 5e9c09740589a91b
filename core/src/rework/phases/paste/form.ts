/** How it is set, as a form asks for it. */
import { shareField } from '../fields.ts';
import type { Form } from '../declaration.ts';

export const form: Form = {
  usual: [shareField],
  moreTitle: 'Paste',
  more: [{ key: 'alloy', label: 'Melts to', alloy: true, optional: true, hint: 'Sn63Pb37' }],
};
