import { describe, expect, it } from 'vitest';
import { cellAt, cellCount, cellEdges, emptyGrid, overlapRectangle, type BoardGrid } from '../src/thermal/grid.ts';
import { HeatRun, type HeatSystem } from '../src/thermal/heatRun.ts';
import type { HeatLink, HeatNode } from '../src/thermal/heatNodes.ts';

/** A small board of two slabs with even properties. */
function plate(nx = 9, ny = 7, size = 1e-3): BoardGrid {
  const grid = emptyGrid(
    new Float64Array(nx).fill(size),
    new Float64Array(ny).fill(size),
    Float64Array.from([0.4e-3, 0.4e-3]),
  );
  grid.kx.fill(10);
  grid.ky.fill(10);
  grid.kz.fill(0.4);
  grid.rhoc.fill(2.2e6);
  return grid;
}
const body = (id: string, C: number, T0: number): HeatNode => ({ id, type: 'body', C, T0 });

/** Heat of everything against 0 °C, J. */
function content(run: HeatRun): number {
  let sum = 0;
  if (run.kernel && run.capacity)
    for (let c = 0; c < run.capacity.length; c++) sum += run.capacity[c] * run.kernel.T[c];
  for (const [i, node] of run.nodes.entries()) if (node.type === 'body') sum += node.C * run.T[i];
  return sum;
}

describe('grid helpers', () => {
  const grid = plate(4, 3);
  const [ex, ey] = [cellEdges(grid.dx), cellEdges(grid.dy)];
  it('find the cell of a point, the nearest one outside', () => {
    expect(cellAt(ex, 0)).toBe(0);
    expect(cellAt(ex, 0.00199)).toBe(1);
    expect(cellAt(ex, -1)).toBe(0);
    expect(cellAt(ex, 9)).toBe(3);
  });
  it('share a rectangle out without losing area', () => {
    const got = new Map<number, number>();
    overlapRectangle(grid, ex, ey, { x0: 0.5e-3, x1: 2.25e-3, y0: 0.9e-3, y1: 1.1e-3 }, (c, a) => got.set(c, a));
    expect(got.size).toBe(6);
    expect([...got.values()].reduce((a, b) => a + b, 0)).toBeCloseTo(1.75e-3 * 0.2e-3, 15);
  });
  it('clip what hangs over the board', () => {
    let area = 0;
    overlapRectangle(grid, ex, ey, { x0: -1, x1: 1, y0: -1, y1: 1 }, (_, a) => (area += a));
    expect(area).toBeCloseTo(4e-3 * 3e-3, 12);
  });
  it('count real cells, not the padding of rows', () => {
    expect(cellCount(plate(5, 3))).toBe(30);
    expect(plate(5, 3).stride).toBe(8);
  });
});

describe('a run of board and lumps', () => {
  const cellOf = (grid: BoardGrid, i: number, j: number) => j * grid.stride + i;

  it('brings body and board to the mixing temperature', () => {
    const grid = plate();
    const links: HeatLink[] = [
      { a: 0, cell: cellOf(grid, 4, 3), G: 0.05 },
      { a: 0, cell: cellOf(grid, 5, 3), G: 0.05 },
    ];
    const run = new HeatRun({ grid, nodes: [body('b', 0.05, 200)], links }, 20);
    const before = content(run);
    for (let n = 0; n < 6000; n++) run.step(0.1);
    const board = 2.2e6 * 63e-6 * 0.8e-3;
    const mixed = (0.05 * 200 + board * 20) / (0.05 + board);
    expect(run.T[0]).toBeCloseTo(mixed, 1);
    expect(run.kernel?.T[0]).toBeCloseTo(mixed, 1);
    expect(content(run) / before).toBeCloseTo(1, 10);
  });

  it('two lumps on one cell share it and lose no heat', () => {
    const grid = plate();
    const cell = cellOf(grid, 4, 3);
    const run = new HeatRun(
      {
        grid,
        nodes: [body('hot', 0.02, 250), body('cold', 0.02, 20)],
        links: [
          { a: 0, cell, G: 0.5 },
          { a: 1, cell, G: 0.5 },
        ],
      },
      20,
    );
    const before = content(run);
    for (let n = 0; n < 40; n++) run.step(0.05);
    expect(content(run) / before).toBeCloseTo(1, 10);
    expect(run.T[0]).toBeGreaterThan(run.T[1]);
    expect(run.T[1]).toBeGreaterThan(25);
  });

  it('needs no small step for a stiff link: no overshoot at any conductance', () => {
    for (const G of [0.01, 1, 100, 1e4]) {
      const grid = plate();
      const run = new HeatRun(
        { grid, nodes: [body('b', 1e-4, 300)], links: [{ a: 0, cell: cellOf(grid, 4, 3), G }] },
        20,
      );
      for (let n = 0; n < 20; n++) {
        run.step(0.05);
        expect(run.T[0]).toBeGreaterThan(19.9);
        expect(run.T[0]).toBeLessThan(300);
      }
    }
  });

  it('held weak links conserve energy and follow the exact ones', () => {
    const system = (how: Pick<HeatSystem, 'quick' | 'sweeps'>): HeatSystem => {
      const grid = plate(21, 15, 0.5e-3);
      const links: HeatLink[] = [];
      for (let j = 4; j < 11; j++) for (let i = 6; i < 15; i++) links.push({ a: 0, cell: cellOf(grid, i, j), G: 8e-5 });
      return { grid, nodes: [body('b', 0.08, 220)], links, ...how };
    };
    const exact = new HeatRun(system({}), 20);
    const held = new HeatRun(system({ quick: true, sweeps: 'double' }), 20);
    const rounded = new HeatRun(system({ quick: true }), 20);
    const before = content(held);
    for (let n = 0; n < 400; n++) for (const run of [exact, held, rounded]) run.step(0.05);
    expect(content(held) / before).toBeCloseTo(1, 10);
    // singles: to a millionth of the heat that has gone over
    const moved = 0.08 * (220 - rounded.T[0]);
    expect(Math.abs(content(rounded) - before) / moved).toBeLessThan(1e-6);
    expect(exact.T[0]).toBeLessThan(200);
    expect(Math.abs(held.T[0] - exact.T[0])).toBeLessThan(0.02 * (220 - exact.T[0]));
  });

  it('lets a link between nodes be moved during the run, and only such a link', () => {
    const grid = plate();
    const run = new HeatRun(
      {
        grid,
        nodes: [body('a', 1, 100), body('b', 1, 0)],
        links: [
          { a: 0, node: 1, G: 0 },
          { a: 0, cell: 3, G: 1e-4 },
        ],
      },
      20,
    );
    run.step(0.1);
    expect(run.T[1]).toBe(0);
    run.setLink(0, 2);
    run.step(0.1);
    expect(run.T[1]).toBeGreaterThan(5);
    expect(() => run.setLink(1, 2)).toThrow(/not between nodes/);
  });

  it('a joint held by its neighbours stays on the plateau until its heat is in', () => {
    const enthalpy = { Ts: 183, Tl: 183, Cs: 0.01, Cl: 0.01, latent: 2 };
    const nodes: HeatNode[] = [
      { id: 'tip', type: 'fixed', T0: 283 },
      { id: 'j', type: 'joint', T0: 183, enthalpy },
    ];
    const run = new HeatRun({ nodes, links: [{ a: 0, node: 1, G: 0.02 }] }, 20);
    // two watts into two joules: one second
    for (let n = 0; n < 9; n++) run.step(0.1);
    expect(run.T[1]).toBe(183);
    expect(run.H[1]).toBeCloseTo(1.8, 9);
    for (let n = 0; n < 5; n++) run.step(0.1);
    expect(run.T[1]).toBeGreaterThan(183);
    expect(run.input_J).toBeCloseTo(run.stored_J(), 9);
  });

  it('freezes again at the same temperature when heat leaves', () => {
    const enthalpy = { Ts: 217, Tl: 220, Cs: 0.01, Cl: 0.011, latent: 0.5 };
    const nodes: HeatNode[] = [
      { id: 'air', type: 'fixed', T0: 20 },
      { id: 'j', type: 'joint', T0: 260, enthalpy },
    ];
    const run = new HeatRun({ nodes, links: [{ a: 0, node: 1, G: 0.005 }] }, 20);
    let inRange = 0;
    for (let n = 0; n < 400 && run.T[1] > 100; n++) {
      run.step(0.02);
      if (run.T[1] > 217 && run.T[1] < 220) inRange++;
    }
    // half a joule at about one watt
    expect(inRange * 0.02).toBeGreaterThan(0.4);
    expect(inRange * 0.02).toBeLessThan(0.6);
  });

  it('books what the surroundings take', () => {
    const grid = plate();
    const run = new HeatRun({ grid, nodes: [], links: [] }, 100);
    const conductance = new Float64Array(grid.kx.length);
    for (let j = 0; j < 7; j++) for (let i = 0; i < 9; i++) conductance[cellOf(grid, i, j)] = 1e-4;
    run.setBoundary(
      conductance,
      conductance.map((h) => h * 20),
    );
    for (let n = 0; n < 200; n++) run.step(0.1);
    expect(run.lost_J).toBeGreaterThan(5);
    expect(run.lost_J + run.stored_J()).toBeCloseTo(0, 9);
  });
});
