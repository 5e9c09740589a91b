/**
 * DC operating point of a network by nodal analysis: Newton on the junctions and devices, sparse LU on
 * one elimination plan per network, and a ladder of gentler ways when plain Newton does not converge.
 * Only a converged plain Newton counts as an answer.
 */
import { factorLu, solveDense, solveLu } from '../ground/index.ts';
import { Equations, type Stimulus } from './equations.ts';
import type { Change, Network } from './network.ts';

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

export class NetworkSolver {
  readonly network: Network;
  private readonly eq: Equations;
  private readonly n: number;
  private readonly step: Float64Array;

  /**
   * `probes`: pairs of nodes that a meter will be laid across. `like`: the solver of a circuit that is
   * probably coupled in the same way, whose plan then serves here too.
   */
  constructor(network: Network, probes: readonly (readonly [number, number])[] = [], like?: NetworkSolver) {
    this.network = network;
    this.n = network.size;
    this.eq = new Equations(network, probes, like?.eq);
    this.step = new Float64Array(this.n + 1);
  }

  /** Changes one conductance of the network (see `couples`) until it is altered again; null: as it was. */
  alter(change: Change | null): void {
    this.eq.alter(change);
  }

  /** Sum of the currents in junctions and devices at the last evaluation, A. */
  get bent_A(): number {
    return this.eq.bent_A;
  }

  /** Operating point with a meter on it; `start` (n + 1 voltages) saves steps when it is near. */
  solve(stimulus: Stimulus | null = null, start?: Float64Array): Solution {
    this.eq.attach(stimulus);
    const v = new Float64Array(this.n + 1);
    if (start) v.set(start.subarray(0, this.n + 1));
    else this.guess(v);
    const first = this.newton(v, MAX_PLAIN);
    if (first.converged) return { v, ...first };
    return this.ladder(v, first.steps);
  }

  /** Solves and keeps the factors at the solution, for `nearby`; null when it does not converge. */
  solved(stimulus: Stimulus | null, start?: Float64Array): Base | null {
    const { v, converged } = this.solve(stimulus, start);
    return converged ? this.keep(v) : null;
  }

  /** Whether the plan has a place for a conductance between two nodes. */
  couples(a: number, b: number): boolean {
    return this.eq.plan.has(a, b);
  }

  /** The point just solved, with its factors. */
  keep(v: Float64Array): Base | null {
    this.eq.evaluate(v);
    this.eq.stamp();
    if (!factorLu(this.eq.plan, this.eq.matrix)) return null;
    return { v, factors: this.eq.matrix.slice(), stimulus: this.eq.stimulus };
  }

  /** Response of all nodes to 1 A from a to b at a kept point, V. */
  response(base: Base, a: number, b: number): Float64Array {
    const z = new Float64Array(this.n + 1);
    z[a] += 1;
    z[b] -= 1;
    z[this.n] = 0;
    solveLu(this.eq.plan, base.factors, z);
    z[this.n] = 0;
    return z;
  }

  /**
   * The solution after one conductance has changed by `dg` between a and b: a rank-one change of the kept
   * factors (Sherman & Morrison 1950), then steps with the same factors for what the junctions do. Null when
   * those do not come to rest; then a Newton of its own is due. `follow`: what to multiply `response` by for
   * d v / d ln r of a conductor of `g` siemens there.
   */
  nearby(
    base: Base,
    { a, b, dg, g }: Change,
    z = this.response(base, a, b),
  ): { v: Float64Array; follow: number } | null {
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
    if (shift < TOLERANCE_V || !this.eq.nonlinear) return done();
    this.eq.attach(base.stimulus);
    this.eq.free = true;
    let last = Infinity;
    for (let turn = 0; turn < 8; turn++) {
      this.eq.evaluate(v);
      for (let i = 0; i < n; i++) step[i] = -this.eq.leaving[i];
      const i = dg * (v[a] - v[b]);
      step[a] -= i;
      step[b] += i;
      step[n] = 0;
      solveLu(this.eq.plan, base.factors, step);
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
        this.eq.free = false;
        return done();
      }
      last = most;
    }
    this.eq.free = false;
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
      this.eq.tie = 0;
      this.eq.sourceScale = 1;
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
      this.eq.tie = tie;
      this.eq.anchor.set(v);
      tie *= attempt(15) ? 0.4 : 4;
    }
  }

  /** A leak from every node to ground, taken away bit by bit. */
  private drain(attempt: (most: number) => boolean): void {
    this.eq.anchor.fill(0);
    for (let tie = 1e-1; tie > 1e-13; tie /= 4) {
      this.eq.tie = tie;
      attempt(MAX_PLAIN);
    }
  }

  /** Sources turned up from nothing. */
  private turnUp(attempt: (most: number) => boolean): void {
    this.eq.tie = 0;
    for (let scale = 0.05; scale < 1; scale += 0.05) {
      this.eq.sourceScale = scale;
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
    this.eq.free = true;
    let lambda = 1;
    let steps = 0;
    let converged = false;
    const length = (d: Float64Array) => {
      let sum = 0;
      for (let i = 0; i < n; i++) sum += d[i] * d[i];
      return Math.sqrt(sum);
    };
    this.eq.evaluate(v);
    for (let turn = 0; turn < most && !converged; turn++) {
      for (let i = 0; i < n; i++) way[i] = -this.eq.leaving[i];
      this.eq.stamp();
      steps++;
      if (!factorLu(this.eq.plan, this.eq.matrix)) break;
      solveLu(this.eq.plan, this.eq.matrix, way);
      const long = length(way);
      if (!Number.isFinite(long)) break;
      from.set(v);
      lambda = Math.min(1, 2 * lambda);
      let least = false;
      for (;;) {
        for (let i = 0; i < n; i++) v[i] = from[i] + lambda * way[i];
        this.eq.evaluate(v);
        for (let i = 0; i < n; i++) step[i] = -this.eq.leaving[i];
        solveLu(this.eq.plan, this.eq.matrix, step);
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
    this.eq.free = false;
    return { converged, steps };
  }

  private newton(v: Float64Array, most: number): { converged: boolean; steps: number } {
    const { n, step } = this;
    this.eq.settle(v);
    let factored = false;
    let steps = 0;
    for (let turn = 0; turn < most; turn++) {
      this.eq.evaluate(v);
      for (let i = 0; i < n; i++) step[i] = -this.eq.leaving[i];
      const tolerance = turn < 40 ? TOLERANCE_V : LATE_TOLERANCE_V;
      if (factored && !this.eq.limiting && !this.eq.moved) {
        // the old factors still describe the circuit: one cheap step tells whether it is there
        solveLu(this.eq.plan, this.eq.matrix, step);
        let there = true;
        for (let i = 0; i < n && there; i++) there = Math.abs(step[i]) < tolerance + RELATIVE * Math.abs(v[i]);
        if (there) {
          for (let i = 0; i < n; i++) v[i] += step[i];
          return { converged: true, steps };
        }
        for (let i = 0; i < n; i++) step[i] = -this.eq.leaving[i];
      }
      this.eq.stamp();
      steps++;
      factored = factorLu(this.eq.plan, this.eq.matrix);
      if (factored) solveLu(this.eq.plan, this.eq.matrix, step);
      else {
        this.eq.stamp();
        if (!solveDense(this.eq.plan, this.eq.matrix, step)) return { converged: false, steps };
      }
      this.eq.factoredSlopes.set(this.eq.slopes);
      let most_V = 0;
      for (let i = 0; i < n; i++) most_V = Math.max(most_V, Math.abs(step[i]));
      if (!Number.isFinite(most_V)) return { converged: false, steps };
      const cap = 5 / 2 ** Math.max(0, Math.floor((turn - 12) / 4));
      const capped = most_V > cap && this.eq.nonlinear;
      let small = !capped && !this.eq.limiting;
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
}
