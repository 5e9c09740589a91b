/**
 * One transient computation: a board grid (optional), lumped nodes (optional) and the links between
 * them. The grid steps by Douglas–Gunn; nodes step by implicit Euler, solved together with the cells
 * they touch, so no link needs a small step. Whatever leaves a node through a link enters the cell:
 * energy is conserved to rounding.
 *
 * Coupling: the kernel first steps with the old link heat Q_n in S. A cell then answers a change of
 * its link heat with beta = its column response, T_c = T* + beta·(Q - Q_n), and cells join the network
 * of nodes as unknowns with capacity 1/beta. Newton on enthalpy (slope zero in a melting plateau)
 * solves it; the final change goes down the column.
 */
import { columnResponse, factorise, type GridKernel, type KernelKind } from './gridKernel.ts';
import { assemble, type BoardGrid } from './grid.ts';
import { branchOf, enthalpyAt, slopeOf, temperatureOf, type JointEnthalpy } from './enthalpy.ts';
import { planElimination, solveSparse, type Elimination } from './sparseSolve.ts';
import { STEFAN_BOLTZMANN, ZERO_CELSIUS_K } from '../quantities/constants.ts';

interface NodeCommon {
  id: string;
  /** Start temperature, °C. */
  T0: number;
  /** Conductance to the surroundings, W/K, and their temperature, °C. */
  hA?: number;
  Tinf?: number;
  /** Power put in, W. */
  P?: number;
}
export type HeatNode = NodeCommon &
  (
    | { type: 'body'; C: number; radiation?: { epsA: number; Tsur: number } }
    | { type: 'fixed' }
    | { type: 'joint'; enthalpy: JointEnthalpy }
    /** Power clamp(gain·(Tset - T), 0, Pmax). */
    | { type: 'iron'; C: number; Pmax: number; Tset: number; gain: number }
  );

/** Heat flow G·(T_a - T_b); node to node by index, or node to grid cell. */
export type HeatLink = { a: number; G: number } & ({ node: number } | { cell: number });

export interface HeatSystem {
  grid?: BoardGrid;
  nodes: HeatNode[];
  links: HeatLink[];
  kernel?: KernelKind;
}

const PINNED = 1e200;

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
  /** Conductance of each link, W/K; may be changed between steps. */
  readonly G: Float64Array;
  /** Power into each cell besides links, W, without boundary terms. */
  readonly cellPower?: Float64Array;
  time = 0;
  input_J = 0;
  lost_J = 0;

  private readonly links: HeatLink[];
  private readonly cells: number[];
  private readonly linkFrom: Int32Array;
  private readonly linkTo: Int32Array;
  private readonly plan: Elimination;
  private readonly boundary?: Float64Array;
  private readonly cellQ: Float64Array;
  private readonly responses: Float64Array[];
  private readonly diagonal: Float64Array;
  private readonly values: Float64Array;
  private readonly rhs: Float64Array;
  private readonly x: Float64Array;
  private readonly residual: Float64Array;
  private readonly Hold: Float64Array;
  private readonly Told: Float64Array;
  private readonly initialGrid?: Float64Array;
  private readonly initialNode: Float64Array;
  private boundarySum = 0;
  private lastRate = 0;
  private factored = 0;
  private stale: 'all' | 'z' | 'no' = 'all';

  constructor(system: HeatSystem, initial_C: number | Float64Array) {
    this.nodes = system.nodes;
    this.links = system.links;
    const n = system.nodes.length;
    if (system.grid) {
      const { kernel, capacity } = assemble(system.grid, system.kernel ?? 'wasm');
      this.kernel = kernel;
      this.capacity = capacity;
      this.boundary = new Float64Array(capacity.length);
      this.cellPower = new Float64Array(capacity.length);
      if (typeof initial_C === 'number') kernel.T.fill(initial_C, 0, capacity.length);
      else kernel.T.set(initial_C);
      this.initialGrid = kernel.T.slice(0, capacity.length);
    }
    const cellIndex = new Map<number, number>();
    this.cells = [];
    this.linkFrom = Int32Array.from(this.links, (l) => l.a);
    this.linkTo = Int32Array.from(this.links, (l) => {
      if ('node' in l) return l.node;
      let u = cellIndex.get(l.cell);
      if (u === undefined) {
        u = n + this.cells.length;
        cellIndex.set(l.cell, u);
        this.cells.push(l.cell);
      }
      return u;
    });
    this.G = Float64Array.from(this.links, (l) => l.G);
    const size = n + this.cells.length;
    this.plan = planElimination(
      size,
      this.links.map((_, i) => [this.linkFrom[i], this.linkTo[i]] as const),
    );
    this.T = Float64Array.from(this.nodes, (node) => node.T0);
    this.H = Float64Array.from(this.nodes, (node) =>
      node.type === 'joint' ? enthalpyAt(node.enthalpy, node.T0) : 0,
    );
    this.power = Float64Array.from(this.nodes, (node) => node.P ?? 0);
    this.hA = Float64Array.from(this.nodes, (node) => node.hA ?? 0);
    this.Tinf = Float64Array.from(this.nodes, (node) => node.Tinf ?? 0);
    this.initialNode = this.nodeEnergies();
    this.cellQ = new Float64Array(this.cells.length);
    this.responses = this.cells.map(() => new Float64Array(this.kernel?.nl ?? 0));
    this.diagonal = new Float64Array(size);
    this.values = new Float64Array(this.plan.slots);
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
    for (const [i, c] of this.cells.entries()) S[c] += this.cellQ[i];
    this.boundarySum = sum;
    this.lastRate = this.kernel.lossRate();
  }

  /** Advances by `dt` seconds. */
  step(dt: number): void {
    const { kernel, capacity } = this;
    if (kernel && capacity) {
      if (this.stale !== 'no' || this.factored !== dt) {
        factorise(kernel, capacity, dt, this.factored === dt && this.stale === 'z' ? 'z' : 'all');
        for (const [i, c] of this.cells.entries())
          columnResponse(kernel, capacity, dt, c, this.responses[i]);
        this.factored = dt;
        this.stale = 'no';
      }
      kernel.step(1);
    }
    if (this.nodes.length > 0) this.solveNetwork(dt);
    if (kernel && this.cellPower) {
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

  /** Heat stored since the start, J. */
  stored_J(): number {
    let sum = 0;
    if (this.kernel && this.capacity && this.initialGrid) {
      const { T } = this.kernel;
      for (let c = 0; c < this.initialGrid.length; c++)
        sum += this.capacity[c] * (T[c] - this.initialGrid[c]);
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

  private solveNetwork(dt: number): void {
    const { T, H, x, rhs, diagonal, values, plan, linkFrom, linkTo, G } = this;
    const n = this.nodes.length;
    const size = plan.size;
    this.Told.set(T);
    this.Hold.set(H);
    for (let i = 0; i < n; i++) x[i] = T[i];
    for (let i = n; i < size; i++) x[i] = this.kernel ? this.kernel.T[this.cells[i - n]] : 0;
    for (let iteration = 0; iteration < 60; iteration++) {
      values.fill(0);
      for (let i = 0; i < size; i++) this.ownTerms(i, dt);
      for (let l = 0; l < G.length; l++) {
        const a = linkFrom[l];
        const b = linkTo[l];
        const q = G[l] * (x[a] - x[b]);
        rhs[a] -= q;
        rhs[b] += q;
        diagonal[a] += G[l];
        diagonal[b] += G[l];
        values[plan.edgeSlot[l]] -= G[l];
      }
      this.residual.set(rhs);
      for (let i = 0; i < n; i++) if (diagonal[i] >= PINNED) rhs[i] = 0;
      solveSparse(plan, diagonal, values, rhs);
      this.addNeighbourChanges();
      // piecewise linear: a full step that changes no branch is the exact solution
      const damp = iteration > 12 && iteration % 4 === 3 ? 0.5 : 1;
      if (!this.moveUnknowns(dt, damp) && damp === 1) break;
    }
    this.commit(dt);
  }

  /** Adds to each node's residual what the change of its neighbours brings through the links. */
  private addNeighbourChanges(): void {
    const { linkFrom, linkTo, G, rhs, residual } = this;
    for (let l = 0; l < G.length; l++) {
      residual[linkFrom[l]] += G[l] * rhs[linkTo[l]];
      residual[linkTo[l]] += G[l] * rhs[linkFrom[l]];
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

  /** Residual and diagonal of unknown i without its links. */
  private ownTerms(i: number, dt: number): void {
    const { nodes, x, rhs, diagonal, H } = this;
    const n = nodes.length;
    if (i >= n) {
      const c = this.cells[i - n];
      const kernel = this.kernel as GridKernel;
      const stiffness = 1 / this.responses[i - n][Math.floor(c / (kernel.nx * kernel.ny))];
      diagonal[i] = stiffness;
      rhs[i] = -(x[i] - kernel.T[c]) * stiffness - this.cellQ[i - n];
      return;
    }
    const node = nodes[i];
    rhs[i] = this.power[i] - this.hA[i] * (x[i] - this.Tinf[i]);
    if (node.type === 'fixed') diagonal[i] = PINNED;
    else if (node.type === 'joint') {
      const slope = slopeOf(node.enthalpy, H[i]);
      rhs[i] -= (H[i] - this.Hold[i]) / dt;
      diagonal[i] = slope > 0 ? 1 / (slope * dt) + this.hA[i] : PINNED;
    } else {
      rhs[i] -= (node.C * (x[i] - this.Told[i])) / dt;
      diagonal[i] = node.C / dt + this.hA[i];
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
    const { nodes, x, T, kernel } = this;
    const n = nodes.length;
    const change = new Float64Array(this.cells.length);
    for (let l = 0; l < this.G.length; l++) {
      const b = this.linkTo[l];
      if (b >= n) change[b - n] += this.G[l] * (x[this.linkFrom[l]] - x[b]);
    }
    if (kernel)
      for (const [i, c] of this.cells.entries()) {
        const delta = change[i] - this.cellQ[i];
        const plane = kernel.nx * kernel.ny;
        const column = c % plane;
        for (let l = 0; l < kernel.nl; l++)
          kernel.T[column + l * plane] += this.responses[i][l] * delta;
        kernel.S[c] += delta;
        this.cellQ[i] = change[i];
      }
    for (let i = 0; i < n; i++) {
      const node = nodes[i];
      T[i] = x[i];
      this.input_J += dt * this.power[i];
      if (node.type === 'iron') this.input_J += dt * ironPower(node, x[i]);
      if (node.type === 'fixed') {
        let out = 0;
        for (let l = 0; l < this.G.length; l++) {
          if (this.linkFrom[l] === i) out += this.G[l] * (x[i] - x[this.linkTo[l]]);
          else if (this.linkTo[l] === i) out += this.G[l] * (x[i] - x[this.linkFrom[l]]);
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
}

type Iron = Extract<HeatNode, { type: 'iron' }>;

/** Power of a regulated iron at tip temperature T, W. */
export function ironPower(node: Iron, T: number): number {
  return Math.min(node.Pmax, Math.max(0, node.gain * (node.Tset - T)));
}

/** -1 full power, 0 regulating, 1 off. */
function ironRegime(node: Iron, T: number): -1 | 0 | 1 {
  const wanted = node.gain * (node.Tset - T);
  if (wanted <= 0) return 1;
  return wanted >= node.Pmax ? -1 : 0;
}
