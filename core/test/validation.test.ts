import { describe, expect, it } from 'vitest';
import { runHeatField } from '../src/thermal/field.ts';
import { heatFieldInput } from '../src/thermal/fieldForm.ts';
import { parseInput } from '../src/ground/calc.ts';
import { convergence, type Order } from './convergence.ts';
import { expectNote, heatNote } from './notes.ts';
import { validationCases } from './validationCases.ts';
import type { ValidationCase } from './validationSolve.ts';

describe('heat against closed forms', () => {
  const cases: ValidationCase[] = [];
  let orders: Order[] = [];
  for (const make of validationCases)
    it(make.name, async () => {
      const found = await make();
      cases.push(found);
      const { rows, energy } = found;
      for (const row of rows) expect(Math.abs(row.computed - row.exact) / row.scale, row.probe).toBeLessThan(0.02);
      expect(energy).toBeLessThan(1e-6);
    });
  it('is of second order in step and cell', async () => {
    orders = await convergence();
    for (const { of, order } of orders) expect(Math.abs(order - 2), of).toBeLessThan(0.1);
  });
  it('is what the note says', () => expectNote('validation', heatNote(cases, orders)));
});

describe('energy balance of board and nodes together', () => {
  const board = {
    lx: 0.04,
    ly: 0.03,
    nx: 41,
    ny: 30,
    layers: [0.2e-3, 0.6e-3, 0.6e-3].map((dz) => ({ dz, kx: 12, ky: 9, kz: 0.4, rhoc: 2.2e6 })),
  };
  const boundary = {
    top: { h: 60, Tinf: 200, surface_half_cell: true },
    bottom: { h: 12, Tinf: 20 },
    edges: { h: 10, Tinf: 20 },
  };
  const region = { x0: 0.018, x1: 0.0215, y0: 0.012, y1: 0.017 };
  const run = (alloy: object | null) =>
    runHeatField(
      parseInput(heatFieldInput, {
        initial: 20,
        board,
        boundary,
        sources: [
          { P: 5, x: 0.02, y: 0.015, t_on: 0.5, t_off: 6.3 },
          { flux: 2e4, disc: { x: 0.01, y: 0.01, r: 3e-3 }, layer: 2 },
        ],
        nodes: [
          { id: 'body', type: 'body', C: 0.2, P: 2, t_off: 4 },
          { id: 'iron', type: 'iron', C: 1.2, Pmax: 40, Tset: 350, T0: 350 },
          alloy ? { id: 'joint', type: 'joint', V: 3e-9, alloy } : { id: 'joint', type: 'body', C: 5e-3 },
        ],
        links: [
          { a: 'body', b: 'joint', G: 0.01 },
          { a: 'iron', b: 'joint', G: 0.1 },
          { a: 'joint', region, layer: 0, G_per_area: 2e5 },
          { a: 'body', region: { x0: 0.016, x1: 0.024, y0: 0.01, y1: 0.02 }, layer: 0, G_per_area: 300 },
        ],
        probes: [{ name: 'end', t: 10, what: 'stored_J' }],
      }),
      { now: () => 0 },
    );
  const imbalance = ({ energy }: Awaited<ReturnType<typeof run>>) =>
    Math.abs(energy.input_J - energy.stored_J - energy.lost_J) / energy.input_J;

  it('closes to 1e-6 of the input without melting', async () => {
    expect(imbalance(await run(null))).toBeLessThan(1e-6);
  });
  it('closes to 0.1 % with melting', async () => {
    const result = await run({ Ts: 183, Tl: 190, cs: 1.5e6, cl: 1.6e6, L: 3.5e8 });
    expect(imbalance(result)).toBeLessThan(1e-3);
  });
});
