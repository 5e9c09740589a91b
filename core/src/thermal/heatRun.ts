/**
 * One transient computation: a board grid (optional), lumped nodes (optional) and the links between
 * them. The grid steps by Douglas–Gunn; nodes step by implicit Euler, solved together with the cells
 * they touch, so no link needs a small step. Whatever leaves a node through a link enters the cell:
 * energy is conserved to rounding.
 *
 * In the middle of a kernel's step the cells are known up to what a change of their link heat does (columns.ts). Newton on
 * enthalpy (slope zero in a melting plateau) solves nodes and shared cells together; the changes go down the columns, and
 * the kernel finishes its step.
 *
 * Heat flows from warm to cold, so every temperature stays between the coldest and the hottest thing it could meet. A run that
 * leaves these bounds throws: nothing it says can be believed.
 */
import { factorise, type GridKernel, type Sweeps } from './gridKernel.ts';
import { LinkedColumns, type CellLink } from './columns.ts';
import { assemble, type BoardGrid } from './grid.ts';
import { branchOf, enthalpyAt, type JointEnthalpy, slopeOf, temperatureOf } from './enthalpy.ts';
import { ironPower, ironRegime, type HeatLink, type HeatNode } from './heatNodes.ts';
import {
  type Elimination,
  factorSparse,
  planElimination,
  solveSparse,
  STEFAN_BOLTZMANN,
  ZERO_CELSIUS_K,
} from '../ground/index.ts';

export interface HeatSystem {
  grid?: BoardGrid;
  nodes: HeatNode[];
  links: HeatLink[];
  /** In a hurry, exact enough for plans: sweeps in singles, and what the cells lose (`lost_J`) not booked. */
  quick?: boolean;
  /** Number type of the sweeps, where it is not what `quick` says: to tell rounding from what else is quick. */
  sweeps?: Sweeps;
  /** Given where copper is uneven within a layer (`SweepOrder`): the longest step the run will take, s. */
  uneven?: { longestStep_s: number };
}

const PINNED = 1e200;
/** Heat between two layers that the middle sweep bears, as a multiple of the smaller capacity over the step. */
const WEAK_MIDDLE = 2;
/** Short ringing beyond the bounds that a touch of an iron may leave on a board, K; theta = 1/2 rings longer after a jolt, as a share of all there is. */
const SLACK_K = 2;
const RINGING = 0.05;
/** Cells are held against the bounds every so many steps. */
const LOOK = 25;

/** A temperature that nothing in the run could have brought about: an error of the computation, never a result, so the sentence does not tell it. */
export class OutOfBoundsError extends Error {
  readonly at_C: number;
  readonly bounds_C: readonly [number, number];
  constructor(where: string, at_C: number, time: number, bounds_C: readonly [number, number]) {
    super(`Internal error: the heat model left its bounds at ${where} after ${time.toFixed(2)} s.`);
    this.name = 'OutOfBoundsError';
    this.at_C = at_C;
    this.bounds_C = bounds_C;
  }
}

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

  private readonly columns?: LinkedColumns;
  /** Links of the network proper: their number in the system, ends (nodes, then shared cells); behind them couplings of shared cells. */
  private readonly innerOf: Map<number, number>;
  private readonly realLinks: number;
  private readonly linkG: Float64Array;
  private linksChanged = true;
  private readonly linkFrom: Int32Array;
  private readonly linkTo: Int32Array;
  /** What the ends of a coupling differ by at rest, K. */
  private readonly linkShift: Float64Array;
  /** Links of the network proper, by node. */
  private readonly linksOf: number[][];
  private readonly plan: Elimination;
  private readonly boundary?: Float64Array;
  /** Heat into shared cells, W. */
  private readonly into: Float64Array;
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
  private factored = 0;
  private stale: 'all' | 'z' | 'no' = 'all';
  private readonly ringing: number;
  private coldest = Infinity;
  private hottest = -Infinity;
  private stepCount = 0;

  constructor(system: HeatSystem, initial_C: number | Float64Array) {
    this.nodes = system.nodes;
    this.quick = system.quick ?? false;
    this.ringing = system.uneven ? 0 : RINGING;
    const n = system.nodes.length;
    const toCells = system.links.flatMap((l): CellLink[] =>
      'cell' in l && l.G > 0 ? [{ node: l.a, cell: l.cell, G: l.G }] : [],
    );
    if (system.grid) {
      const { kernel, capacity } = assemble(system.grid, {
        sweeps: system.sweeps ?? (this.quick ? 'single' : 'double'),
        order: system.uneven ? 'xzy' : 'xyz',
      });
      this.kernel = kernel;
      this.capacity = capacity;
      this.boundary = new Float64Array(capacity.length);
      this.cellPower = new Float64Array(capacity.length);
      if (typeof initial_C === 'number') kernel.T.fill(initial_C, 0, capacity.length);
      else kernel.T.set(initial_C);
      this.initialGrid = kernel.T.slice(0, capacity.length);
      for (const T of this.initialGrid) this.couldMeet(T);
      const longest_s = system.uneven?.longestStep_s;
      const uneven = longest_s && { longest_s, excess: leaveOutExcess(kernel, capacity, longest_s) };
      const bodies = system.nodes.map((node) => (node.type === 'body' && !node.radiation ? node.C : 0));
      this.columns = new LinkedColumns(kernel, capacity, bodies, toCells, uneven || undefined);
    }
    const shared = this.columns?.shared ?? new Int32Array(0);
    const unknownOf = new Map(Array.from(shared, (cell, i) => [cell, n + i] as const));
    const isInner = (l: HeatLink) => 'node' in l || unknownOf.has(l.cell);
    const inner = system.links.flatMap((l, i) => (isInner(l) ? [i] : []));
    const couplings = this.columns?.couplings ?? [];
    this.innerOf = new Map(inner.map((i, k) => [i, k]));
    this.realLinks = inner.length;
    this.linkG = Float64Array.from([...inner.map((i) => system.links[i].G), ...couplings.map(() => 0)]);
    this.linkFrom = Int32Array.from([...inner.map((i) => system.links[i].a), ...couplings.map(([a]) => n + a)]);
    this.linkTo = Int32Array.from([
      ...inner.map((i) => {
        const l = system.links[i];
        return 'node' in l ? l.node : (unknownOf.get(l.cell) as number);
      }),
      ...couplings.map(([, b]) => n + b),
    ]);
    this.linkShift = new Float64Array(this.linkG.length);
    this.linksOf = this.nodes.map(() => []);
    for (let l = 0; l < this.realLinks; l++)
      for (const end of [this.linkFrom[l], this.linkTo[l]]) this.linksOf[end]?.push(l);
    const size = n + shared.length;
    this.plan = planElimination(
      size,
      Array.from(this.linkFrom, (a, l) => [a, this.linkTo[l]] as const),
    );
    this.T = Float64Array.from(this.nodes, (node) => node.T0);
    this.H = Float64Array.from(this.nodes, (node) => (node.type === 'joint' ? enthalpyAt(node.enthalpy, node.T0) : 0));
    this.power = Float64Array.from(this.nodes, (node) => node.P ?? 0);
    this.hA = Float64Array.from(this.nodes, (node) => node.hA ?? 0);
    this.Tinf = Float64Array.from(this.nodes, (node) => node.Tinf ?? 0);
    this.initialNode = this.nodeEnergies();
    for (const node of this.nodes) {
      this.couldMeet(node.T0);
      if (node.type === 'iron') this.couldMeet(node.Tset);
      if (node.type === 'body' && node.radiation) this.couldMeet(node.radiation.Tsur);
    }
    this.into = new Float64Array(shared.length);
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

  /** Temperatures of the board's cells, °C, as the run goes on; throws where the run has no board. */
  get cells_C(): GridKernel['T'] {
    if (!this.kernel) throw new Error('This run has no board.');
    return this.kernel.T;
  }

  /** Sets the exchange of every cell with its surroundings: conductance W/K and H·T_surroundings W. */
  setBoundary(conductance: Float64Array, constant: Float64Array): void {
    if (!this.kernel || !this.boundary) return;
    this.kernel.H.set(conductance);
    this.boundary.set(constant);
    for (let c = 0; c < conductance.length; c++)
      if (conductance[c] > 0) this.couldMeet(constant[c] / conductance[c]);
      else if (constant[c] !== 0) this.couldMeet(constant[c] * Infinity);
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
      if (this.cellPower[c] !== 0) this.couldMeet(this.cellPower[c] * Infinity);
    }
    this.columns?.addTo(S);
    this.boundarySum = sum;
  }

  /** Changes the conductance (W/K) of link `index` of the system, which must be between nodes. */
  setLink(index: number, G: number): void {
    const k = this.innerOf.get(index);
    if (k === undefined) throw new Error(`Link ${index} is not between nodes.`);
    if (this.linkG[k] === G) return;
    this.linkG[k] = G;
    this.linksChanged = true;
  }

  /**
   * Solder goes into joint `node` or out of it: from now on it follows `enthalpy`. Its temperature stays, what is fed comes at the node's start
   * temperature, and the heat that takes it from there is booked as put in. Throws where the node is no joint.
   */
  changeJoint(node: number, enthalpy: JointEnthalpy): void {
    const joint = this.nodes[node];
    if (joint.type !== 'joint') throw new Error(`Node ${joint.id} is no joint.`);
    const T = this.T[node];
    const held = this.H[node] - enthalpyAt(joint.enthalpy, joint.T0);
    const start = enthalpyAt(enthalpy, joint.T0);
    joint.enthalpy = enthalpy;
    this.H[node] = enthalpyAt(enthalpy, T);
    this.input_J += this.H[node] - start - held;
    this.initialNode[node] = start;
  }

  /** Body `node` is another one from now on, of this temperature: the heat that makes the difference is booked as put in. Throws where it is no body. */
  setBody(node: number, T: number): void {
    const body = this.nodes[node];
    if (body.type !== 'body') throw new Error(`Node ${body.id} is no body.`);
    this.input_J += body.C * (T - this.T[node]);
    this.couldMeet(T);
    this.T[node] = T;
  }

  /** Advances by `dt` seconds. Throws `OutOfBoundsError` where a temperature is not possible. */
  step(dt: number): void {
    const { kernel, capacity, columns } = this;
    if (kernel && capacity && (this.stale !== 'no' || this.factored !== dt)) {
      factorise(kernel, capacity, dt, this.factored === dt && this.stale === 'z' ? 'z' : 'all');
      columns?.renew(dt);
      columns?.couplingG.forEach((G, k) => (this.linkG[this.realLinks + k] = G));
      this.linksChanged = true;
      this.factored = dt;
      this.stale = 'no';
    }
    kernel?.begin();
    this.solveNetwork(dt);
    if (kernel && !this.quick) this.lost_J += dt * (this.lossRate(kernel) - this.boundarySum);
    kernel?.finish();
    this.time += dt;
    this.checkNodes();
    if (++this.stepCount % LOOK === 0) this.checkCells();
  }

  /** How fast the most conductive of these cells gives heat to its neighbours in the layer, 1/s: steps far longer than that split badly under a tip. */
  sidewaysRate(cells: Iterable<number>): number {
    const { kernel, capacity } = this;
    if (!kernel || !capacity) return 0;
    const { GX, GY, nx } = kernel;
    let most = 0;
    for (const c of cells)
      most = Math.max(
        most,
        (GX[c] + (c > 0 ? GX[c - 1] : 0)) / capacity[c],
        (GY[c] + (c >= nx ? GY[c - nx] : 0)) / capacity[c],
      );
    return most;
  }

  /** Lets time pass where everything is in balance: nothing changes. */
  wait(dt: number): void {
    this.time += dt;
  }

  /** Throws where a node or cell is hotter or colder than anything it could have met. */
  checkBounds(): void {
    this.checkNodes();
    this.checkCells();
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
      cells: this.columns ? this.columns.nodeHeat[node] - this.columns.nodeG[node] * T[node] : 0,
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

  /** Widens the bounds by a temperature something in the run has. */
  private couldMeet(C: number): void {
    if (C < this.coldest) this.coldest = C;
    if (C > this.hottest) this.hottest = C;
  }

  /** What is possible, °C, with room for ringing. */
  private bounds(): [number, number] {
    // watts put in have no upper bound, and what rings then has none either
    const slack = this.ringing > 0 ? Math.max(SLACK_K, this.ringing * (this.hottest - this.coldest)) : SLACK_K;
    return [this.coldest - slack, this.hottest + slack];
  }

  private checkNodes(): void {
    const { T, nodes, hA, Tinf, power } = this;
    for (let i = 0; i < T.length; i++) {
      if (hA[i] > 0) this.couldMeet(Tinf[i]);
      if (power[i] !== 0) this.couldMeet(power[i] * Infinity);
    }
    const [least, most] = this.bounds();
    for (let i = 0; i < T.length; i++)
      if (!(T[i] >= least && T[i] <= most)) throw new OutOfBoundsError(nodes[i].id, T[i], this.time, [least, most]);
  }

  private checkCells(): void {
    if (!this.kernel || !this.capacity) return;
    const { T, nx, ny } = this.kernel;
    const [least, most] = this.bounds();
    for (let c = 0; c < this.capacity.length; c++)
      if (!(T[c] >= least && T[c] <= most)) {
        const row = Math.floor(c / nx);
        const where = `cell ${c % nx}, ${row % ny} of layer ${Math.floor(row / ny)}`;
        throw new OutOfBoundsError(where, T[c], this.time, [least, most]);
      }
  }

  /** What the cells lose through their faces in this step, W, less the constant part: H at theta of the step. */
  private lossRate({ H, T, D, theta }: GridKernel): number {
    let sum = 0;
    for (let c = 0; c < (this.capacity as Float64Array).length; c++) sum += H[c] * (T[c] + theta * D[c]);
    return sum;
  }

  private solveNetwork(dt: number): void {
    const { T, H, x, rhs, diagonal, plan, linkFrom, linkTo, linkG, linkShift, columns } = this;
    const n = this.nodes.length;
    const size = plan.size;
    this.Told.set(T);
    this.Hold.set(H);
    columns?.read();
    for (let i = 0; i < n; i++) x[i] = T[i];
    for (let i = n; i < size; i++) x[i] = (columns as LinkedColumns).rest[i - n];
    for (let l = this.realLinks; l < linkG.length; l++) linkShift[l] = x[linkFrom[l]] - x[linkTo[l]];
    for (let iteration = 0; iteration < 60; iteration++) {
      for (let i = 0; i < n; i++) this.nodeTerms(i, dt);
      for (let i = n; i < size; i++) this.cellTerms(i);
      for (let l = 0; l < linkG.length; l++) {
        const a = linkFrom[l];
        const b = linkTo[l];
        const q = linkG[l] * (x[a] - x[b] - linkShift[l]);
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
    const k = i - this.nodes.length;
    const { stiffness, rest } = this.columns as LinkedColumns;
    this.diagonal[i] = stiffness[k];
    this.rhs[i] = (rest[k] - this.x[i]) * stiffness[k];
  }

  /** Residual and diagonal of a node without its links to other nodes and shared cells. */
  private nodeTerms(i: number, dt: number): void {
    const { nodes, x, rhs, diagonal, H, columns } = this;
    const node = nodes[i];
    const cells = columns ? columns.nodeG[i] : 0;
    rhs[i] = this.power[i] - this.hA[i] * (x[i] - this.Tinf[i]) + (columns ? columns.nodeHeat[i] - cells * x[i] : 0);
    const open = this.hA[i] + cells;
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
    const { nodes, x, T, linkFrom, linkTo, linkG, into, columns } = this;
    const n = nodes.length;
    into.fill(0);
    for (let l = 0; l < this.realLinks; l++) {
      const b = linkTo[l];
      if (b >= n) into[b - n] += linkG[l] * (x[linkFrom[l]] - x[b]);
    }
    for (let i = 0; i < n; i++) {
      const node = nodes[i];
      T[i] = x[i];
      this.input_J += dt * this.power[i];
      if (node.type === 'iron') this.input_J += dt * ironPower(node, x[i]);
      if (node.type === 'fixed') {
        let out = columns ? columns.nodeG[i] * x[i] - columns.nodeHeat[i] : 0;
        for (let l = 0; l < this.realLinks; l++) {
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
    columns?.correct(x, into);
  }
}

/** Takes from the kernel what its middle sweep does not bear at steps up to `dt` between layers; returns the rest, W/K per cell. */
function leaveOutExcess(kernel: GridKernel, capacity: Float64Array, dt: number): Float64Array {
  const plane = kernel.nx * kernel.ny;
  const excess = new Float64Array(capacity.length);
  for (let c = 0; c < capacity.length - plane; c++) {
    const most = (WEAK_MIDDLE * Math.min(capacity[c], capacity[c + plane])) / dt;
    excess[c] = Math.max(0, kernel.GZ[c] - most);
    kernel.GZ[c] -= excess[c];
  }
  return excess;
}
