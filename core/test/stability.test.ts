/** No run of any board leaves its physical bounds, and what is said of it holds at finer steps too. */
import { describe, expect, it } from 'vitest';
import { air, boardOf, planOf } from './plans.ts';
import { hottestSource_C, randomPlan } from './randomPlans.ts';
import type { BoardModel } from '../src/board/boardModel.ts';
import { wetAt } from '../src/rework/bench/runTimes.ts';
import { type PlanRun } from '../src/rework/bench/runForm.ts';
import { type PlanInput } from '../src/rework/planForm.ts';
import { runPlan } from '../src/rework/planRun.ts';
import { emptyGrid, type BoardGrid } from '../src/thermal/grid.ts';
import type { HeatLink, HeatNode } from '../src/thermal/heatNodes.ts';
import { HeatRun, OutOfBoundsError, type HeatSystem } from '../src/thermal/heatRun.ts';
import { randomOf } from '../src/ground/numerics/random.ts';

const context = { now: () => 0 };
const run = (input: PlanInput) => runPlan(input, context);

/** Every temperature a run tells. */
const temperatures = (r: PlanRun): number[] => [
  r.body_C,
  r.pads_C,
  ...r.joints.map((j) => j.peak_C),
  ...r.neighbours.flatMap((n) => [n.atWet_C, n.peak_C]),
  ...(r.outcomes?.lands.map((l) => l.peak_C) ?? []),
  ...(r.outcomes?.laminate ? [r.outcomes.laminate.peak_C] : []),
];

/** What must hold of any run: bounds, and one truth for "loose". */
function expectSound(input: PlanInput, r: PlanRun): void {
  const hottest = hottestSource_C(input);
  for (const C of temperatures(r)) {
    expect(C).toBeGreaterThanOrEqual(input.ambient_C - 2);
    expect(C).toBeLessThanOrEqual(hottest + 2);
  }
  for (const j of r.joints) {
    const [begins, through, loose] = [j.solidus_s ?? Infinity, j.liquidus_s ?? Infinity, wetAt(j) ?? Infinity];
    expect(begins).toBeLessThanOrEqual(through);
    // a hole sucked empty is loose however it froze on the way
    if (input.phases[0].kind !== 'vacuum') expect(through).toBeLessThanOrEqual(loose);
  }
  const times = r.joints.map((j) => wetAt(j) ?? Infinity);
  if (r.allWet_s !== null) expect(r.allWet_s).toBe(Math.max(...times));
  expect(times[r.joints.findIndex((j) => j.terminal === r.last?.terminal)]).toBe(Math.max(...times));
}

describe('random boards, parts, tools and surroundings', () => {
  const numbers = (from: number, to: number) => Array.from({ length: (to - from) / 10 }, (_, i) => from + 10 * i);
  it.each(numbers(0, 200))('search quality, %i and nine more', async (first) => {
    for (let n = first; n < first + 10; n++) {
      const input = randomPlan(n);
      expectSound(input, await run(input));
    }
  });
  it.each(numbers(0, 40))('plan quality, %i and nine more', async (first) => {
    for (let n = first; n < first + 10; n++) {
      const input = randomPlan(n, 'plan', 4);
      expectSound(input, await run(input));
    }
  });
  it('quick runs are the exact ones on the same mesh, to 0.5 K and 0.2 s in 19 of 20', async () => {
    const [kelvin, seconds]: [number[], number[]] = [[], []];
    for (let n = 0; n < 40; n++) {
      const input = randomPlan(n);
      const [quick, exact] = [await run(input), await run({ ...input, books: true })];
      const other = temperatures(exact);
      kelvin.push(...temperatures(quick).map((C, i) => Math.abs(C - other[i])));
      seconds.push(...quick.joints.map((j, i) => Math.abs((wetAt(j) ?? 0) - (wetAt(exact.joints[i]) ?? 0))));
    }
    const p95 = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(0.95 * values.length)];
    expect(p95(kelvin)).toBeLessThan(0.5);
    expect(p95(seconds)).toBeLessThan(0.2);
  });
});

describe('small parts beside the target', () => {
  it('a 0402 at seven millimetres stays below the air that blows on it', async () => {
    const board: BoardModel = {
      ...boardOf('SOIC-8'),
      parts: [
        ...boardOf('SOIC-8').parts,
        { partId: 'c', package: 'C0402', x_mm: 23, y_mm: 30, rotation_deg: 0, side: 'top' },
      ],
    };
    const input = planOf(board, air({ set_C: 390, standoff_mm: 14, sweep_mm: 0 }));
    const r = await run(input);
    expectSound(input, r);
    expect(r.neighbours[0].peak_C).toBeGreaterThan(100);
    expect(r.allWet_s).not.toBeNull();
  });
});

/** Four slabs whose copper comes and goes from cell to cell, thin or pierced by vias if told. */
function patchy(cell: number, thickness: number, vias: number, n = 20): BoardGrid {
  const random = randomOf(5);
  const even = () => new Float64Array(n).fill(cell);
  const grid = emptyGrid(
    even(),
    even(),
    Float64Array.from([0.125, 0.375, 0.375, 0.125], (s) => s * thickness),
  );
  grid.rhoc.fill(2.3e6);
  grid.kz.fill(0.32 + 8.4 * vias);
  for (let k = 0; k < grid.kx.length; k++)
    grid.kx[k] = grid.ky[k] = random() < 0.5 ? 0.85 : 0.85 + 389 * Math.min(0.7, 70e-6 / (0.125 * thickness));
  return grid;
}

describe('copper that is uneven within a layer', () => {
  const tip: HeatNode = { id: 'tip', type: 'iron', T0: 350, C: 1.2, Pmax: 70, Tset: 350, gain: 5 };
  const joint: HeatNode = { id: 'joint', type: 'body', C: 1e-3, T0: 22 };
  /** A tip on a joint on 5 × 4 cells of the board, through all layers if it is a pin. */
  function system(grid: BoardGrid, pin: boolean): HeatSystem {
    const links: HeatLink[] = [{ a: 0, node: 1, G: 0.2 }];
    const plane = grid.stride * grid.dy.length;
    for (let l = 0; l < (pin ? 4 : 1); l++)
      for (let j = 8; j < 12; j++)
        for (let i = 7; i < 12; i++)
          links.push({ a: 1, cell: l * plane + j * grid.stride + i, G: 2e5 * grid.dx[0] ** 2 });
    return { grid, nodes: [tip, joint], links };
  }
  const follow = (s: HeatSystem, step: number, seconds: number) => {
    const heat = new HeatRun(s, 22);
    for (let t = 0; t < seconds - 1e-9; t += step) heat.step(step);
    heat.checkBounds();
    return heat;
  };
  const uneven = (longestStep_s: number) => ({ uneven: { longestStep_s } });

  it.each([
    ['fine cells under a tip', patchy(0.175e-3, 1.6e-3, 0), false, 0.05],
    ['a pin in a thin board with vias', patchy(0.25e-3, 0.4e-3, 4), true, 0.0125],
    ['a pin in a thick board', patchy(0.25e-3, 1.6e-3, 0), true, 0.05],
  ] as const)('%s: swept as such it stays within bounds, and follows its own fine steps', (_, grid, pin, dt) => {
    const coarse = follow({ ...system(grid, pin), ...uneven(dt) }, dt, 8);
    const fine = follow({ ...system(grid, pin), ...uneven(0.002) }, 0.002, 8);
    expect(coarse.T[1]).toBeGreaterThan(100);
    expect(Math.abs(coarse.T[1] - fine.T[1])).toBeLessThan(2);
    const [a, b] = [coarse.kernel?.T ?? [], fine.kernel?.T ?? []];
    for (let c = 0; c < (coarse.capacity?.length ?? 0); c++) expect(Math.abs(a[c] - b[c])).toBeLessThan(3);
    expect(Math.abs(coarse.input_J - coarse.stored_J() - coarse.lost_J)).toBeLessThan(1e-9 * coarse.input_J);
  });
  it('swept layer by layer it would run away, and the run itself says so', () => {
    const blind = system(patchy(0.175e-3, 1.6e-3, 0), false);
    expect(() => follow(blind, 0.05, 8)).toThrow(OutOfBoundsError);
    expect(() => follow(blind, 0.05, 8)).toThrow(/left its bounds at .+ after \d+\.\d\d s\.$/);
  });
  it('a source of power has no upper bound; not a number is refused all the same', () => {
    const hot = new HeatRun({ nodes: [{ id: 'p', type: 'body', C: 1, T0: 20, P: 5000 }], links: [] }, 20);
    hot.step(1);
    expect(hot.T[0]).toBeGreaterThan(5000);
    hot.power[0] = NaN;
    expect(() => hot.step(1)).toThrow(OutOfBoundsError);
  });
});
