import { z } from 'zod';
import {
  diagnose,
  diagnoseInput,
  diagnoseOutput,
  locateInput,
  locateOutput,
  locateShort,
  nextInput,
  nextOutput,
} from '../diagnosis/index.ts';
import { withNetlistErrors } from './circuitCalcs.ts';
import { defineCalc } from '../ground/index.ts';

const netlist = {
  ground: 'GND',
  tp: ['VIN', '3V3'],
  parts: [
    { ref: 'FB1', kind: 'FB', pins: { 1: 'VIN', 2: '3V3' }, r: 0.2, cls: 'ferrite' },
    { ref: 'C1', kind: 'C', pins: { 1: '3V3', 2: 'GND' }, value: 1e-7, cls: 'mlcc' },
    {
      ref: 'U1',
      kind: 'IC',
      cls: 'load',
      pins: { VDD: '3V3', GND: 'GND' },
      rail: ['VDD'],
      esd: [['GND', 'VDD', 'esd']],
      res: [['VDD', 'GND', 2400, 60]],
    },
  ],
  power: { states: { awake: { sources: [{ p: 'VIN', v: 3.3, ilim: 0.3 }] } } },
};

const cost = ({ netlist: n }: z.infer<typeof diagnoseInput>) => (n.parts.length / 60) ** 2 * 2;

export const diagnoseRank = defineCalc({
  name: 'diagnose.rank',
  summary: 'Ranks the single faults of a circuit by what was read, and says what to read next.',
  input: diagnoseInput,
  output: diagnoseOutput,
  example: { netlist, readings: [{ type: 'ohm', red: '3V3', black: 'GND', value: 0.6 }] },
  cost,
  run: (input, context) => withNetlistErrors(() => diagnose(input, context)),
});

export const diagnoseNext = defineCalc({
  name: 'diagnose.next',
  summary: 'Readings worth taking, the most information per minute first.',
  input: nextInput,
  output: nextOutput,
  example: { netlist, readings: [], most: 3 },
  cost,
  run: ({ most, ...input }, context) => {
    const { next, groups, power, why, done } = withNetlistErrors(() => diagnose(input, context, most));
    return { next, groups, power, why, done };
  },
});

export const diagnoseLocate = defineCalc({
  name: 'diagnose.locate',
  summary: 'Where on a rail a short sits, from millivolts along it while a current is injected.',
  input: locateInput,
  output: locateOutput,
  example: {
    current_A: 1,
    injection: { x_mm: 0, y_mm: 0 },
    copper: { foil_um: 35, tracks: [{ x0_mm: 0, y0_mm: 0, x1_mm: 40, y1_mm: 0, w_mm: 1 }] },
    points: [
      { x_mm: 10, y_mm: 0, mV: 4.9 },
      { x_mm: 20, y_mm: 0, mV: 9.8 },
      { x_mm: 35, y_mm: 0, mV: 12.3 },
    ],
    candidates: [
      { ref: 'C1', x_mm: 15, y_mm: 0 },
      { ref: 'C2', x_mm: 25, y_mm: 0 },
      { ref: 'C3', x_mm: 38, y_mm: 0 },
    ],
  },
  cost: ({ points }) => points.length * 0.2,
  run: locateShort,
});
