/** How it is set, as a form asks for it. */

import type { Form } from '../declaration.ts';

export const form: Form = { usual: [], moreTitle: '', more: [] };
