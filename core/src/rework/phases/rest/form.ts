/** How it is set, as a form asks for it. */

import type { Form } from '../declaration.ts';

export const form: Form = {
  usual: [
    {
      key: 'below',
      label: 'Heat from below',
      choices: [
        ['', 'off'],
        ['stays', 'stays on'],
      ],
    },
  ],
  moreTitle: '',
  more: [],
};
