/**
 * Which phases a composition falls into at a temperature, with their amounts (lever rule), by column generation: a linear
 * program picks amounts from a pool of compositions; each phase is then searched for a composition that lies below the plane
 * of the found potentials, until none does.
 */
import { COLD_K, liquidusOf } from './liquidus.ts';
import {
  compoundEnergy,
  deepest,
  minimise,
  potentials,
  startsOf,
  systemOf,
  type AlloySystem,
  type SolutionPhase,
} from './phases.ts';

interface Column {
  phase: string;
  /** Fractions over the system's elements. */
  x: Float64Array;
  g: number;
}

export interface Equilibrium {
  /** Amount of each phase, moles of atoms of one mole. */
  phases: { phase: string; amount: number; x: Float64Array }[];
  /** Moles of atoms that are liquid. */
  liquid: number;
  /** Potentials of the elements, J/mol. */
  mu: Float64Array;
}

const PIVOT = 1e-7;
const WORTH_ADDING = -0.002;
const GOOD_ENOUGH = -0.01;
/** Fractions closer than this are one composition. */
const SAME = 1e-5;
/** Energy of the made-up columns a solution starts from, J/mol. */
const FICTITIOUS = 1e5;

/** A linear program of a few rows: amounts of columns whose fractions sum to `x`, of least energy (revised simplex). */
class Mixture {
  private readonly x: Float64Array;
  readonly basis: Column[];
  readonly amounts: Float64Array;
  readonly mu: Float64Array;
  /** Inverse of the basis, row by row. */
  private readonly inverse: Float64Array;

  constructor(x: Float64Array) {
    const n = x.length;
    this.x = x;
    this.basis = Array.from({ length: n }, (_, i) => {
      const corner = new Float64Array(n);
      corner[i] = 1;
      return { phase: '', x: corner, g: FICTITIOUS };
    });
    this.inverse = new Float64Array(n * n);
    for (let i = 0; i < n; i++) this.inverse[i * n + i] = 1;
    this.amounts = x.slice();
    this.mu = new Float64Array(n).fill(FICTITIOUS);
  }

  /** Brings the pool's columns in as long as one lowers the energy. */
  improve(pool: readonly Column[]): void {
    const { basis, amounts, mu, inverse } = this;
    const n = this.x.length;
    const direction = new Float64Array(n);
    for (let turn = 0; turn < 400; turn++) {
      let entering: Column | undefined;
      let least = -PIVOT;
      for (const column of pool) {
        let reduced = column.g;
        for (let i = 0; i < n; i++) reduced -= mu[i] * column.x[i];
        if (reduced < least) [entering, least] = [column, reduced];
      }
      if (!entering) return;
      for (let i = 0; i < n; i++) {
        let sum = 0;
        for (let k = 0; k < n; k++) sum += inverse[i * n + k] * entering.x[k];
        direction[i] = sum;
      }
      let [leaving, ratio] = [-1, Infinity];
      for (let i = 0; i < n; i++)
        if (direction[i] > 1e-11) {
          const r = Math.max(0, amounts[i]) / direction[i];
          // made-up columns leave first where there is a choice
          if (r < ratio - 1e-15 || (r <= ratio && basis[i].phase === '')) [leaving, ratio] = [i, r];
        }
      if (leaving < 0) return;
      basis[leaving] = entering;
      this.pivot(leaving, direction);
    }
  }

  /** Replaces a column of the basis in its inverse; amounts and potentials follow. */
  private pivot(row: number, direction: Float64Array): void {
    const { inverse, basis, amounts, mu, x } = this;
    const n = x.length;
    for (let k = 0; k < n; k++) inverse[row * n + k] /= direction[row];
    for (let i = 0; i < n; i++)
      if (i !== row && direction[i] !== 0)
        for (let k = 0; k < n; k++) inverse[i * n + k] -= direction[i] * inverse[row * n + k];
    mu.fill(0);
    for (let i = 0; i < n; i++) {
      let sum = 0;
      for (let k = 0; k < n; k++) {
        sum += inverse[i * n + k] * x[k];
        mu[k] += basis[i].g * inverse[i * n + k];
      }
      amounts[i] = sum;
    }
  }
}

function spread(phase: SolutionPhase, y: Float64Array, n: number): Float64Array {
  const x = new Float64Array(n);
  for (let i = 0; i < y.length; i++) x[phase.members[i]] = y[i];
  return x;
}

/** Equilibria of one composition; what was found at one temperature helps at the next. */
export class Equilibria {
  private readonly system: AlloySystem;
  private readonly x: Float64Array;
  private readonly solutions: SolutionPhase[];
  private warm: { phase: SolutionPhase; y: Float64Array }[] = [];

  /** `x`: mole fractions, all above 0. `liquid: false` leaves the melt out; `warm` lends what it found last. */
  constructor(
    system: AlloySystem,
    x: Float64Array,
    { liquid = true, warm }: { liquid?: boolean; warm?: Equilibria } = {},
  ) {
    this.system = system;
    // compositions of another element set mean nothing here
    if (warm?.system === system) this.warm = warm.warm;
    this.x = x;
    this.solutions = liquid ? [system.liquid, ...system.solids] : system.solids;
  }

  at(T: number): Equilibrium {
    const { system, x, solutions } = this;
    const n = x.length;
    const energyOf = (phase: SolutionPhase, y: Float64Array) => potentials(phase, y, T, new Float64Array(y.length));
    const column = (phase: SolutionPhase, y: Float64Array): Column => ({
      phase: phase.name,
      x: spread(phase, y, n),
      g: energyOf(phase, y),
    });
    const pool: Column[] = system.compounds.map((c) => ({ phase: c.name, x: c.x, g: compoundEnergy(c, T) }));
    for (const phase of solutions) for (const y of startsOf(phase, x)) pool.push(column(phase, y));
    for (const { phase, y } of this.warm) pool.push(column(phase, y));
    const mixture = new Mixture(x);
    for (let round = 0; round < 80; round++) {
      mixture.improve(pool);
      const { mu, basis, amounts } = mixture;
      let worst = 0;
      let added = 0;
      for (const phase of solutions) {
        const own = basis.flatMap((c, i) => (c.phase === phase.name ? [{ c, amount: amounts[i] }] : []));
        const starts = startsOf(phase, x);
        for (const { c } of own) starts.push(Float64Array.from(phase.members, (m) => c.x[m]));
        const found: Float64Array[] = [];
        for (const start of starts) {
          const { value, y } = minimise(phase, mu, T, start);
          if (value < worst) worst = value;
          // several starts often lead to the same composition
          if (value >= WORTH_ADDING || found.some((f) => f.every((v, i) => Math.abs(v - y[i]) < SAME))) continue;
          found.push(y);
          pool.push(column(phase, y));
          added++;
        }
        // two compositions of one phase that are really one meet in their middle
        const total = own.reduce((sum, o) => sum + o.amount, 0);
        if (own.length > 1 && total > 0) {
          const y = new Float64Array(phase.members.length);
          for (const { c, amount } of own)
            for (let i = 0; i < y.length; i++) y[i] += (amount * c.x[phase.members[i]]) / total;
          const merged = column(phase, y);
          let reduced = merged.g;
          for (let i = 0; i < n; i++) reduced -= mu[i] * merged.x[i];
          if (reduced < WORTH_ADDING) {
            pool.push(merged);
            added++;
          }
        }
      }
      if (worst > GOOD_ENOUGH || added === 0) break;
    }
    this.warm = mixture.basis.flatMap((c) => {
      const phase = solutions.find((p) => p.name === c.phase);
      return phase ? [{ phase, y: Float64Array.from(phase.members, (m) => c.x[m]) }] : [];
    });
    const phases = new Map<string, { phase: string; amount: number; x: Float64Array }>();
    for (const [i, c] of mixture.basis.entries()) {
      const amount = mixture.amounts[i];
      if (amount <= 0 || c.phase === '') continue;
      const row = phases.get(c.phase) ?? { phase: c.phase, amount: 0, x: new Float64Array(n) };
      for (let k = 0; k < n; k++) row.x[k] += amount * c.x[k];
      row.amount += amount;
      phases.set(c.phase, row);
    }
    const list = [...phases.values()].map((p) => ({ ...p, x: p.x.map((v) => v / p.amount) }));
    return { phases: list, liquid: phases.get('LIQUID')?.amount ?? 0, mu: mixture.mu.slice() };
  }
}

/** Where on heating the first liquid appears, K: the melt then lies below the plane of the solids. */
export function solidusOf(system: AlloySystem, x: Float64Array, from_K = liquidusOf(system, x).true_K): number {
  if (x.length === 1) return from_K;
  const solids = new Equilibria(system, x, { liquid: false });
  const melts = (T: number) => deepest(system.liquid, solids.at(T).mu, T, x).value < -1e-6;
  let hot = from_K + 1;
  let [cold, step] = [from_K - 0.5, 2];
  while (cold > COLD_K && melts(cold)) {
    hot = cold;
    cold -= step;
    step = Math.min(40, step * 1.5);
  }
  if (cold <= COLD_K) return COLD_K;
  while (hot - cold > 0.02) {
    const mid = (hot + cold) / 2;
    if (melts(mid)) hot = mid;
    else cold = mid;
  }
  return (hot + cold) / 2;
}

export interface Scheil {
  /** Liquid share left at falling temperatures. */
  curve: { T_K: number; liquid: number }[];
  /** Where the last liquid freezes, K; null when less than `LEAST` is left before it does. */
  end_K: number | null;
}

/** Less liquid than this is nothing. */
const LEAST_LIQUID = 1e-3;

/** Steps grow to this while little freezes, K. */
const LONG_STEP_K = 4;

/** Freezing without diffusion in the solid: what has frozen is out of the game. Real joints cool nearer to this. */
export function scheilOf(system: AlloySystem, x: Float64Array, from_K: number): Scheil {
  let rest = x.slice();
  let [liquid, T, step] = [1, from_K, 1];
  let alive: AlloySystem = system;
  const curve = [{ T_K: from_K, liquid: 1 }];
  let equilibria = new Equilibria(alive, rest);
  while (T > COLD_K) {
    const { phases, liquid: share } = equilibria.at(T - step);
    const melt = phases.find((p) => p.phase === 'LIQUID');
    if ((!melt || share < 0.9) && step > 1) {
      // much happens in here: look closely
      step = 1;
      continue;
    }
    T -= step;
    if (!melt || share < 1e-6) {
      curve.push({ T_K: T, liquid: 0 });
      return { curve, end_K: liquid > LEAST_LIQUID ? T + step / 2 : null };
    }
    liquid *= Math.min(1, share);
    curve.push({ T_K: T, liquid });
    if (liquid < LEAST_LIQUID) return { curve, end_K: null };
    step = Math.min(LONG_STEP_K, share > 0.97 ? step * 2 : 1);
    if (share > 1 - 1e-9) continue;
    // elements that have all but left the melt no longer matter
    const kept = [...melt.x.keys()].filter((i) => melt.x[i] > 1e-7);
    const total = kept.reduce((sum, i) => sum + melt.x[i], 0);
    rest = Float64Array.from(kept, (i) => melt.x[i] / total);
    const before = equilibria;
    if (kept.length < alive.elements.length) alive = systemOf(kept.map((i) => alive.elements[i]));
    equilibria = new Equilibria(alive, rest, { warm: before });
  }
  return { curve, end_K: null };
}
