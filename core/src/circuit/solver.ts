/**
 * DC operating point of a network by nodal analysis: Newton on the junctions and devices, sparse LU on
 * one elimination plan per network, and a ladder of gentler ways when plain Newton does not converge.
 * Only a converged plain Newton counts as an answer.
 */
import { covers, factorLu, planLu, solveDense, solveLu, type LuPlan } from '../numerics/sparseLu.ts';
import { EDGE, GMIN_S, insideVoltage, junctionAt, limited, type JunctionModel, type JunctionPoint } from './junction.ts';
import type { Change, Network } from './network.ts';

/** What a meter does to the network: conductance and current between its probes. */
export interface Stimulus {
  /** Nodes of the probes; the network's size is ground. */
  red: number;
  black: number;
  /** S across the probes. */
  g: number;
  /** A pushed into red and drawn from black. */
  i: number;
  /** Highest voltage that the current source gives, V. */
  clamp_V?: number;
}

export interface Solution {
  /** Node voltages; one more at the end for ground, 0. */
  v: Float64Array;
  converged: boolean;
  /** Newton steps that factored the matrix. */
  steps: number;
}

/** A solved point to go on from. */
export interface Base {
  v: Float64Array;
  factors: Float64Array;
  stimulus: Stimulus | null;
}

const MAX_PLAIN = 60;
const TOLERANCE_V = 1e-9;
const LATE_TOLERANCE_V = 1e-7;
const RELATIVE = 1e-7;

interface DeviceSlots {
  places: Int32Array;
  v: Float64Array;
  inside: Float64Array;
  out: Float64Array;
  slope: Float64Array;
}

/**
 * Voltage across a junction below which RS · g < 0.02, so that two Newton steps without another exponential
 * find what RS takes, and no step is limited, V.
 */
function quietBelow({ is, nvt, rs, vcrit }: JunctionModel): number {
  const silent = rs > 0 ? nvt * Math.log((0.02 * nvt) / (rs * is)) : Infinity;
  return Math.min(silent, 0.5 * vcrit);
}

export class NetworkSolver {
  readonly network: Network;
  private readonly plan: LuPlan;
  private readonly n: number;
  private readonly base: Float64Array;
  private readonly matrix: Float64Array;
  private readonly leaving: Float64Array;
  private readonly step: Float64Array;
  private readonly conductorA: Int32Array;
  private readonly conductorB: Int32Array;
  private readonly conductorG: Float64Array;
  /** Junctions of parts and one spare for the meter's clamp. */
  private readonly models: JunctionModel[];
  private readonly is: Float64Array;
  private readonly nvt: Float64Array;
  private readonly rs: Float64Array;
  /** Below this the series resistance takes nothing of note, V. */
  private readonly quiet: Float64Array;
  private readonly ja: Int32Array;
  private readonly jk: Int32Array;
  private readonly bv: Float64Array;
  private readonly jPlaces: Int32Array;
  /** Junction voltages that the last step was linearised about. */
  private readonly inside: Float64Array;
  private readonly slopes: Float64Array;
  private readonly factoredSlopes: Float64Array;
  private readonly devices: DeviceSlots[];
  private readonly point: JunctionPoint = { i: 0, g: 0 };
  private readonly plain: number;
  private stimulus: Stimulus | null = null;
  private stimulusPlaces = [0, 0];
  private limiting = false;
  private moved = false;
  /** Junctions take the whole step. */
  private free = false;
  /** Extra conductance from every node to `anchor`, S. */
  private tie = 0;
  private readonly anchor: Float64Array;
  private sourceScale = 1;
  /** Sum of the currents in junctions and devices at the last evaluation, A. */
  bent_A = 0;

  /**
   * `probes`: pairs of nodes that a meter will be laid across. `like`: the solver of a circuit that is
   * probably coupled in the same way, whose plan then serves here too.
   */
  constructor(network: Network, probes: readonly (readonly [number, number])[] = [], like?: NetworkSolver) {
    this.network = network;
    const n = (this.n = network.size);
    const couplings = network.devices.flatMap(({ nodes }) => nodes.flatMap((a) => nodes.map((b) => [a, b] as const)));
    const edges = [
      ...network.conductors.map(({ a, b }) => [a, b] as const),
      ...network.junctions.map(({ a, k }) => [a, k] as const),
      ...couplings,
      ...probes,
    ];
    this.plan = like && covers(like.plan, n, edges) ? like.plan : planLu(n, edges);
    this.base = new Float64Array(this.plan.length);
    this.matrix = new Float64Array(this.plan.length);
    this.leaving = new Float64Array(n + 1);
    this.step = new Float64Array(n + 1);
    this.anchor = new Float64Array(n + 1);
    // one to spare, for `alter`
    this.conductorA = Int32Array.from([...network.conductors.map((c) => c.a), n]);
    this.conductorB = Int32Array.from([...network.conductors.map((c) => c.b), n]);
    this.conductorG = Float64Array.from([...network.conductors.map((c) => c.g), 0]);
    for (const { a, b, g } of network.conductors) this.couple(this.base, a, b, g);
    for (let i = 0; i < n; i++) this.base[i] += GMIN_S;

    this.plain = network.junctions.length;
    this.models = [...network.junctions.map((j) => j.model), EDGE];
    this.is = Float64Array.from(this.models, (m) => m.is);
    this.nvt = Float64Array.from(this.models, (m) => m.nvt);
    this.rs = Float64Array.from(this.models, (m) => m.rs);
    this.quiet = Float64Array.from(this.models, quietBelow);
    this.ja = Int32Array.from([...network.junctions.map((j) => j.a), n]);
    this.jk = Int32Array.from([...network.junctions.map((j) => j.k), n]);
    this.bv = Float64Array.from([...network.junctions.map((j) => j.bv), 0]);
    this.jPlaces = new Int32Array(2 * (this.plain + 1));
    for (let j = 0; j < this.plain; j++) this.placeJunction(j);
    const held = network.devices.reduce((sum, d) => sum + d.device.junctions.length, 0);
    this.inside = new Float64Array(this.plain + 1 + held);
    this.devices = network.devices.map(({ device, nodes }) => ({
      places: Int32Array.from(nodes.flatMap((row) => nodes.map((column) => this.plan.place(row, column)))),
      v: new Float64Array(device.ends),
      inside: new Float64Array(device.junctions.length),
      out: new Float64Array(device.ends),
      slope: new Float64Array(device.ends * device.ends),
    }));
    const deviceSlopes = this.devices.reduce((sum, d) => sum + d.slope.length, 0);
    this.slopes = new Float64Array(this.plain + 1 + deviceSlopes);
    this.factoredSlopes = new Float64Array(this.slopes.length);
  }

  /** Changes one conductance of the network (see `couples`) until it is altered again; null: as it was. */
  alter(change: Change | null): void {
    const spare = this.conductorG.length - 1;
    this.couple(this.base, this.conductorA[spare], this.conductorB[spare], -this.conductorG[spare]);
    const { a, b, dg } = change ?? { a: this.n, b: this.n, dg: 0 };
    this.conductorA[spare] = a;
    this.conductorB[spare] = b;
    this.conductorG[spare] = dg;
    this.couple(this.base, a, b, dg);
  }

  /** Operating point with a meter on it; `start` (n + 1 voltages) saves steps when it is near. */
  solve(stimulus: Stimulus | null = null, start?: Float64Array): Solution {
    this.attach(stimulus);
    const v = new Float64Array(this.n + 1);
    if (start) v.set(start.subarray(0, this.n + 1));
    else this.guess(v);
    const first = this.newton(v, MAX_PLAIN);
    if (first.converged) return { v, ...first };
    return this.ladder(v, first.steps);
  }

  /** Lays a meter on (or takes it off), everything else plain. */
  private attach(stimulus: Stimulus | null): void {
    this.stimulus = stimulus;
    this.tie = 0;
    this.sourceScale = 1;
    if (!stimulus) return;
    const { red, black, clamp_V } = stimulus;
    this.stimulusPlaces = [this.plan.place(red, black), this.plan.place(black, red)];
    if (clamp_V === undefined) return;
    this.ja[this.plain] = red;
    this.jk[this.plain] = black;
    this.bv[this.plain] = clamp_V;
    this.placeJunction(this.plain);
  }

  /** Solves and keeps the factors at the solution, for `nearby`; null when it does not converge. */
  solved(stimulus: Stimulus | null, start?: Float64Array): Base | null {
    const { v, converged } = this.solve(stimulus, start);
    return converged ? this.keep(v) : null;
  }

  /** Whether the plan has a place for a conductance between two nodes. */
  couples(a: number, b: number): boolean {
    return this.plan.has(a, b);
  }

  /** The point just solved, with its factors. */
  keep(v: Float64Array): Base | null {
    this.evaluate(v);
    this.stamp();
    if (!factorLu(this.plan, this.matrix)) return null;
    return { v, factors: this.matrix.slice(), stimulus: this.stimulus };
  }

  /** Response of all nodes to 1 A from a to b at a kept point, V. */
  response(base: Base, a: number, b: number): Float64Array {
    const z = new Float64Array(this.n + 1);
    z[a] += 1;
    z[b] -= 1;
    z[this.n] = 0;
    solveLu(this.plan, base.factors, z);
    z[this.n] = 0;
    return z;
  }

  /**
   * The solution after one conductance has changed by `dg` between a and b: a rank-one change of the kept
   * factors (Sherman & Morrison 1950), then steps with the same factors for what the junctions do. Null when
   * those do not come to rest; then a Newton of its own is due. `follow`: what to multiply `response` by for
   * d v / d ln r of a conductor of `g` siemens there.
   */
  nearby(base: Base, { a, b, dg, g }: Change, z = this.response(base, a, b)): { v: Float64Array; follow: number } | null {
    const { n, step } = this;
    const bend = 1 + dg * (z[a] - z[b]);
    // what little is left after a subtraction is no ground to build on
    if (!(bend > 1e-4)) return null;
    const v = new Float64Array(n + 1);
    const across = base.v[a] - base.v[b];
    const alpha = (dg * across) / bend;
    let shift = 0;
    for (let i = 0; i < n; i++) {
      v[i] = base.v[i] - alpha * z[i];
      shift = Math.max(shift, Math.abs(alpha * z[i]));
    }
    const done = () => ({ v, follow: (g * (v[a] - v[b])) / bend });
    if (shift < TOLERANCE_V || !this.nonlinear) return done();
    this.attach(base.stimulus);
    this.free = true;
    let last = Infinity;
    for (let turn = 0; turn < 8; turn++) {
      this.evaluate(v);
      for (let i = 0; i < n; i++) step[i] = -this.leaving[i];
      const i = dg * (v[a] - v[b]);
      step[a] -= i;
      step[b] += i;
      step[n] = 0;
      solveLu(this.plan, base.factors, step);
      step[n] = 0;
      const back = (dg * (step[a] - step[b])) / bend;
      let most = 0;
      for (let k = 0; k < n; k++) {
        step[k] -= back * z[k];
        most = Math.max(most, Math.abs(step[k]) - RELATIVE * Math.abs(v[k]));
      }
      if (!(most < 0.3 * last)) break;
      for (let k = 0; k < n; k++) v[k] += step[k];
      if (most < TOLERANCE_V) {
        this.free = false;
        return done();
      }
      last = most;
    }
    this.free = false;
    return null;
  }

  /** Current of the supply at a net (all supplies without one), A. */
  supplyCurrent(v: Float64Array, net?: string): number {
    let sum = 0;
    for (const s of this.network.supplies) if (net === undefined || s.net === net) sum += (v[s.o] - v[s.p]) / s.rout;
    return sum;
  }

  /** Supplies at their voltage, all else at nothing. */
  private guess(v: Float64Array): void {
    v.fill(0);
    for (const { o, p, v: volts } of this.network.supplies) v[o] = v[p] = volts;
  }

  /** Gentler ways, in turn; each ends in a plain Newton, and only that one's answer counts. */
  private ladder(v: Float64Array, steps: number): Solution {
    let spent = steps;
    const trail = new Float64Array(this.n + 1);
    /** One Newton under the softening in force; keeps `v` only when it got there. */
    const attempt = (most: number): boolean => {
      trail.set(v);
      let { converged, steps: used } = this.newton(v, most);
      spent += used;
      if (!converged) {
        v.set(trail);
        ({ converged, steps: used } = this.damped(v, 100));
        spent += used;
      }
      if (!converged) v.set(trail);
      return converged;
    };
    const plain = (): boolean => {
      this.tie = 0;
      this.sourceScale = 1;
        return attempt(2 * MAX_PLAIN);
    };
    const ways = [() => this.settleDown(v, attempt), () => this.drain(attempt), () => this.turnUp(attempt)];
    for (const way of ways) {
      this.guess(v);
      way();
      if (plain()) return { v, converged: true, steps: spent };
    }
    return { v, converged: false, steps: spent };
  }

  /** Implicit Euler with ever longer steps: every node is tied to where it was. */
  private settleDown(v: Float64Array, attempt: (most: number) => boolean): void {
    for (let tie = 1, turns = 0; tie > 1e-10 && turns < 200; turns++) {
      this.tie = tie;
      this.anchor.set(v);
      tie *= attempt(15) ? 0.4 : 4;
    }
  }

  /** A leak from every node to ground, taken away bit by bit. */
  private drain(attempt: (most: number) => boolean): void {
    this.anchor.fill(0);
    for (let tie = 1e-1; tie > 1e-13; tie /= 4) {
      this.tie = tie;
      attempt(MAX_PLAIN);
    }
  }

  /** Sources turned up from nothing. */
  private turnUp(attempt: (most: number) => boolean): void {
    this.tie = 0;
    for (let scale = 0.05; scale < 1; scale += 0.05) {
      this.sourceScale = scale;
      attempt(MAX_PLAIN);
    }
  }

  /**
   * Newton that shortens its steps until the next one would be shorter (natural monotonicity test:
   * Deuflhard, Newton Methods for Nonlinear Problems, ch. 3); junctions are not limited.
   */
  private damped(v: Float64Array, most: number): { converged: boolean; steps: number } {
    const { n, step } = this;
    const from = new Float64Array(n + 1);
    const way = new Float64Array(n + 1);
    this.free = true;
    let lambda = 1;
    let steps = 0;
    let converged = false;
    const length = (d: Float64Array) => {
      let sum = 0;
      for (let i = 0; i < n; i++) sum += d[i] * d[i];
      return Math.sqrt(sum);
    };
    this.evaluate(v);
    for (let turn = 0; turn < most && !converged; turn++) {
      for (let i = 0; i < n; i++) way[i] = -this.leaving[i];
      this.stamp();
      steps++;
      if (!factorLu(this.plan, this.matrix)) break;
      solveLu(this.plan, this.matrix, way);
      const long = length(way);
      if (!Number.isFinite(long)) break;
      from.set(v);
      lambda = Math.min(1, 2 * lambda);
      let least = false;
      for (;;) {
        for (let i = 0; i < n; i++) v[i] = from[i] + lambda * way[i];
        this.evaluate(v);
        for (let i = 0; i < n; i++) step[i] = -this.leaving[i];
        solveLu(this.plan, this.matrix, step);
        if (length(step) <= (1 - lambda / 4) * long) break;
        lambda /= 2;
        if (lambda < 1e-5) {
          least = true;
          break;
        }
      }
      converged = lambda === 1 && long < 1e-6;
      if (least) break;
    }
    this.free = false;
    return { converged, steps };
  }

  private newton(v: Float64Array, most: number): { converged: boolean; steps: number } {
    const { n, step } = this;
    this.settle(v);
    let factored = false;
    let steps = 0;
    for (let turn = 0; turn < most; turn++) {
      this.evaluate(v);
      for (let i = 0; i < n; i++) step[i] = -this.leaving[i];
      const tolerance = turn < 40 ? TOLERANCE_V : LATE_TOLERANCE_V;
      if (factored && !this.limiting && !this.moved) {
        // the old factors still describe the circuit: one cheap step tells whether it is there
        solveLu(this.plan, this.matrix, step);
        let there = true;
        for (let i = 0; i < n && there; i++) there = Math.abs(step[i]) < tolerance + RELATIVE * Math.abs(v[i]);
        if (there) {
          for (let i = 0; i < n; i++) v[i] += step[i];
          return { converged: true, steps };
        }
        for (let i = 0; i < n; i++) step[i] = -this.leaving[i];
      }
      this.stamp();
      steps++;
      factored = factorLu(this.plan, this.matrix);
      if (factored) solveLu(this.plan, this.matrix, step);
      else {
        this.stamp();
        if (!solveDense(this.plan, this.matrix, step)) return { converged: false, steps };
      }
      this.factoredSlopes.set(this.slopes);
      let most_V = 0;
      for (let i = 0; i < n; i++) most_V = Math.max(most_V, Math.abs(step[i]));
      if (!Number.isFinite(most_V)) return { converged: false, steps };
      const cap = 5 / 2 ** Math.max(0, Math.floor((turn - 12) / 4));
      const capped = most_V > cap && this.nonlinear;
      let small = !capped && !this.limiting;
      for (let i = 0; i < n; i++) {
        // each node by itself: one that swings must not hold the others back
        const d = capped ? Math.max(-cap, Math.min(cap, step[i])) : step[i];
        if (small && Math.abs(d) > tolerance + RELATIVE * Math.abs(v[i])) small = false;
        v[i] += d;
      }
      if (small) return { converged: true, steps };
    }
    return { converged: false, steps };
  }

  private get nonlinear(): boolean {
    return this.plain > 0 || this.devices.length > 0 || this.stimulus?.clamp_V !== undefined;
  }

  /** Junctions start from what the voltages say, without limiting. */
  private settle(v: Float64Array): void {
    const { models, ja, jk, bv, inside } = this;
    for (let j = 0; j <= this.plain; j++) {
      const model = models[j];
      const across = v[ja[j]] - v[jk[j]] - bv[j];
      // a cold start at full voltage would be the steepest place of all
      inside[j] = Math.min(insideVoltage(model, across, 0, this.point), model.vcrit);
    }
    let at = this.plain + 1;
    this.network.devices.forEach(({ device, nodes }) => {
      device.reset();
      for (const { a, k, sign, model } of device.junctions)
        inside[at++] = Math.min(sign * (v[nodes[a]] - v[nodes[k]]), model.vcrit);
    });
  }

  /** Currents leaving every node at `v` (linearised where a junction is limited), and all slopes. */
  private evaluate(v: Float64Array): void {
    const { n, leaving, conductorA, conductorB, conductorG, models, is, nvt, rs, quiet, ja, jk, bv, inside, point, network } = this;
    const { slopes, factoredSlopes } = this;
    const scale = this.sourceScale;
    for (let i = 0; i < n; i++) leaving[i] = GMIN_S * v[i] + this.tie * (v[i] - this.anchor[i]);
    for (let c = 0; c < conductorG.length; c++) {
      const i = conductorG[c] * (v[conductorA[c]] - v[conductorB[c]]);
      leaving[conductorA[c]] += i;
      leaving[conductorB[c]] -= i;
    }
    for (const { a, b, i } of network.currents) {
      leaving[a] += scale * i;
      leaving[b] -= scale * i;
    }
    const meter = this.stimulus;
    if (meter) {
      const i = meter.g * (v[meter.red] - v[meter.black]) - scale * meter.i;
      leaving[meter.red] += i;
      leaving[meter.black] -= i;
    }
    this.limiting = false;
    const last = meter?.clamp_V === undefined ? this.plain : this.plain + 1;
    let bent = 0;
    let moved = false;
    for (let j = 0; j < last; j++) {
      const a = ja[j];
      const k = jk[j];
      const across = v[a] - v[k] - bv[j] * scale;
      const width = nvt[j];
      let current: number;
      let g: number;
      if (across < quiet[j]) {
        // by far the most: off, or hardly on
        inside[j] = across;
        if (across >= -3 * width) {
          let e = Math.abs(across) < 1e-9 ? 1 + across / width : Math.exp(across / width);
          const r = rs[j];
          let taken = 0;
          if (r > 0) {
            const whole = e;
            for (let turn = 0; turn < 2; turn++) {
              const i = is[j] * (e - 1);
              taken += (r * i - taken) / (1 + (r * is[j] * e) / width);
              const x = taken / width;
              e = whole * (1 - x + x * x * (0.5 - x / 6));
            }
            inside[j] = across - taken;
          }
          current = is[j] * (e - 1) + GMIN_S * (across - taken);
          g = (is[j] * e) / width + GMIN_S;
          g /= 1 + r * g;
        } else {
          const tail = (3 * width) / (across * Math.E);
          const cube = tail * tail * tail;
          current = -is[j] * (1 + cube) + GMIN_S * across;
          g = (3 * is[j] * cube) / across + GMIN_S;
        }
      } else {
        const model = models[j];
        const wanted = insideVoltage(model, across, inside[j], point);
        const vj = this.free ? wanted : limited(model, wanted, inside[j]);
        inside[j] = vj;
        junctionAt(model, vj, point);
        current = point.i;
        g = point.g;
        if (model.rs > 0) g /= 1 + model.rs * g;
        if (vj !== wanted) {
          this.limiting = true;
          current += g * (across - (vj + model.rs * point.i));
        }
      }
      slopes[j] = g;
      const old = factoredSlopes[j];
      if (Math.abs(g - old) > 0.1 * old + 1e-11) moved = true;
      bent += Math.abs(current);
      leaving[a] += current;
      leaving[k] -= current;
    }
    this.moved = moved;
    this.bent_A = bent;
    if (last === this.plain) slopes[this.plain] = 0;
    let at = this.plain + 1;
    let s = this.plain + 1;
    for (let d = 0; d < this.devices.length; d++) {
      const { device, nodes } = network.devices[d];
      const slots = this.devices[d];
      for (let i = 0; i < nodes.length; i++) slots.v[i] = v[nodes[i]];
      const from = at;
      for (let q = 0; q < device.junctions.length; q++) {
        const { a, k, sign, model } = device.junctions[q];
        const wanted = sign * (slots.v[a] - slots.v[k]);
        const vj = this.free ? wanted : limited(model, wanted, inside[at]);
        if (vj !== wanted) this.limiting = true;
        inside[at++] = vj;
        slots.inside[q] = vj;
      }
      const leapt = device.evaluate(slots.v, slots.inside, slots.out, slots.slope);
      if (leapt) this.limiting = true;
      for (let i = 0; i < nodes.length; i++) {
        let out = slots.out[i];
        for (let q = 0; q < device.junctions.length; q++) {
          const { a, k, sign } = device.junctions[q];
          const lag = sign * (slots.v[a] - slots.v[k]) - inside[from + q];
          if (lag !== 0) out -= sign * slots.slope[i * device.ends + k] * lag;
        }
        this.bent_A += Math.abs(out);
        leaving[nodes[i]] -= out;
      }
      for (let q = 0; q < slots.slope.length; q++) this.note(s++, slots.slope[q]);
    }
  }

  /** Keeps a slope and whether it has changed since the matrix was factored. */
  private note(at: number, g: number): void {
    this.slopes[at] = g;
    const old = this.factoredSlopes[at];
    if (Math.abs(g - old) > 0.1 * Math.abs(old) + 1e-11) this.moved = true;
  }

  /** The matrix of slopes belonging to the last `evaluate`. */
  private stamp(): void {
    const { matrix, base, n, slopes, ja, jk, jPlaces } = this;
    matrix.set(base);
    if (this.tie > 0) for (let i = 0; i < n; i++) matrix[i] += this.tie;
    const trash = matrix.length - 1;
    const diagonal = (node: number) => (node === n ? trash : node);
    const meter = this.stimulus;
    if (meter) {
      matrix[diagonal(meter.red)] += meter.g;
      matrix[diagonal(meter.black)] += meter.g;
      if (meter.red !== meter.black) {
        matrix[this.stimulusPlaces[0]] -= meter.g;
        matrix[this.stimulusPlaces[1]] -= meter.g;
      }
    }
    const last = meter?.clamp_V === undefined ? this.plain : this.plain + 1;
    for (let j = 0; j < last; j++) {
      const g = slopes[j];
      matrix[diagonal(ja[j])] += g;
      matrix[diagonal(jk[j])] += g;
      if (ja[j] === jk[j]) continue;
      matrix[jPlaces[2 * j]] -= g;
      matrix[jPlaces[2 * j + 1]] -= g;
    }
    let s = this.plain + 1;
    for (const { places } of this.devices) for (let q = 0; q < places.length; q++) matrix[places[q]] -= slopes[s++];
  }

  private placeJunction(j: number): void {
    const { ja, jk } = this;
    if (ja[j] === jk[j]) return;
    this.jPlaces[2 * j] = this.plan.place(ja[j], jk[j]);
    this.jPlaces[2 * j + 1] = this.plan.place(jk[j], ja[j]);
  }

  private couple(m: Float64Array, a: number, b: number, g: number): void {
    if (a === b) return;
    const { place } = this.plan;
    m[place(a, a)] += g;
    m[place(b, b)] += g;
    m[place(a, b)] -= g;
    m[place(b, a)] -= g;
  }
}
