/** How it is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import { form as air } from '../air/form.ts';
import type { Form } from '../declaration.ts';

const OWN = ['set_C', 'flow_L_min', 'nozzle_mm', 'standoff_mm', 'sweep_mm'];

export const form: Form = {
  usual: [
    {
      key: 'what',
      label: 'What sits on it',
      choices: [
        ['glue', 'glue'],
        ['coating', 'coating'],
        ['label', 'label'],
      ],
    },
    { key: 'soft_C', label: 'It gives at', unit: 'temperature', range: RANGES.soften.soft_C },
    ...air.usual.filter((f) => OWN.includes(f.key)),
  ],
  moreTitle: '',
  more: [],
};
