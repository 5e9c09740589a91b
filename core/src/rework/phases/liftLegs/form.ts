/** How it is set, as a form asks for it. */
import { tipField, tipFields } from '../fields.ts';
import type { Form } from '../declaration.ts';

export const form: Form = { usual: tipFields('Iron power', 'iron'), moreTitle: 'Tip', more: [tipField] };
