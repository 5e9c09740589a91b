/** How it is set, as a form asks for it. */

import type { Form } from '../declaration.ts';

export const form: Form = {
  usual: [
    {
      key: 'with',
      label: 'With',
      choices: [
        ['cutters', 'cutters'],
        ['blade', 'blade'],
      ],
    },
  ],
  moreTitle: '',
  more: [],
};
