/** How it is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import type { Form } from '../declaration.ts';

const range = RANGES.air;

export const form: Form = {
  usual: [
    { key: 'set_C', label: 'Set-point', unit: 'temperature', dial: 'air', range: range.set_C },
    { key: 'flow_L_min', label: 'Air', unit: 'L/min', range: range.flow_L_min },
    { key: 'nozzle_mm', label: 'Nozzle', unit: 'mm', range: range.nozzle_mm },
    { key: 'standoff_mm', label: 'Distance', unit: 'mm', range: range.standoff_mm },
  ],
  moreTitle: '',
  more: [],
};
