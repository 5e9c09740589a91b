/** When the first crystal forms from a melt on cooling. */
import { GRAINS } from './parameters.ts';
import { compoundEnergy, deepest, potentials, type AlloySystem } from './phases.ts';

/** Hotter than this nothing of the elements is solid, K. */
const HOT_K = 1400;
/** Colder than this nothing is looked for, K. */
export const COLD_K = 200;
const STEP_K = 40;
const FINE_K = 1e-3;

/** How much a mole of atoms gains by leaving the melt for each crystal, J/mol; above 0 it forms. */
function drives(system: AlloySystem, x: Float64Array): Map<string, (T: number) => number> {
  const mu = new Float64Array(x.length);
  const at = new Map<string, (T: number) => number>();
  for (const solid of system.solids)
    at.set(solid.name, (T) => {
      potentials(system.liquid, x, T, mu);
      return -deepest(solid, mu, T, x).value;
    });
  for (const c of system.compounds)
    at.set(c.name, (T) => {
      potentials(system.liquid, x, T, mu);
      let sum = 0;
      for (let i = 0; i < mu.length; i++) if (c.x[i] > 0) sum += c.x[i] * mu[i];
      return sum - compoundEnergy(c, T);
    });
  return at;
}

/** Highest temperature at which `drive` is above 0, K; null when it never is. */
function onset(drive: (T: number) => number): number | null {
  let hot = HOT_K;
  let cold = HOT_K;
  while (cold > COLD_K && drive(cold) <= 0) {
    hot = cold;
    cold -= STEP_K;
  }
  if (cold <= COLD_K) return null;
  if (cold === HOT_K) return HOT_K;
  while (hot - cold > FINE_K) {
    const mid = (hot + cold) / 2;
    if (drive(mid) > 0) cold = mid;
    else hot = mid;
  }
  return (hot + cold) / 2;
}

export interface Liquidus {
  /** The first crystal of any kind, K. */
  true_K: number;
  /** The first that is no stray hard grain: what has to melt before a part can be moved, K. */
  matrix_K: number;
  /** Which crystal that is. */
  first: string;
}

/** `x`: mole fractions over the system's elements, all above 0. */
export function liquidusOf(system: AlloySystem, x: Float64Array): Liquidus {
  let [true_K, matrix_K, first] = [COLD_K, COLD_K, ''];
  for (const [name, drive] of drives(system, x)) {
    const T = onset(drive);
    if (T === null) continue;
    if (T > true_K) true_K = T;
    if (!GRAINS.has(name) && T > matrix_K) [matrix_K, first] = [T, name];
  }
  return { true_K, matrix_K: first === '' ? true_K : matrix_K, first };
}
