/**
 * Where lumps touch the board. In the middle of a step (`GridKernel.begin`) a cell answers a change of its link heat through its column,
 * T = T* + R·(Q − Q_n), R = (C/dt + θ·A_z)⁻¹; the last sweep then spreads that sideways. Link heat is remembered from step to
 * step, so what flows steadily reaches every sweep.
 *
 * - A column with one link is eliminated at once: Q = G/(1 + G·R)·(T_node − T* + R·Q_n). A weak link (an air gap, say) moves its cell so
 *   little that the cell may answer alone.
 * - Cells of one column that are linked to one node (a pin in its hole) answer each other, and go at once too: Q = (G⁻¹ + R)⁻¹·(…) with R a
 *   matrix.
 * - Where several nodes meet in a column, each of its linked cells is an unknown of the network: R⁻¹, an M-matrix, is written as a
 *   stiffness of each cell's own and couplings between them.
 * - A column whose layers exchange heat faster than the sweeps bear (vias, thin boards) keeps the excess here: heat between
 *   neighbouring layers, −L·T, implicit and remembered like that of links. R becomes (R⁻¹ + L)⁻¹.
 */
import { invert } from '../numerics/dense.ts';
import { columnResponse, type GridKernel } from './gridKernel.ts';

/** A link below this rate (conductance over the cell's capacity, 1/s) is weak: it moves the cell by less than a third of the difference in 0.1 s. */
const WEAK_RATE = 3.2;

export interface CellLink {
  node: number;
  cell: number;
  /** Conductance, W/K. */
  G: number;
}

export class LinkedColumns {
  /** Cells that are unknowns of the network, in its order: first those of plain columns, then of stiff ones. */
  readonly shared: Int32Array;
  /** Couplings between them, as places in `shared`, in the same order, and their conductances, W/K. */
  readonly couplings: (readonly [number, number])[] = [];
  readonly couplingG: Float64Array;
  /** Stiffness of each shared cell, W/K, against its temperature at rest: what it would have without its links, °C. */
  readonly stiffness: Float64Array;
  readonly rest: Float64Array;
  /** Per node: sum of effective conductances to single cells, W/K, and of conductance × their temperature at rest, W. */
  readonly nodeG: Float64Array;
  readonly nodeHeat: Float64Array;

  private readonly kernel: GridKernel;
  private readonly capacity: Float64Array;
  private readonly plane: number;
  /** Cells of plain columns: with a weak link of their own, alone with one link, together with one node, shared. */
  private readonly cells: Int32Array;
  private readonly weak: number;
  private readonly alone: number;
  private readonly owned: number;
  /** Link heat of each, as last solved and as it comes, W. */
  private readonly heat: Float64Array;
  private readonly flow: Float64Array;
  /** What a watt does to the cell itself and (but for weak ones, nl values each) to its column, K/W. */
  private readonly own: Float64Array;
  private readonly response: Float64Array;
  /** Of cells before the shared ones: their node, conductance, W/K, temperature at rest, and (G⁻¹ + R)⁻¹: sum of the row, diagonal. */
  private readonly node: Int32Array;
  private readonly G: Float64Array;
  private readonly ownedRest: Float64Array;
  private readonly effective: Float64Array;
  private readonly diagonal: Float64Array;
  /** Pairs of cells that stand in one plain column, by their place in `cells`, what a watt into one does to the other, K/W, and off-diagonal of (G⁻¹ + R)⁻¹. */
  private readonly pairs: (readonly [number, number])[] = [];
  private readonly ownedPairs: number;
  private readonly across: Float64Array;
  private readonly offDiagonal: Float64Array;
  /** Columns with several linked cells: first place in `cells`, how many, first of `pairs`. */
  private readonly groups: (readonly [number, number, number])[] = [];
  private readonly stiff: StiffColumn[];

  /** `excess`: conductance between a cell and the one below it that the kernel leaves out, W/K. */
  constructor(
    kernel: GridKernel,
    capacity: Float64Array,
    nodes: number,
    links: readonly CellLink[],
    excess: Float64Array | undefined,
  ) {
    this.kernel = kernel;
    this.capacity = capacity;
    const plane = (this.plane = kernel.nx * kernel.ny);
    const stiff = new Set<number>();
    excess?.forEach((G, c) => G > 0 && stiff.add(c % plane));
    // weak links do not reach their column: they never meet another cell of it
    const isWeak = (l: readonly CellLink[]) =>
      excess !== undefined && l.length === 1 && l[0].G < WEAK_RATE * capacity[l[0].cell];
    const weak: CellLink[] = [];
    const columns = new Map<number, CellLink[][]>();
    const byCell = new Map<number, CellLink[]>();
    for (const l of [...links].sort((a, b) => a.cell - b.cell)) byCell.set(l.cell, [...(byCell.get(l.cell) ?? []), l]);
    for (const [cell, l] of byCell) {
      const column = cell % plane;
      if (isWeak(l) && !stiff.has(column)) weak.push(l[0]);
      else columns.set(column, [...(columns.get(column) ?? []), l]);
    }
    const plain = [...columns].filter(([column]) => !stiff.has(column)).sort((a, b) => a[0] - b[0]);
    const isOwned = (cells: readonly CellLink[][]) =>
      cells.every((l) => l.length === 1 && l[0].node === cells[0][0].node);
    const owned = plain.flatMap(([, cells]) => (isOwned(cells) ? [cells.map(([l]) => l)] : []));
    const alone = owned.filter((l) => l.length === 1).flat();
    const together = owned.filter((l) => l.length > 1);
    const mixed = plain.flatMap(([, cells]) => (isOwned(cells) ? [] : [cells.map(([l]) => l.cell)]));
    const ofNode = [...weak, ...alone, ...together.flat()];
    this.weak = weak.length;
    this.alone = weak.length + alone.length;
    this.owned = ofNode.length;
    this.cells = Int32Array.from([...ofNode.map((l) => l.cell), ...mixed.flat()]);
    const group = (first: number, size: number) => {
      this.groups.push([first, size, this.pairs.length]);
      for (let i = 1; i < size; i++) for (let k = 0; k < i; k++) this.pairs.push([first + k, first + i]);
      return first + size;
    };
    together.reduce((at, l) => group(at, l.length), this.alone);
    this.ownedPairs = this.pairs.length;
    mixed.reduce((at, l) => group(at, l.length), this.owned);
    const shared = mixed.flat();
    for (const [a, b] of this.pairs.slice(this.ownedPairs)) this.couplings.push([a - this.owned, b - this.owned]);
    this.stiff = [...stiff]
      .sort((a, b) => a - b)
      .map((column) => {
        const linked = (columns.get(column) ?? []).map(([l]) => l.cell);
        const [first, coupling] = [shared.length, this.couplings.length];
        for (let i = 1; i < linked.length; i++) for (let k = 0; k < i; k++) this.couplings.push([first + k, first + i]);
        shared.push(...linked);
        return new StiffColumn(kernel, column, linked, first, coupling, excess as Float64Array);
      });
    const n = this.cells.length;
    this.heat = new Float64Array(n);
    this.flow = new Float64Array(n);
    this.own = new Float64Array(n);
    this.response = new Float64Array((n - this.weak) * kernel.nl);
    this.node = Int32Array.from(ofNode, (l) => l.node);
    this.G = Float64Array.from(ofNode, (l) => l.G);
    this.ownedRest = new Float64Array(this.owned);
    this.effective = new Float64Array(this.owned);
    this.diagonal = new Float64Array(this.owned);
    this.across = new Float64Array(this.pairs.length);
    this.offDiagonal = new Float64Array(this.ownedPairs);
    this.shared = Int32Array.from(shared);
    this.couplingG = new Float64Array(this.couplings.length);
    this.stiffness = new Float64Array(shared.length);
    this.rest = new Float64Array(shared.length);
    this.nodeG = new Float64Array(nodes);
    this.nodeHeat = new Float64Array(nodes);
  }

  /** How every linked cell answers to heat, for the kernel's present factors and a step of `dt`. */
  renew(dt: number): void {
    const { kernel, capacity, plane, cells, own, weak, pairs, across, G, owned } = this;
    const { nl } = kernel;
    for (let i = 0; i < cells.length; i++) {
      const c = cells[i];
      if (i < weak) own[i] = 1 / (capacity[c] / dt + kernel.theta * kernel.H[c]);
      else {
        const response = this.response.subarray((i - weak) * nl, (i - weak + 1) * nl);
        columnResponse(kernel, capacity, dt, c, response);
        own[i] = response[Math.floor(c / plane)];
      }
      if (i < this.alone) this.effective[i] = this.diagonal[i] = G[i] / (1 + G[i] * own[i]);
    }
    for (let k = 0; k < across.length; k++)
      across[k] = this.response[(pairs[k][0] - weak) * nl + Math.floor(cells[pairs[k][1]] / plane)];
    for (const [first, m, pair] of this.groups) {
      const R = new Float64Array(m * m);
      for (let i = 0, at = pair; i < m; i++) {
        R[i * m + i] = own[first + i] + (first < owned ? 1 / G[first + i] : 0);
        for (let k = 0; k < i; k++) R[k * m + i] = R[i * m + k] = across[at++];
      }
      if (first >= owned) couple(R, m, first - owned, pair - this.ownedPairs, this);
      else {
        const E = invert(R, m);
        for (let i = 0, at = pair; i < m; i++) {
          this.diagonal[first + i] = E[i * m + i];
          this.effective[first + i] = E.subarray(i * m, (i + 1) * m).reduce((a, b) => a + b, 0);
          for (let k = 0; k < i; k++) this.offDiagonal[at++] = E[i * m + k];
        }
      }
    }
    this.nodeG.fill(0);
    for (let i = 0; i < owned; i++) this.nodeG[this.node[i]] += this.effective[i];
    for (const column of this.stiff) column.renew(capacity, dt, this);
  }

  /** Heat of links and stiff columns as last solved, into the kernel's sources. */
  addTo(S: Float64Array): void {
    for (let i = 0; i < this.cells.length; i++) S[this.cells[i]] += this.heat[i];
    for (const column of this.stiff) column.addTo(S);
  }

  /** Reads the kernel in the middle of a step: what linked cells would be without their links. */
  read(): void {
    const { cells, own, heat, alone, owned, node, effective, ownedRest, rest, nodeHeat, across, pairs } = this;
    const { T, D } = this.kernel;
    nodeHeat.fill(0);
    for (let i = 0; i < alone; i++) {
      const c = cells[i];
      const at = T[c] + D[c] - own[i] * heat[i];
      ownedRest[i] = at;
      nodeHeat[node[i]] += effective[i] * at;
    }
    for (let i = alone; i < owned; i++) ownedRest[i] = T[cells[i]] + D[cells[i]] - own[i] * heat[i];
    for (let i = owned; i < cells.length; i++) rest[i - owned] = T[cells[i]] + D[cells[i]] - own[i] * heat[i];
    for (let k = 0; k < across.length; k++) {
      const [a, b] = pairs[k];
      if (k < this.ownedPairs) {
        ownedRest[a] -= across[k] * heat[b];
        ownedRest[b] -= across[k] * heat[a];
      } else {
        rest[a - owned] -= across[k] * heat[b];
        rest[b - owned] -= across[k] * heat[a];
      }
    }
    for (let i = alone; i < owned; i++) nodeHeat[node[i]] += effective[i] * ownedRest[i];
    for (const column of this.stiff) column.read(rest);
  }

  /** Corrects the kernel's change and its sources: `x` are the nodes' temperatures, `into` is the heat into every shared cell, W. */
  correct(x: Float64Array, into: Float64Array): void {
    const { cells, own, heat, flow, weak, alone, owned, node, effective, diagonal, ownedRest, response, plane } = this;
    const { D, S, nl } = this.kernel;
    for (let i = 0; i < weak; i++) {
      const c = cells[i];
      const Q = effective[i] * (x[node[i]] - ownedRest[i]);
      const delta = Q - heat[i];
      heat[i] = Q;
      S[c] += delta;
      D[c] += own[i] * delta;
    }
    for (let i = weak; i < alone; i++) flow[i] = effective[i] * (x[node[i]] - ownedRest[i]);
    for (let i = alone; i < owned; i++) flow[i] = effective[i] * x[node[i]] - diagonal[i] * ownedRest[i];
    for (let k = 0; k < this.ownedPairs; k++) {
      const [a, b] = this.pairs[k];
      flow[a] -= this.offDiagonal[k] * ownedRest[b];
      flow[b] -= this.offDiagonal[k] * ownedRest[a];
    }
    for (let i = owned; i < cells.length; i++) flow[i] = into[i - owned];
    for (let i = weak, k = 0; i < cells.length; i++) {
      const c = cells[i];
      const delta = flow[i] - heat[i];
      heat[i] = flow[i];
      S[c] += delta;
      for (let l = 0, q = c % plane; l < nl; l++, k++, q += plane) D[q] += response[k] * delta;
    }
    for (const column of this.stiff) column.correct(into);
  }
}

/** What network needs of `m` cells of a column from their response `R` (m × m): stiffnesses from place `a` on, couplings from `k` on. */
function couple(
  R: Float64Array,
  m: number,
  a: number,
  k: number,
  { stiffness, couplingG }: Pick<LinkedColumns, 'stiffness' | 'couplingG'>,
): void {
  const B = m === 1 ? R.map((r) => 1 / r) : invert(R, m);
  let at = k;
  for (let i = 0; i < m; i++) {
    stiffness[a + i] = 0;
    for (let j = 0; j < m; j++) stiffness[a + i] += B[i * m + j];
    for (let j = 0; j < i; j++) couplingG[at++] = -B[i * m + j];
  }
}

/** A column that keeps excess conductance between its layers: all of it answers together. */
class StiffColumn {
  private readonly kernel: GridKernel;
  private readonly cells: number[];
  private readonly excess: number[];
  /** Layers that are linked, and where they stand in `shared` and in `couplings`. */
  private readonly linked: number[];
  private readonly first: number;
  private readonly coupling: number;
  /** Heat into each layer as last solved, W, and its temperature without links, °C. */
  private readonly heat: Float64Array;
  private readonly rest: Float64Array;
  private smooth: Float64Array;
  private response: Float64Array;

  constructor(
    kernel: GridKernel,
    column: number,
    linked: readonly number[],
    first: number,
    coupling: number,
    excess: Float64Array,
  ) {
    this.kernel = kernel;
    const { nl } = kernel;
    const plane = kernel.nx * kernel.ny;
    this.cells = Array.from({ length: nl }, (_, l) => column + l * plane);
    this.excess = this.cells.map((c, l) => (l < nl - 1 ? excess[c] : 0));
    this.linked = linked.map((cell) => Math.floor(cell / plane));
    this.first = first;
    this.coupling = coupling;
    this.heat = new Float64Array(nl);
    this.rest = new Float64Array(nl);
    this.smooth = new Float64Array(nl * nl);
    this.response = new Float64Array(nl * nl);
  }

  renew(capacity: Float64Array, dt: number, network: Pick<LinkedColumns, 'stiffness' | 'couplingG'>): void {
    const { cells, excess, linked, kernel } = this;
    const n = cells.length;
    const R = new Float64Array(n * n);
    // symmetric: a row is the answer to heat into its layer
    for (const [l, c] of cells.entries()) columnResponse(kernel, capacity, dt, c, R.subarray(l * n, (l + 1) * n));
    // 1 + R·L with the Laplacian L of the excess
    const M = new Float64Array(n * n);
    for (let i = 0; i < n; i++) {
      M[i * n + i] += 1;
      for (let l = 0; l < n - 1; l++) {
        const flow = excess[l] * (R[i * n + l] - R[i * n + l + 1]);
        M[i * n + l] += flow;
        M[i * n + l + 1] -= flow;
      }
    }
    this.smooth = invert(M, n);
    this.response.fill(0);
    for (let i = 0; i < n; i++)
      for (let k = 0; k < n; k++)
        for (let j = 0; j < n; j++) this.response[i * n + j] += this.smooth[i * n + k] * R[k * n + j];
    const m = linked.length;
    const own = Float64Array.from(
      { length: m * m },
      (_, k) => this.response[linked[Math.floor(k / m)] * n + linked[k % m]],
    );
    couple(own, m, this.first, this.coupling, network);
  }

  addTo(S: Float64Array): void {
    for (const [l, c] of this.cells.entries()) S[c] += this.heat[l];
  }

  read(shared: Float64Array): void {
    const { cells, rest, heat, smooth, response, linked } = this;
    const { T, D } = this.kernel;
    const n = rest.length;
    rest.fill(0);
    for (let k = 0; k < n; k++) {
      const at = T[cells[k]] + D[cells[k]];
      for (let l = 0; l < n; l++) rest[l] += smooth[l * n + k] * at - response[l * n + k] * heat[k];
    }
    for (let i = 0; i < linked.length; i++) shared[this.first + i] = rest[linked[i]];
  }

  correct(into: Float64Array): void {
    const { cells, rest, heat, excess, response, linked } = this;
    const { T, D, S } = this.kernel;
    const n = rest.length;
    for (let i = 0; i < linked.length; i++)
      for (let l = 0; l < n; l++) rest[l] += response[l * n + linked[i]] * into[this.first + i];
    let [above, i] = [0, 0];
    for (let l = 0; l < n; l++) {
      const below = l < n - 1 ? excess[l] * (rest[l] - rest[l + 1]) : 0;
      let Q = above - below;
      if (linked[i] === l) Q += into[this.first + i++];
      above = below;
      const c = cells[l];
      D[c] = rest[l] - T[c];
      S[c] += Q - heat[l];
      heat[l] = Q;
    }
  }
}
