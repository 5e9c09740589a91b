/** A single column with its links, against the equations of one step solved directly. */
import { describe, expect, it } from 'vitest';
import { invert } from '../src/ground/numerics/dense.ts';
import { LinkedColumns, type CellLink } from '../src/thermal/columns.ts';
import { createGridKernel, factorise, type GridKernel } from '../src/thermal/gridKernel.ts';

const DT = 0.05;
const LAYERS = 4;
const CAPACITY = [2e-5, 6e-5, 5e-5, 3e-5];
const BETWEEN = [1e-3, 3e-4, 2e-3];
const START = [20, 30, 25, 40];

/** One column of four cells, two nodes at 300 and 10 °C; gives the cells' temperatures after a step and the heat into each, W. */
function step(links: readonly CellLink[], excess: readonly number[] | undefined) {
  const kernel: GridKernel = createGridKernel(1, 1, LAYERS, { order: 'xzy' });
  const plane = kernel.nx;
  const at = (l: number) => l * plane;
  const capacity = new Float64Array(plane * LAYERS).fill(1);
  for (let l = 0; l < LAYERS; l++) {
    capacity[at(l)] = CAPACITY[l];
    kernel.T[at(l)] = START[l];
    if (l < LAYERS - 1) kernel.GZ[at(l)] = BETWEEN[l];
  }
  const left = excess && new Float64Array(plane * LAYERS);
  excess?.forEach((G, l) => left && (left[at(l)] = G));
  factorise(kernel, capacity, DT);
  const own = links.map((l) => ({ ...l, cell: at(l.cell) }));
  const columns = new LinkedColumns(kernel, capacity, [0, 0], own, left && { excess: left, longest_s: DT });
  columns.renew(DT);
  const nodes = [300, 10];
  kernel.begin();
  columns.read();
  // the network's part: shared cells with their stiffness, couplings and links, solved densely
  const n = columns.shared.length;
  const A = new Float64Array(n * n);
  const b = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    A[i * n + i] += columns.stiffness[i];
    b[i] += columns.stiffness[i] * columns.rest[i];
    for (const l of own.filter((q) => q.cell === columns.shared[i])) {
      A[i * n + i] += l.G;
      b[i] += l.G * nodes[l.node];
    }
  }
  columns.couplings.forEach(([p, q], k) => {
    const G = columns.couplingG[k];
    const shift = G * (columns.rest[p] - columns.rest[q]);
    A[p * n + p] += G;
    A[q * n + q] += G;
    A[p * n + q] -= G;
    A[q * n + p] -= G;
    b[p] += shift;
    b[q] -= shift;
  });
  const inverse = invert(A, n);
  const x = Array.from({ length: n }, (_, i) => b.reduce((sum, v, k) => sum + inverse[i * n + k] * v, 0));
  const into = Float64Array.from(x, (T, i) =>
    own.filter((q) => q.cell === columns.shared[i]).reduce((sum, l) => sum + l.G * (nodes[l.node] - T), 0),
  );
  columns.correct(Float64Array.from(nodes), into);
  kernel.finish();
  return { T: Array.from({ length: LAYERS }, (_, l) => kernel.T[at(l)]), theta: kernel.theta };
}

/** (C/dt + θ·A)(T' − T) = −A·T − L·T' + ΣG·(T_node − T'), in one go. */
function directly(links: readonly CellLink[], excess: readonly number[] | undefined, theta: number): number[] {
  const M = new Float64Array(LAYERS * LAYERS);
  const b = new Float64Array(LAYERS);
  const pair = (l: number, G: number, weight: number) => {
    for (const [i, k] of [
      [l, l + 1],
      [l + 1, l],
    ]) {
      M[i * LAYERS + i] += weight * G;
      M[i * LAYERS + k] -= weight * G;
      b[i] += (1 - weight) * G * (START[k] - START[i]);
    }
  };
  for (let l = 0; l < LAYERS; l++) {
    M[l * LAYERS + l] += CAPACITY[l] / DT;
    b[l] += (CAPACITY[l] / DT) * START[l];
    if (l === LAYERS - 1) continue;
    pair(l, BETWEEN[l], theta);
    if (excess) pair(l, excess[l], 1);
  }
  for (const { node, cell, G } of links) {
    M[cell * LAYERS + cell] += G;
    b[cell] += G * [300, 10][node];
  }
  const inverse = invert(M, LAYERS);
  return Array.from({ length: LAYERS }, (_, i) => b.reduce((sum, v, k) => sum + inverse[i * LAYERS + k] * v, 0));
}

const pin: CellLink[] = [0, 1, 2, 3].map((cell) => ({ node: 0, cell, G: 0.01 * (cell + 1) }));

describe('one step of a column is the solution of its equations', () => {
  it.each([
    ['a single strong link', [{ node: 0, cell: 2, G: 0.5 }], undefined],
    ['a pin through all layers', pin, undefined],
    ['two nodes on one cell', [pin[1], { node: 1, cell: 1, G: 0.03 }], undefined],
    ['two nodes on two cells', [pin[0], { node: 1, cell: 3, G: 0.03 }], undefined],
    ['stiff layers without a link', [], [0.02, 0, 0.05]],
    ['a pin through stiff layers', pin, [0.02, 0.01, 0.05]],
    ['two nodes in a stiff column', [pin[0], pin[2], { node: 1, cell: 2, G: 0.1 }], [0.02, 0.01, 0.05]],
  ] as const)('%s', (_, links, excess) => {
    const { T, theta } = step(links, excess);
    const exact = directly(links, excess, theta);
    for (let l = 0; l < LAYERS; l++) expect(T[l]).toBeCloseTo(exact[l], 8);
  });
  it('a matrix that cannot be inverted is refused', () => {
    expect(() => invert(Float64Array.of(1, 2, 2, 4), 2)).toThrow(/singular/);
  });
});
