import { z } from 'zod';
import { defineCalc } from '../ground/index.ts';
import {
  YARDSTICK_CELLS,
  blowAway,
  blowAwayInput,
  blowAwayOutput,
  heatFieldInput,
  heatFieldOutput,
  heatFieldWork,
  jetProfile,
  jetProfileInput,
  jetProfileOutput,
  runYardstick,
  runHeatField,
} from '../thermal/index.ts';

export const heatField = defineCalc({
  name: 'heat.field',
  summary: 'Temperatures of a plain heat case: board grid, boundaries, sources, lumped nodes.',
  input: heatFieldInput,
  output: heatFieldOutput,
  example: {
    initial: 20,
    nodes: [{ id: 'part', type: 'body', C: 0.4, hA: 0.02, Tinf: 20, P: 4 }],
    probes: [{ name: 'after 20 s', t: 20, node: 'part' }],
  },
  cost: (input) => heatFieldWork(input) * 20e-9,
  run: runHeatField,
});

export const jetProfileCalc = defineCalc({
  name: 'jet.profile',
  summary: 'Heat transfer and driving temperature of a hot-air jet over the distance from its axis.',
  input: jetProfileInput,
  output: jetProfileOutput,
  example: { Q_L_min: 30, D_mm: 8, H_mm: 12, Tset_C: 370, Tamb_C: 22, r_mm: [0, 4, 8, 16, 30] },
  run: jetProfile,
});

export const blowAwayCalc = defineCalc({
  name: 'blowaway.check',
  summary: 'Whether a small part stays where it is in the wind of the nozzle.',
  input: blowAwayInput,
  output: blowAwayOutput,
  example: {
    Q_L_min: 30,
    D_mm: 8,
    H_mm: 12,
    Tset_C: 370,
    part: { l_mm: 1.6, w_mm: 0.8, h_mm: 0.8 },
    r_mm: 8,
    wet: 1,
  },
  run: blowAway,
});

export const heatYardstick = defineCalc({
  name: 'heat.bench',
  summary: 'Speed of the heat kernel on the uniform yardstick case, sweeping in singles as plans do.',
  input: z.strictObject({}),
  output: z.strictObject({
    ns_per_cell_step: z.number(),
    cells: z.literal(YARDSTICK_CELLS),
    steps: z.number(),
    best_s: z.number(),
    median_s: z.number(),
    kernel: z.enum(['wasm', 'ts']),
  }),
  example: {},
  cost: () => 7,
  run: (_, context) => {
    const result = runYardstick(context.now);
    return { ...result, cells: YARDSTICK_CELLS };
  },
});
