/**
 * Where lumps touch the board. In the middle of a step (`GridKernel.begin`) a cell answers a change of its link heat through its column,
 * T = T* + R·(Q − Q_n), R = (C/dt + θ·A_z)⁻¹; the last sweep then spreads that sideways. Link heat is remembered from step to
 * step, so what flows steadily reaches every sweep.
 *
 * - A column with one link is eliminated at once: Q = G/(1 + G·R)·(T_node − T* + R·Q_n). A weak link (an air gap, say) moves its cell so
 *   little that the cell may answer alone; those of a heavy body are solved anew every few steps only, their heat held on both ends in between.
 * - Cells of one column that are linked to one node (a pin in its hole) answer each other, and go at once too: Q = (G⁻¹ + R)⁻¹·(…) with R a
 *   matrix.
 * - Where several nodes meet in a column, each of its linked cells is an unknown of the network: R⁻¹, an M-matrix, is written as a
 *   stiffness of each cell's own and couplings between them.
 * - A column whose layers exchange heat faster than the sweeps bear (vias, thin boards) keeps the excess here: heat between
 *   neighbouring layers, −L·T, implicit and remembered like that of links. R becomes (R⁻¹ + L)⁻¹, the inverse of a tridiagonal matrix.
 */
import { invert, invertTridiagonal } from '../ground/index.ts';
import { columnResponse, type GridKernel } from './gridKernel.ts';

/** A link below this rate (conductance over the cell's capacity, 1/s) is weak: it moves the cell by less than a third of the difference in 0.1 s. */
const WEAK_RATE = 3.2;

/** Links of a body are held for so many steps, */
const HELD_TURNS = 4;
/** if a step moves it and its cells by less than this part of their difference: no overshoot then, and unstable only from three times as much on. */
const HOLDS_BELOW = 1 / 3;

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
  nodeG: Float64Array;
  readonly nodeHeat: Float64Array;

  private readonly kernel: GridKernel;
  private readonly capacity: Float64Array;
  private readonly plane: number;
  /** Cells of plain columns: with a weak link that is held, with a weak one that is not, alone with one link, together with one node, shared. */
  private readonly cells: Int32Array;
  private readonly held: number;
  private readonly weak: number;
  private turn = HELD_TURNS - 1;
  /** Heat of held links out of each node, W, as last solved. */
  private readonly heldHeat: Float64Array;
  /** `nodeG` when held links are solved, and in between. */
  private readonly allG: Float64Array;
  private readonly movingG: Float64Array;
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
  private readonly stiff: StiffColumns;

  /**
   * `bodies`: heat capacity of each node, J/K, or 0 where it is no plain body. `excess`: conductance between a cell and the one below it that the
   * kernel leaves out at steps up to `longest_s`, W/K.
   */
  constructor(
    kernel: GridKernel,
    capacity: Float64Array,
    bodies: readonly number[],
    links: readonly CellLink[],
    uneven?: { excess: Float64Array; longest_s: number },
  ) {
    this.kernel = kernel;
    this.capacity = capacity;
    const plane = (this.plane = kernel.nx * kernel.ny);
    const excess = uneven?.excess;
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
    const canHold = holdable(weak, bodies, capacity, uneven?.longest_s ?? Infinity);
    const held = weak.filter((l) => canHold[l.node]);
    const moving = weak.filter((l) => !canHold[l.node]);
    const ofNode = [...held, ...moving, ...alone, ...together.flat()];
    this.held = held.length;
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
    const stiffOnes = [...stiff]
      .sort((a, b) => a - b)
      .map((column) => ({ column, linked: (columns.get(column) ?? []).map(([l]) => l.cell) }));
    this.stiff = new StiffColumns(kernel, stiffOnes, excess, shared, this.couplings);
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
    this.allG = new Float64Array(bodies.length);
    this.movingG = new Float64Array(bodies.length);
    this.nodeG = this.allG;
    this.nodeHeat = new Float64Array(bodies.length);
    this.heldHeat = new Float64Array(bodies.length);
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
    this.allG.fill(0);
    this.movingG.fill(0);
    for (let i = 0; i < owned; i++) {
      this.allG[this.node[i]] += this.effective[i];
      if (i >= this.held) this.movingG[this.node[i]] += this.effective[i];
    }
    this.stiff.renew(capacity, dt, this);
  }

  /** Heat of links and stiff columns as last solved, into the kernel's sources. */
  addTo(S: Float64Array): void {
    for (let i = 0; i < this.cells.length; i++) S[this.cells[i]] += this.heat[i];
    this.stiff.addTo(S);
  }

  /** Reads the kernel in the middle of a step: what linked cells would be without their links. */
  read(): void {
    const { cells, own, heat, alone, owned, node, effective, ownedRest, rest, nodeHeat, across, pairs } = this;
    const { T, D } = this.kernel;
    this.turn = (this.turn + 1) % HELD_TURNS;
    const first = this.turn === 0 ? 0 : this.held;
    this.nodeG = first === 0 ? this.allG : this.movingG;
    if (first === 0) nodeHeat.fill(0);
    else for (let n = 0; n < nodeHeat.length; n++) nodeHeat[n] = -this.heldHeat[n];
    for (let i = first; i < alone; i++) {
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
    this.stiff.read(rest);
  }

  /** Corrects the kernel's change and its sources: `x` are the nodes' temperatures, `into` is the heat into every shared cell, W. */
  correct(x: Float64Array, into: Float64Array): void {
    const { cells, own, heat, flow, weak, alone, owned, node, effective, diagonal, ownedRest, response, plane } = this;
    const { D, S, nl } = this.kernel;
    if (this.turn === 0) this.heldHeat.fill(0);
    for (let i = this.turn === 0 ? 0 : this.held; i < weak; i++) {
      const c = cells[i];
      const Q = effective[i] * (x[node[i]] - ownedRest[i]);
      const delta = Q - heat[i];
      heat[i] = Q;
      if (i < this.held) this.heldHeat[node[i]] += Q;
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
    this.stiff.correct(into);
  }
}

/** Bodies so heavy that their weak links may be held at steps up to `longest_s`, by node. */
function holdable(
  weak: readonly CellLink[],
  bodies: readonly number[],
  capacity: Float64Array,
  longest_s: number,
): boolean[] {
  const sum = bodies.map(() => 0);
  const most = bodies.map(() => 0);
  for (const { node, cell, G } of weak) {
    sum[node] += G;
    most[node] = Math.max(most[node], G / capacity[cell]);
  }
  return bodies.map((C, n) => C > 0 && longest_s * (sum[n] / C + most[n]) < HOLDS_BELOW);
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

/** Columns that keep excess conductance between their layers: all of one answers together. Values of a column follow each other, nl or nl × nl of them. */
class StiffColumns {
  private readonly kernel: GridKernel;
  private readonly tops: Int32Array;
  /** Excess below every layer, W/K. */
  private readonly excess: Float64Array;
  /** Place of every layer in `shared`, or -1. */
  private readonly place: Int32Array;
  /** Places of a column's first coupling, and its linked layers. */
  private readonly coupling: Int32Array;
  private readonly linked: number[][];
  /** Heat into each layer as last solved, W, and its temperature without links, °C. */
  private readonly heat: Float64Array;
  private readonly rest: Float64Array;
  private readonly smooth: Float64Array;
  private readonly response: Float64Array;

  /** `shared` and `couplings` get what the columns add to them. */
  constructor(
    kernel: GridKernel,
    columns: readonly { column: number; linked: readonly number[] }[],
    excess: Float64Array | undefined,
    shared: number[],
    couplings: (readonly [number, number])[],
  ) {
    this.kernel = kernel;
    const { nl } = kernel;
    const plane = kernel.nx * kernel.ny;
    const n = columns.length;
    this.tops = Int32Array.from(columns, ({ column }) => column);
    this.excess = new Float64Array(n * nl);
    this.place = new Int32Array(n * nl).fill(-1);
    this.coupling = new Int32Array(n);
    this.linked = columns.map(({ linked }) => linked.map((cell) => Math.floor(cell / plane)));
    for (const [b, { column, linked }] of columns.entries()) {
      for (let l = 0; excess && l < nl - 1; l++) this.excess[b * nl + l] = excess[column + l * plane];
      this.coupling[b] = couplings.length;
      const first = shared.length;
      for (let i = 1; i < linked.length; i++) for (let k = 0; k < i; k++) couplings.push([first + k, first + i]);
      for (const layer of this.linked[b]) this.place[b * nl + layer] = shared.push(column + layer * plane) - 1;
    }
    this.heat = new Float64Array(n * nl);
    this.rest = new Float64Array(n * nl);
    this.smooth = new Float64Array(n * nl * nl);
    this.response = new Float64Array(n * nl * nl);
  }

  renew(capacity: Float64Array, dt: number, network: Pick<LinkedColumns, 'stiffness' | 'couplingG'>): void {
    const { kernel, tops, excess, linked, place } = this;
    const { theta, nl: n, GZ, H } = kernel;
    const plane = kernel.nx * kernel.ny;
    const [pivot, down] = [new Float64Array(n), new Float64Array(n)];
    for (let b = 0; b < tops.length; b++) {
      // C/dt + θ·A_z + L is tridiagonal, as A_z and the Laplacian L of the excess are
      for (let l = 0, c = tops[b], above = 0; l < n; l++, c += plane) {
        const below = l < n - 1 ? theta * GZ[c] + excess[b * n + l] : 0;
        pivot[l] = 1 / (capacity[c] / dt + theta * H[c] + above + below - (l > 0 ? above * down[l - 1] : 0));
        down[l] = below * pivot[l];
        above = below;
      }
      const response = this.response.subarray(b * n * n, (b + 1) * n * n);
      invertTridiagonal(pivot, down, response);
      // what is left of a change of the column alone: (1 + R·L)⁻¹ = 1 - response·L
      const smooth = this.smooth.subarray(b * n * n, (b + 1) * n * n).fill(0);
      for (let i = 0; i < n; i++) {
        smooth[i * n + i] += 1;
        for (let l = 0; l < n - 1; l++) {
          const flow = excess[b * n + l] * (response[i * n + l] - response[i * n + l + 1]);
          smooth[i * n + l] -= flow;
          smooth[i * n + l + 1] += flow;
        }
      }
      const m = linked[b].length;
      if (m === 0) continue;
      const own = Float64Array.from(
        { length: m * m },
        (_, k) => response[linked[b][Math.floor(k / m)] * n + linked[b][k % m]],
      );
      couple(own, m, place[b * n + linked[b][0]], this.coupling[b], network);
    }
  }

  addTo(S: Float64Array): void {
    const { nl, nx, ny } = this.kernel;
    for (let b = 0, k = 0; b < this.tops.length; b++)
      for (let l = 0, c = this.tops[b]; l < nl; l++, k++, c += nx * ny) S[c] += this.heat[k];
  }

  read(shared: Float64Array): void {
    const { tops, rest, heat, smooth, response, place } = this;
    const { T, D, nl, nx, ny } = this.kernel;
    const plane = nx * ny;
    rest.fill(0);
    for (let b = 0; b < tops.length; b++) {
      const [first, square] = [b * nl, b * nl * nl];
      for (let k = 0, c = tops[b]; k < nl; k++, c += plane) {
        const at = T[c] + D[c];
        const Q = heat[first + k];
        for (let l = 0, m = square + k; l < nl; l++, m += nl) rest[first + l] += smooth[m] * at - response[m] * Q;
      }
    }
    for (let k = 0; k < place.length; k++) if (place[k] >= 0) shared[place[k]] = rest[k];
  }

  correct(into: Float64Array): void {
    const { tops, rest, heat, excess, response, place } = this;
    const { T, D, S, nl, nx, ny } = this.kernel;
    const plane = nx * ny;
    for (let b = 0; b < tops.length; b++) {
      const first = b * nl;
      for (let k = 0; k < nl; k++) {
        const at = place[first + k];
        if (at < 0) continue;
        for (let l = 0; l < nl; l++) rest[first + l] += response[(first + l) * nl + k] * into[at];
      }
      let above = 0;
      for (let l = 0, k = first, c = tops[b]; l < nl; l++, k++, c += plane) {
        const below = l < nl - 1 ? excess[k] * (rest[k] - rest[k + 1]) : 0;
        const Q = above - below + (place[k] < 0 ? 0 : into[place[k]]);
        above = below;
        D[c] = rest[k] - T[c];
        S[c] += Q - heat[k];
        heat[k] = Q;
      }
    }
  }
}
