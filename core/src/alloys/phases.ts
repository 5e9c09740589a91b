/**
 * Phases of an alloy and their energies: a substitutional liquid and substitutional crystals with Redlich–Kister excess
 * (pairs and Muggianu triples), and stoichiometric compounds. All energies are per mole of atoms, against the pure liquids.
 */
import { SOLDER_ELEMENTS, type Element } from './elements.ts';
import { COMPOUNDS, LIQUID, SOLIDS, UNKNOWN_PAIR, type Term } from './parameters.ts';

/** Gas constant, J/(mol·K). */
export const R = 8.314462;

/** Fractions never fall below this: their logarithm has to exist. */
const LEAST = 1e-25;

interface PairTerms {
  i: number;
  j: number;
  terms: readonly Term[];
  /** The terms at the temperature that the phase was warmed to last. */
  L: Float64Array;
}
interface TripleTerms {
  i: number;
  j: number;
  k: number;
  a: readonly [number, number, number];
}

/** A phase whose composition is free. Fractions are over its own elements, `members` are their places in the system. */
export interface SolutionPhase {
  name: string;
  members: Int32Array;
  /** What makes up the energy of the pure elements in this crystal, per member: −H(1 − T/Tm) + lattice. Liquid: none. */
  pure?: { fusion: number; melting: number; lattice: Term }[];
  /** Temperature that `base` and the pairs' terms stand for, K. */
  T: number;
  /** Energy of the pure members, J/mol. */
  base: Float64Array;
  pairs: PairTerms[];
  triples: TripleTerms[];
  /** Members whose corner its minimum is looked for from. */
  corners: number[];
  /** …and from the composition of the alloy, too. */
  fromComposition: boolean;
}

export interface Compound {
  name: string;
  /** Fractions over all elements of the system. */
  x: Float64Array;
  g: Term;
}

/** What can form from a set of elements. */
export interface AlloySystem {
  elements: readonly Element[];
  liquid: SolutionPhase;
  solids: SolutionPhase[];
  compounds: Compound[];
}

const at = ([a, b]: Term, T: number): number => a + b * T;

const pair = (i: number, j: number, terms: readonly Term[]): PairTerms => ({
  i,
  j,
  terms,
  L: new Float64Array(terms.length),
});

function pairsOf(
  members: readonly Element[],
  known: Partial<Record<string, readonly Term[]>>,
  otherwise?: readonly Term[],
): PairTerms[] {
  const pairs: PairTerms[] = [];
  for (let i = 0; i < members.length; i++)
    for (let j = i + 1; j < members.length; j++) {
      const forward = known[`${members[i]}-${members[j]}`];
      const backward = known[`${members[j]}-${members[i]}`];
      if (forward) pairs.push(pair(i, j, forward));
      else if (backward) pairs.push(pair(j, i, backward));
      else if (otherwise) pairs.push(pair(i, j, otherwise));
    }
  return pairs;
}

function triplesOf(members: readonly Element[]): TripleTerms[] {
  return Object.entries(LIQUID.triples).flatMap(([key, a]) => {
    const [i, j, k] = key.split('-').map((e) => members.indexOf(e as Element));
    return i < 0 || j < 0 || k < 0 ? [] : [{ i, j, k, a }];
  });
}

/** Everything that may form from `elements`. */
export function systemOf(elements: readonly Element[]): AlloySystem {
  const placeOf = (e: Element) => elements.indexOf(e);
  const all = elements.map((_, i) => i);
  const liquid: SolutionPhase = {
    name: 'LIQUID',
    members: Int32Array.from(all),
    T: NaN,
    base: new Float64Array(all.length),
    pairs: pairsOf(elements, LIQUID.pairs),
    triples: triplesOf(elements),
    corners: all,
    fromComposition: true,
  };
  const solids = Object.entries(SOLIDS).flatMap(([name, p]): SolutionPhase[] => {
    const members = elements.filter((e) => p.lattice[e] !== undefined);
    const present = p.needs.length > 0 ? p.needs.every((e) => members.includes(e)) : members.length > 0;
    if (!present) return [];
    const corners = members.flatMap((e, i) => (p.native.includes(e) ? [i] : []));
    return [
      {
        name,
        members: Int32Array.from(members, placeOf),
        T: NaN,
        base: new Float64Array(members.length),
        pure: members.map((e) => ({
          fusion: SOLDER_ELEMENTS[e].fusion.value,
          melting: SOLDER_ELEMENTS[e].melting.value,
          lattice: p.lattice[e] ?? [0, 0],
        })),
        pairs: pairsOf(members, p.pairs, UNKNOWN_PAIR),
        triples: [],
        corners,
        fromComposition: corners.length === 0 || p.fromComposition === true,
      },
    ];
  });
  const compounds = Object.entries(COMPOUNDS).flatMap(([name, { atoms, g }]): Compound[] => {
    const parts = Object.entries(atoms) as [Element, number][];
    if (!parts.every(([e]) => elements.includes(e))) return [];
    const total = parts.reduce((sum, [, n]) => sum + n, 0);
    const x = new Float64Array(elements.length);
    for (const [e, n] of parts) x[placeOf(e)] = n / total;
    return [{ name, x, g }];
  });
  return { elements, liquid, solids, compounds };
}

/** Energy of a compound, J/mol of atoms. */
export const compoundEnergy = (c: Compound, T: number): number => at(c.g, T);

/**
 * Excess energy at fractions `y` and its partial molar values into `mu`, J/mol. The derivatives are taken with the fractions
 * as independent, then brought onto the simplex.
 */
function excess({ pairs, triples }: SolutionPhase, y: Float64Array, mu: Float64Array): number {
  let g = 0;
  mu.fill(0);
  for (const { i, j, L } of pairs) {
    const d = y[i] - y[j];
    let [sum, slope, power] = [0, 0, 1];
    for (let k = 0; k < L.length; k++) {
      if (k > 0) {
        slope += k * L[k] * power;
        power *= d;
      }
      sum += L[k] * power;
    }
    const product = y[i] * y[j];
    g += product * sum;
    mu[i] += y[j] * sum + product * slope;
    mu[j] += y[i] * sum - product * slope;
  }
  for (const { i, j, k, a } of triples) {
    const product = y[i] * y[j] * y[k];
    const sum = a[0] * y[i] + a[1] * y[j] + a[2] * y[k];
    g += product * sum;
    mu[i] += y[j] * y[k] * sum + product * a[0];
    mu[j] += y[i] * y[k] * sum + product * a[1];
    mu[k] += y[i] * y[j] * sum + product * a[2];
  }
  let mean = 0;
  for (let m = 0; m < y.length; m++) mean += y[m] * mu[m];
  for (let m = 0; m < y.length; m++) mu[m] += g - mean;
  return g;
}

/** Brings what depends on temperature alone to `T`. */
function warmTo(phase: SolutionPhase, T: number): void {
  if (phase.T === T) return;
  phase.T = T;
  for (const p of phase.pairs) for (let k = 0; k < p.L.length; k++) p.L[k] = at(p.terms[k], T);
  phase.pure?.forEach(({ fusion, melting, lattice }, i) => {
    phase.base[i] = -fusion * (1 - T / melting) + at(lattice, T);
  });
}

/** Chemical potentials of the members at fractions `y`, J/mol, into `mu`; gives the energy of the phase. */
export function potentials(phase: SolutionPhase, y: Float64Array, T: number, mu: Float64Array): number {
  warmTo(phase, T);
  excess(phase, y, mu);
  let g = 0;
  for (let i = 0; i < y.length; i++) {
    mu[i] += phase.base[i] + R * T * Math.log(Math.max(y[i], LEAST));
    g += y[i] * mu[i];
  }
  return g;
}

export interface Minimum {
  /** g − Σμy at the minimum, J/mol: below 0 the phase would form. */
  value: number;
  y: Float64Array;
}

/**
 * The composition at which a phase lies deepest below the plane of the potentials `mu` (over the system's elements), from one
 * starting point: damped exponentiated steps on the simplex. A step that would raise the objective is halved.
 */
export function minimise(phase: SolutionPhase, mu: Float64Array, T: number, start: Float64Array): Minimum {
  const n = phase.members.length;
  warmTo(phase, T);
  const { base } = phase;
  const goal = Float64Array.from({ length: n }, (_, i) => mu[phase.members[i]]);
  const ex = new Float64Array(n);
  const RT = R * T;
  let y = start.map((v) => Math.max(v, LEAST));
  const value = (at_: Float64Array) => {
    let sum = excess(phase, at_, ex);
    for (let i = 0; i < n; i++) sum += at_[i] * (base[i] + RT * Math.log(at_[i]) - goal[i]);
    return sum;
  };
  let best = value(y);
  let partial = ex.slice();
  let a = 1;
  const next = new Float64Array(n);
  for (let turn = 0; turn < 60; turn++) {
    let most = -Infinity;
    for (let i = 0; i < n; i++) {
      next[i] = (1 - a) * Math.log(y[i]) + (a * (goal[i] - base[i] - partial[i])) / RT;
      if (next[i] > most) most = next[i];
    }
    let sum = 0;
    for (let i = 0; i < n; i++) sum += next[i] = Math.exp(next[i] - most);
    let change = 0;
    for (let i = 0; i < n; i++) {
      next[i] = Math.max(next[i] / sum, LEAST);
      change = Math.max(change, Math.abs(next[i] - y[i]));
    }
    const there = value(next);
    if (there > best + 1e-12 * Math.abs(best)) {
      a /= 2;
      if (a < 1e-4) break;
      continue;
    }
    y = next.slice();
    best = there;
    partial = ex.slice();
    a = Math.min(1, a * 1.3);
    if (change < 1e-9) break;
  }
  return { value: best, y };
}

/** Starting points of a phase: the corners of its own elements, and the alloy's composition where it needs that. */
export function startsOf(phase: SolutionPhase, x: Float64Array): Float64Array[] {
  const own = Float64Array.from(phase.members, (m) => x[m]);
  const total = own.reduce((sum, v) => sum + v, 0) || 1;
  const starts = phase.corners.map((corner) => {
    const y = own.map((v) => (1e-3 * v) / total);
    y[corner] += 1;
    const sum = y.reduce((s, v) => s + v, 0);
    return y.map((v) => v / sum);
  });
  if (phase.fromComposition) starts.push(own.map((v) => Math.max(v / total, 1e-12)));
  return starts;
}

/** Deepest point of a phase below the plane `mu`, over all its starting points. */
export function deepest(phase: SolutionPhase, mu: Float64Array, T: number, x: Float64Array): Minimum {
  let best: Minimum | undefined;
  for (const start of startsOf(phase, x)) {
    const found = minimise(phase, mu, T, start);
    if (!best || found.value < best.value) best = found;
  }
  return best as Minimum;
}
