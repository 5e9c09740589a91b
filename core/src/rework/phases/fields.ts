/** Fields that several kinds of work have alike. */
import type { Dialled } from '../dials.ts';
import { RANGES } from '../ranges.ts';
import type { Field } from './declaration.ts';

export const tipField: Field = {
  key: 'tip',
  label: 'Tip',
  choices: [
    ['knife', 'knife, bevel'],
    ['chisel', 'chisel'],
    ['cone', 'cone'],
  ],
};

/** Fields that every iron has, with the words for its power and the dial it is turned on; in degrees without one. */
export const tipFields = (power: string, dial?: Dialled): [set: Field, width: Field, power: Field] => [
  { key: 'set_C', label: 'Iron', unit: 'temperature', ...(dial ? { dial } : {}), range: RANGES.iron.set_C },
  { key: 'tip_mm', label: 'Tip width', unit: 'mm', range: RANGES.iron.tip_mm },
  { key: 'power_W', label: power, unit: 'W', range: RANGES.iron.power_W },
];

export const shareField: Field = {
  key: 'share',
  label: 'Solder, of a usual joint',
  unit: '×',
  range: RANGES.fit.share,
};
