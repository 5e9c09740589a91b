/**
 * One transient computation: a board grid (optional), lumped nodes (optional) and the links between
 * them. The grid steps by Douglas–Gunn; nodes step by implicit Euler, solved together with the cells
 * they touch, so no link needs a small step. Whatever leaves a node through a link enters the cell:
 * energy is conserved to rounding.
 *
 * Coupling: the kernel first steps with the old link heat Q_n in S. A cell then answers a change of
 * its link heat with beta = its column response, T_c = T* + beta·(Q - Q_n). A cell with a single link is
 * eliminated at once, Q = G/(1 + G·beta)·(T_node - T* + beta·Q_n); a cell with several joins the network
 * of nodes as an unknown with capacity 1/beta. Newton on enthalpy (slope zero in a melting plateau)
 * solves it; the final change goes down the column.
 */
import { columnResponse, factorise, type GridKernel, type Sweeps } from './gridKernel.ts';
import { assemble, type BoardGrid } from './grid.ts';
import { branchOf, enthalpyAt, slopeOf, temperatureOf } from './enthalpy.ts';
import { ironPower, ironRegime, type HeatLink, type HeatNode } from './heatNodes.ts';
import { factorSparse, planElimination, solveSparse, type Elimination } from '../numerics/sparseSolve.ts';
import { STEFAN_BOLTZMANN, ZERO_CELSIUS_K } from '../quantities/constants.ts';

export interface HeatSystem {
  grid?: BoardGrid;
  nodes: HeatNode[];
  links: HeatLink[];
  /**
   * In a hurry, exact enough for plans: sweeps in singles, the heat of weak links (air gaps) renewed every few steps
   * only, and what the cells lose (`lost_J`) not booked.
   */
  quick?: boolean;
  /** Number type of the sweeps, where it is not what `quick` says: to tell rounding from what else is quick. */
  sweeps?: Sweeps;
}

const PINNED = 1e200;
/**
 * A link below this rate (conductance over the cell's capacity, 1/s: an air gap, say) changes its heat slowly. It is
 * renewed every few steps, and the cell's change then need not reach its column. Rate × turn × dt, lessened by
 * the implicit solve, stays below 1 up to steps of 0.1 s, so the held heat cannot overshoot.
 */
const WEAK_RATE = 3.2;
const WEAK_TURN = 4;

export class HeatRun {
  readonly kernel?: GridKernel;
  readonly capacity?: Float64Array;
  readonly nodes: HeatNode[];
  /** Node temperatures, °C, and enthalpies of joints, J (0 for others). */
  readonly T: Float64Array;
  readonly H: Float64Array;
  /** Power into each node besides links and surroundings, W; may be changed between steps. */
  readonly power: Float64Array;
  readonly hA: Float64Array;
  readonly Tinf: Float64Array;
  /** Power into each cell besides links, W, without boundary terms. */
  readonly cellPower?: Float64Array;
  time = 0;
  input_J = 0;
  lost_J = 0;

  /** Links of the network proper: their number in the system, ends (nodes, then shared cells). */
  private readonly innerOf: Map<number, number>;
  private readonly linkG: Float64Array;
  private linksChanged = true;
  private readonly linkFrom: Int32Array;
  private readonly linkTo: Int32Array;
  /** Links of the network proper, by node. */
  private readonly linksOf: number[][];
  private readonly plan: Elimination;
  /** Linked cells: first the single ones, one link each, then the shared ones (network unknowns). */
  private readonly cells: Int32Array;
  private readonly singles: number;
  /** The first of the single cells have such weak links that the cell alone answers, not its column. */
  private readonly weak: number;
  /** Heat from the weakly linked cells into each node as last solved, W. */
  private readonly weakHeat: Float64Array;
  private weakTurn = true;
  private stepCount = 0;
  private readonly columns: Int32Array;
  private readonly singleNode: Int32Array;
  private readonly singleG: Float64Array;
  private readonly singleEff: Float64Array;
  /** Per node: sum of effective conductances to single cells, and of conductance × cell temperature. */
  private readonly cellK: Float64Array;
  private readonly cellS: Float64Array;
  private readonly boundary?: Float64Array;
  private readonly cellQ: Float64Array;
  private readonly change: Float64Array;
  /** Column responses, nl values per linked cell, and the own cell's value. */
  private readonly responses: Float64Array;
  private readonly beta: Float64Array;
  private readonly diagonal: Float64Array;
  private readonly values: Float64Array;
  private readonly factorDiagonal: Float64Array;
  private readonly factoredFor: Float64Array;
  private readonly rhs: Float64Array;
  private readonly x: Float64Array;
  private readonly residual: Float64Array;
  private readonly Hold: Float64Array;
  private readonly Told: Float64Array;
  private readonly initialGrid?: Float64Array;
  private readonly initialNode: Float64Array;
  private readonly quick: boolean;
  private boundarySum = 0;
  private lastRate = 0;
  private factored = 0;
  private stale: 'all' | 'z' | 'no' = 'all';

  constructor(system: HeatSystem, initial_C: number | Float64Array) {
    this.nodes = system.nodes;
    this.quick = system.quick ?? false;
    const n = system.nodes.length;
    if (system.grid) {
      const { kernel, capacity } = assemble(system.grid, system.sweeps ?? (this.quick ? 'single' : 'double'));
      this.kernel = kernel;
      this.capacity = capacity;
      this.boundary = new Float64Array(capacity.length);
      this.cellPower = new Float64Array(capacity.length);
      if (typeof initial_C === 'number') kernel.T.fill(initial_C, 0, capacity.length);
      else kernel.T.set(initial_C);
      this.initialGrid = kernel.T.slice(0, capacity.length);
    }
    const uses = new Map<number, number[]>();
    for (const [i, l] of system.links.entries()) if ('cell' in l) uses.set(l.cell, [...(uses.get(l.cell) ?? []), i]);
    const strength = (links: number[]) => system.links[links[0]].G;
    const isWeak = ([cell, links]: [number, number[]]) =>
      this.quick && strength(links) < WEAK_RATE * (this.capacity?.[cell] ?? 0);
    // in the order of memory within each group
    const sorted = [...uses].sort((a, b) => a[0] - b[0]);
    const alone = sorted.filter(([, links]) => links.length === 1);
    const single = [...alone.filter((u) => isWeak(u)), ...alone.filter((u) => !isWeak(u))];
    const shared = sorted.filter(([, links]) => links.length > 1);
    this.singles = single.length;
    this.weak = single.filter((u) => isWeak(u)).length;
    this.cells = Int32Array.from([...single, ...shared], ([cell]) => cell);
    const plane = this.kernel ? this.kernel.nx * this.kernel.ny : 1;
    this.columns = this.cells.map((c) => c % plane);
    this.singleNode = Int32Array.from(single, ([, [i]]) => system.links[i].a);
    this.singleG = Float64Array.from(single, ([, links]) => strength(links));
    this.singleEff = new Float64Array(this.singles);
    this.cellK = new Float64Array(n);
    this.cellS = new Float64Array(n);
    this.weakHeat = new Float64Array(n);
    const unknownOf = new Map(shared.map(([cell], i) => [cell, n + i]));
    const isInner = (l: HeatLink) => 'node' in l || unknownOf.has(l.cell);
    const inner = system.links.flatMap((l, i) => (isInner(l) ? [i] : []));
    this.innerOf = new Map(inner.map((i, k) => [i, k]));
    this.linkG = Float64Array.from(inner, (i) => system.links[i].G);
    this.linkFrom = Int32Array.from(inner, (i) => system.links[i].a);
    this.linkTo = Int32Array.from(inner, (i) => {
      const l = system.links[i];
      return 'node' in l ? l.node : (unknownOf.get(l.cell) as number);
    });
    this.linksOf = this.nodes.map(() => []);
    for (let l = 0; l < inner.length; l++)
      for (const end of [this.linkFrom[l], this.linkTo[l]]) this.linksOf[end]?.push(l);
    const size = n + shared.length;
    this.plan = planElimination(
      size,
      inner.map((_, i) => [this.linkFrom[i], this.linkTo[i]] as const),
    );
    this.T = Float64Array.from(this.nodes, (node) => node.T0);
    this.H = Float64Array.from(this.nodes, (node) => (node.type === 'joint' ? enthalpyAt(node.enthalpy, node.T0) : 0));
    this.power = Float64Array.from(this.nodes, (node) => node.P ?? 0);
    this.hA = Float64Array.from(this.nodes, (node) => node.hA ?? 0);
    this.Tinf = Float64Array.from(this.nodes, (node) => node.Tinf ?? 0);
    this.initialNode = this.nodeEnergies();
    this.cellQ = new Float64Array(this.cells.length);
    this.change = new Float64Array(this.cells.length);
    this.responses = new Float64Array(this.cells.length * (this.kernel?.nl ?? 0));
    this.beta = new Float64Array(this.cells.length);
    this.diagonal = new Float64Array(size);
    this.values = new Float64Array(this.plan.slots);
    this.factorDiagonal = new Float64Array(size);
    this.factoredFor = new Float64Array(size);
    this.rhs = new Float64Array(size);
    this.x = new Float64Array(size);
    this.residual = new Float64Array(size);
    this.Hold = new Float64Array(n);
    this.Told = new Float64Array(n);
  }

  /** Sets the exchange of every cell with its surroundings: conductance W/K and H·T_surroundings W. */
  setBoundary(conductance: Float64Array, constant: Float64Array): void {
    if (!this.kernel || !this.boundary) return;
    this.kernel.H.set(conductance);
    this.boundary.set(constant);
    if (this.stale === 'no') this.stale = 'z';
    this.refreshSources();
  }

  /** Puts boundary terms, cell power and link heat into S; call after changing `cellPower`. */
  refreshSources(): void {
    if (!this.kernel || !this.boundary || !this.cellPower) return;
    const { S } = this.kernel;
    let sum = 0;
    for (let c = 0; c < this.boundary.length; c++) {
      sum += this.boundary[c];
      S[c] = this.boundary[c] + this.cellPower[c];
    }
    for (let i = 0; i < this.cells.length; i++) S[this.cells[i]] += this.cellQ[i];
    this.boundarySum = sum;
    if (!this.quick) this.lastRate = this.kernel.lossRate();
  }

  /** Changes the conductance (W/K) of link `index` of the system, which must be between nodes. */
  setLink(index: number, G: number): void {
    const k = this.innerOf.get(index);
    if (k === undefined) throw new Error(`Link ${index} is not between nodes.`);
    if (this.linkG[k] === G) return;
    this.linkG[k] = G;
    this.linksChanged = true;
  }

  /** Advances by `dt` seconds. */
  step(dt: number): void {
    const { kernel, capacity } = this;
    if (kernel && capacity) {
      if (this.stale !== 'no' || this.factored !== dt) {
        factorise(kernel, capacity, dt, this.factored === dt && this.stale === 'z' ? 'z' : 'all');
        this.renewResponses(kernel, capacity, dt);
        this.factored = dt;
        this.stale = 'no';
      }
      kernel.step(1);
    }
    if (this.nodes.length > 0) this.solveNetwork(dt);
    if (kernel && !this.quick) {
      const rate = kernel.lossRate();
      this.lost_J += dt * (0.5 * (this.lastRate + rate) - this.boundarySum);
      this.lastRate = rate;
    }
    this.time += dt;
  }

  /** Adds to the energy input what the cell sources give during `dt`; `watts` is their sum. */
  countInput(watts: number, dt: number): void {
    this.input_J += watts * dt;
  }

  /**
   * Heat flowing into a node in the last step, W: from power and surroundings, from cells of its own, and from each node or shared cell
   * it is linked to (`other` gets the node's number, or undefined for a cell).
   */
  heatInto(node: number, other: (watts: number, from: number | undefined) => void): { air: number; cells: number } {
    const { T, x, linkFrom, linkTo, linkG } = this;
    for (const l of this.linksOf[node]) {
      const from = linkFrom[l] === node ? linkTo[l] : linkFrom[l];
      other(linkG[l] * (x[from] - x[node]), from < T.length ? from : undefined);
    }
    return {
      air: this.power[node] - this.hA[node] * (T[node] - this.Tinf[node]),
      cells: this.cellS[node] - this.cellK[node] * T[node],
    };
  }

  /** Heat stored since the start, J. */
  stored_J(): number {
    let sum = 0;
    if (this.kernel && this.capacity && this.initialGrid) {
      const { T } = this.kernel;
      for (let c = 0; c < this.initialGrid.length; c++) sum += this.capacity[c] * (T[c] - this.initialGrid[c]);
    }
    const now = this.nodeEnergies();
    for (let i = 0; i < now.length; i++) sum += now[i] - this.initialNode[i];
    return sum;
  }

  private nodeEnergies(): Float64Array {
    return Float64Array.from(this.nodes, (node, i) => {
      if (node.type === 'joint') return this.H[i];
      return node.type === 'fixed' ? 0 : node.C * this.T[i];
    });
  }

  /** How every linked cell answers to heat, for the present factors. */
  private renewResponses(kernel: GridKernel, capacity: Float64Array, dt: number): void {
    const { nl } = kernel;
    const plane = kernel.nx * kernel.ny;
    for (let i = this.weak; i < this.cells.length; i++) {
      const c = this.cells[i];
      const response = this.responses.subarray(i * nl, (i + 1) * nl);
      columnResponse(kernel, capacity, dt, c, response);
      this.beta[i] = response[Math.floor(c / plane)];
    }
    for (let i = 0; i < this.weak; i++) {
      const c = this.cells[i];
      this.beta[i] = 1 / (capacity[c] / dt + 0.5 * kernel.H[c]);
    }
    for (let i = 0; i < this.singles; i++) this.singleEff[i] = this.singleG[i] / (1 + this.singleG[i] * this.beta[i]);
  }

  /**
   * Sums up, per node, what its single cells mean to it. Weak links are solved anew at every
   * `WEAK_TURN`-th step only; in between their heat stays as it is, on both ends.
   */
  private gatherCells(): void {
    const { kernel, cells, singleNode, singleEff, beta, cellQ, cellK, cellS } = this;
    cellK.fill(0);
    if (!kernel) {
      cellS.fill(0);
      return;
    }
    if (this.weakTurn) cellS.fill(0);
    else cellS.set(this.weakHeat);
    for (let i = this.weakTurn ? 0 : this.weak; i < this.singles; i++) {
      cellK[singleNode[i]] += singleEff[i];
      cellS[singleNode[i]] += singleEff[i] * (kernel.T[cells[i]] - beta[i] * cellQ[i]);
    }
  }

  private solveNetwork(dt: number): void {
    const { T, H, x, rhs, diagonal, plan, linkFrom, linkTo, linkG } = this;
    const n = this.nodes.length;
    const size = plan.size;
    this.Told.set(T);
    this.Hold.set(H);
    this.weakTurn = this.stepCount++ % WEAK_TURN === 0;
    this.gatherCells();
    for (let i = 0; i < n; i++) x[i] = T[i];
    for (let i = n; i < size; i++) x[i] = this.kernel ? this.kernel.T[this.cells[this.singles + i - n]] : 0;
    for (let iteration = 0; iteration < 60; iteration++) {
      for (let i = 0; i < n; i++) this.nodeTerms(i, dt);
      for (let i = n; i < size; i++) this.cellTerms(i);
      for (let l = 0; l < linkG.length; l++) {
        const a = linkFrom[l];
        const b = linkTo[l];
        const q = linkG[l] * (x[a] - x[b]);
        rhs[a] -= q;
        rhs[b] += q;
      }
      this.residual.set(rhs);
      for (let i = 0; i < n; i++) if (diagonal[i] >= PINNED) rhs[i] = 0;
      this.refactor();
      solveSparse(plan, this.factorDiagonal, this.values, rhs);
      this.addNeighbourChanges();
      // piecewise linear: a full step that changes no branch is the exact solution
      const damp = iteration > 12 && iteration % 4 === 3 ? 0.5 : 1;
      if (!this.moveUnknowns(dt, damp) && damp === 1) break;
    }
    this.commit(dt);
  }

  /** Factors the network's matrix, unless neither a diagonal term nor a link has changed. */
  private refactor(): void {
    const { diagonal, factoredFor, factorDiagonal, values, plan, linkFrom, linkTo, linkG } = this;
    let same = !this.linksChanged;
    for (let i = 0; same && i < diagonal.length; i++) same = diagonal[i] === factoredFor[i];
    if (same) return;
    factoredFor.set(diagonal);
    factorDiagonal.set(diagonal);
    values.fill(0);
    for (let l = 0; l < linkG.length; l++) {
      factorDiagonal[linkFrom[l]] += linkG[l];
      factorDiagonal[linkTo[l]] += linkG[l];
      values[plan.edgeSlot[l]] -= linkG[l];
    }
    factorSparse(plan, factorDiagonal, values);
    this.linksChanged = false;
  }

  /** Adds to each node's residual what the change of its neighbours brings through the links. */
  private addNeighbourChanges(): void {
    const { linkFrom, linkTo, linkG, rhs, residual } = this;
    for (let l = 0; l < linkG.length; l++) {
      residual[linkFrom[l]] += linkG[l] * rhs[linkTo[l]];
      residual[linkTo[l]] += linkG[l] * rhs[linkFrom[l]];
    }
  }

  /** Applies the Newton change; true when a node came onto another branch of its law. */
  private moveUnknowns(dt: number, damp: number): boolean {
    const { nodes, H, x, rhs } = this;
    let bent = false;
    for (let i = 0; i < x.length; i++) {
      const node = i < nodes.length ? nodes[i] : undefined;
      if (node?.type === 'fixed') continue;
      if (node?.type === 'joint') {
        const branch = branchOf(node.enthalpy, H[i]);
        const slope = slopeOf(node.enthalpy, H[i]);
        H[i] += slope > 0 ? (damp * rhs[i]) / slope : damp * dt * this.residual[i];
        x[i] = temperatureOf(node.enthalpy, H[i]);
        if (branchOf(node.enthalpy, H[i]) !== branch) bent = true;
        continue;
      }
      const before = x[i];
      x[i] += damp * rhs[i];
      if (node?.type === 'iron' && ironRegime(node, before) !== ironRegime(node, x[i])) bent = true;
      if (node?.type === 'body' && node.radiation && Math.abs(rhs[i]) > 1e-9) bent = true;
    }
    return bent;
  }

  /** Residual and diagonal of a shared cell without its links. */
  private cellTerms(i: number): void {
    const { x, rhs, diagonal, kernel } = this;
    const k = this.singles + i - this.nodes.length;
    const stiffness = 1 / this.beta[k];
    diagonal[i] = stiffness;
    rhs[i] = -(x[i] - (kernel as GridKernel).T[this.cells[k]]) * stiffness - this.cellQ[k];
  }

  /** Residual and diagonal of a node without its links to other nodes and shared cells. */
  private nodeTerms(i: number, dt: number): void {
    const { nodes, x, rhs, diagonal, H } = this;
    const node = nodes[i];
    rhs[i] = this.power[i] - this.hA[i] * (x[i] - this.Tinf[i]) + this.cellS[i] - this.cellK[i] * x[i];
    const open = this.hA[i] + this.cellK[i];
    if (node.type === 'fixed') diagonal[i] = PINNED;
    else if (node.type === 'joint') {
      const slope = slopeOf(node.enthalpy, H[i]);
      rhs[i] -= (H[i] - this.Hold[i]) / dt;
      diagonal[i] = slope > 0 ? 1 / (slope * dt) + open : PINNED;
    } else {
      rhs[i] -= (node.C * (x[i] - this.Told[i])) / dt;
      diagonal[i] = node.C / dt + open;
      if (node.type === 'iron') {
        rhs[i] += ironPower(node, x[i]);
        if (ironRegime(node, x[i]) === 0) diagonal[i] += node.gain;
      } else if (node.radiation) {
        const { epsA, Tsur } = node.radiation;
        const kelvin = x[i] + ZERO_CELSIUS_K;
        rhs[i] -= epsA * STEFAN_BOLTZMANN * (kelvin ** 4 - (Tsur + ZERO_CELSIUS_K) ** 4);
        diagonal[i] += 4 * epsA * STEFAN_BOLTZMANN * kelvin ** 3;
      }
    }
  }

  /** Takes the solved temperatures over and books the energy of the step. */
  private commit(dt: number): void {
    const { nodes, x, T, kernel, linkFrom, linkTo, linkG, change } = this;
    const n = nodes.length;
    if (kernel) {
      change.fill(0);
      for (let i = this.weakTurn ? 0 : this.weak; i < this.singles; i++)
        change[i] =
          this.singleEff[i] * (x[this.singleNode[i]] - kernel.T[this.cells[i]] + this.beta[i] * this.cellQ[i]);
      for (let l = 0; l < linkG.length; l++) {
        const b = linkTo[l];
        if (b >= n) change[this.singles + b - n] += linkG[l] * (x[linkFrom[l]] - x[b]);
      }
      this.warmColumns(kernel);
    }
    for (let i = 0; i < n; i++) {
      const node = nodes[i];
      T[i] = x[i];
      this.input_J += dt * this.power[i];
      if (node.type === 'iron') this.input_J += dt * ironPower(node, x[i]);
      if (node.type === 'fixed') {
        let out = this.cellK[i] * x[i] - this.cellS[i];
        for (let l = 0; l < linkG.length; l++) {
          if (linkFrom[l] === i) out += linkG[l] * (x[i] - x[linkTo[l]]);
          else if (linkTo[l] === i) out += linkG[l] * (x[i] - x[linkFrom[l]]);
        }
        this.input_J += dt * (out - this.power[i]);
        continue;
      }
      this.lost_J += dt * this.hA[i] * (x[i] - this.Tinf[i]);
      if (node.type === 'body' && node.radiation)
        this.lost_J +=
          dt *
          node.radiation.epsA *
          STEFAN_BOLTZMANN *
          ((x[i] + ZERO_CELSIUS_K) ** 4 - (node.radiation.Tsur + ZERO_CELSIUS_K) ** 4);
    }
  }

  /** Sends the change of every cell's link heat down its column. */
  private warmColumns(kernel: GridKernel): void {
    const { cells, cellQ, change, responses } = this;
    const { T, S, nl } = kernel;
    const plane = kernel.nx * kernel.ny;
    if (this.weakTurn) {
      this.weakHeat.fill(0);
      for (let i = 0; i < this.weak; i++) {
        const c = cells[i];
        const delta = change[i] - cellQ[i];
        cellQ[i] = change[i];
        S[c] += delta;
        T[c] += this.beta[i] * delta;
        this.weakHeat[this.singleNode[i]] -= change[i];
      }
    }
    for (let i = this.weak; i < cells.length; i++) {
      const delta = change[i] - cellQ[i];
      cellQ[i] = change[i];
      S[cells[i]] += delta;
      for (let k = i * nl, q = this.columns[i]; k < (i + 1) * nl; k++, q += plane) T[q] += responses[k] * delta;
    }
  }
}
