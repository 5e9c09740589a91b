/**
 * LU of small matrices with a symmetric pattern but unequal values (circuits), on the elimination order
 * of `planElimination`. The whole matrix lives in one flat array: the diagonal, then two values for each
 * slot (above and below the diagonal in elimination order), then one place that takes what belongs to
 * the reference node and is never read.
 */
import { planElimination, type Elimination } from './sparseSolve.ts';

export interface LuPlan {
  readonly elimination: Elimination;
  readonly size: number;
  /** Length of the matrix array. */
  readonly length: number;
  /** Place of A[row][column] in the array; row or column `size` is the reference node. Throws off the pattern. */
  place(row: number, column: number): number;
  /** Whether two nodes are coupled in the plan (or one of them is the reference). */
  has(a: number, b: number): boolean;
  /** Where the two updates of each neighbour pair go: A[i][k], A[k][i], in pivot order. */
  readonly pairPlaces: Int32Array;
}

/** Plans for `size` unknowns coupled along `edges`; edges to `size` (the reference node) are ignored. */
export function planLu(size: number, edges: readonly (readonly [number, number])[]): LuPlan {
  const inner = edges.filter(([a, b]) => a !== b && a < size && b < size);
  const elimination = planElimination(size, inner);
  const rank = new Int32Array(size);
  elimination.order.forEach((node, n) => (rank[node] = n));
  const slotOf = new Map<number, number>();
  const key = (a: number, b: number) => (a < b ? a * size + b : b * size + a);
  for (let n = 0; n < size; n++)
    for (let i = elimination.first[n]; i < elimination.first[n + 1]; i++)
      slotOf.set(key(elimination.order[n], elimination.neighbour[i]), elimination.slot[i]);
  const length = size + 2 * elimination.slots + 1;
  const place = (row: number, column: number): number => {
    if (row === size || column === size) return length - 1;
    if (row === column) return row;
    const slot = slotOf.get(key(row, column));
    if (slot === undefined) throw new Error(`no place for the coupling ${row}, ${column}`);
    return size + 2 * slot + (rank[row] < rank[column] ? 0 : 1);
  };
  const has = (a: number, b: number): boolean => a === b || a === size || b === size || slotOf.has(key(a, b));
  const pairPlaces: number[] = [];
  for (let n = 0; n < size; n++) {
    const near = elimination.neighbour.subarray(elimination.first[n], elimination.first[n + 1]);
    for (let i = 0; i < near.length; i++)
      for (let k = i + 1; k < near.length; k++) pairPlaces.push(place(near[i], near[k]), place(near[k], near[i]));
  }
  return { elimination, size, length, place, has, pairPlaces: Int32Array.from(pairPlaces) };
}

/** Whether a plan serves `size` unknowns coupled along these edges. */
export function covers(plan: LuPlan, size: number, edges: readonly (readonly [number, number])[]): boolean {
  return plan.size === size && edges.every(([a, b]) => plan.has(a, b));
}

/**
 * Factors the matrix array in place without pivoting. False when a pivot is too small beside its row for
 * the result to be trusted; the array is then of no use.
 */
export function factorLu(plan: LuPlan, m: Float64Array): boolean {
  const { size, pairPlaces } = plan;
  const { order, first, neighbour, slot } = plan.elimination;
  let pair = 0;
  for (let n = 0; n < size; n++) {
    const p = order[n];
    const d = m[p];
    const from = first[n];
    const end = first[n + 1];
    if (!(Math.abs(d) > 1e-14)) return false;
    let right = 0;
    let below = 0;
    for (let i = from; i < end; i++) {
      const at = size + 2 * slot[i];
      const up = m[at];
      const factor = m[at + 1] / d;
      right = Math.max(right, Math.abs(up));
      below = Math.max(below, Math.abs(factor));
      m[at + 1] = factor;
      m[neighbour[i]] -= factor * up;
    }
    // a row or a column alone may be steep (a gate); both together mean that the pivot was a poor one
    if (!(below < 1e6 || right < 1e6 * Math.abs(d))) return false;
    for (let i = from; i < end; i++) {
      const at = size + 2 * slot[i];
      const up = m[at];
      const factor = m[at + 1];
      for (let k = i + 1; k < end; k++) {
        const other = size + 2 * slot[k];
        m[pairPlaces[pair]] -= factor * m[other];
        m[pairPlaces[pair + 1]] -= m[other + 1] * up;
        pair += 2;
      }
    }
  }
  return true;
}

/** Solves A x = b with the factors of `factorLu`; `b` becomes x. */
export function solveLu(plan: LuPlan, m: Float64Array, b: Float64Array): void {
  const { size } = plan;
  const { order, first, neighbour, slot } = plan.elimination;
  for (let n = 0; n < size; n++) {
    const y = b[order[n]];
    if (y === 0) continue;
    for (let i = first[n]; i < first[n + 1]; i++) b[neighbour[i]] -= m[size + 2 * slot[i] + 1] * y;
  }
  for (let n = size - 1; n >= 0; n--) {
    const p = order[n];
    let sum = b[p];
    for (let i = first[n]; i < first[n + 1]; i++) sum -= m[size + 2 * slot[i]] * b[neighbour[i]];
    b[p] = sum / m[p];
  }
}

/** Solves the same system densely with partial pivoting; slower, for matrices that `factorLu` refuses. `b` becomes x. */
export function solveDense(plan: LuPlan, m: Float64Array, b: Float64Array): boolean {
  const n = plan.size;
  const a = new Float64Array(n * n);
  for (let i = 0; i < n; i++) a[i * n + i] = m[i];
  const { order, first, neighbour, slot } = plan.elimination;
  for (let k = 0; k < n; k++)
    for (let i = first[k]; i < first[k + 1]; i++) {
      const at = n + 2 * slot[i];
      a[order[k] * n + neighbour[i]] = m[at];
      a[neighbour[i] * n + order[k]] = m[at + 1];
    }
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(a[r * n + c]) > Math.abs(a[pivot * n + c])) pivot = r;
    const d = a[pivot * n + c];
    if (!(Math.abs(d) > 1e-300)) return false;
    if (pivot !== c) {
      for (let k = c; k < n; k++) [a[c * n + k], a[pivot * n + k]] = [a[pivot * n + k], a[c * n + k]];
      [b[c], b[pivot]] = [b[pivot], b[c]];
    }
    for (let r = c + 1; r < n; r++) {
      const factor = a[r * n + c] / d;
      if (factor === 0) continue;
      for (let k = c + 1; k < n; k++) a[r * n + k] -= factor * a[c * n + k];
      b[r] -= factor * b[c];
    }
  }
  for (let r = n - 1; r >= 0; r--) {
    let sum = b[r];
    for (let k = r + 1; k < n; k++) sum -= a[r * n + k] * b[k];
    b[r] = sum / a[r * n + r];
  }
  return true;
}
