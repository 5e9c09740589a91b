/**
 * Direct solver for small symmetric systems whose pattern never changes (heat networks: nearly a
 * tree, so nearly no fill). `planElimination` orders the unknowns by minimum degree and writes the
 * elimination down once as flat index lists; factoring and solving then only walk them.
 * Source: George & Liu, Computer Solution of Large Sparse Positive Definite Systems, ch. 5.
 */
export interface Elimination {
  readonly size: number;
  /** Value slot of each input edge; several edges between the same pair share one. */
  readonly edgeSlot: Int32Array;
  readonly slots: number;
  readonly order: Int32Array;
  /** For pivot p: its later neighbours are `neighbour[first[p] … first[p + 1])`, values in `slot`. */
  readonly first: Int32Array;
  readonly neighbour: Int32Array;
  readonly slot: Int32Array;
  /** Slot that receives the update of each neighbour pair (i < k), in pivot order. */
  readonly pairSlot: Int32Array;
}

export function planElimination(size: number, edges: readonly (readonly [number, number])[]): Elimination {
  const adjacency: Map<number, number>[] = Array.from({ length: size }, () => new Map());
  let slots = 0;
  const slotFor = (a: number, b: number) => {
    let s = adjacency[a].get(b);
    if (s === undefined) {
      s = slots++;
      adjacency[a].set(b, s);
      adjacency[b].set(a, s);
    }
    return s;
  };
  const edgeSlot = Int32Array.from(edges, ([a, b]) => slotFor(a, b));
  const done = new Uint8Array(size);
  const order = new Int32Array(size);
  const first = new Int32Array(size + 1);
  const neighbour: number[] = [];
  const slot: number[] = [];
  const pairSlot: number[] = [];
  for (let n = 0; n < size; n++) {
    let pivot = -1;
    for (let i = 0; i < size; i++) if (!done[i] && (pivot < 0 || adjacency[i].size < adjacency[pivot].size)) pivot = i;
    done[pivot] = 1;
    order[n] = pivot;
    first[n] = neighbour.length;
    const near = [...adjacency[pivot].keys()];
    for (const [i, a] of near.entries()) {
      neighbour.push(a);
      slot.push(adjacency[pivot].get(a) as number);
      adjacency[a].delete(pivot);
      for (let k = i + 1; k < near.length; k++) pairSlot.push(slotFor(a, near[k]));
    }
  }
  first[size] = neighbour.length;
  return {
    size,
    edgeSlot,
    slots,
    order,
    first,
    neighbour: Int32Array.from(neighbour),
    slot: Int32Array.from(slot),
    pairSlot: Int32Array.from(pairSlot),
  };
}

/**
 * Factors A in place: `diagonal` and `values` (off-diagonal entries by slot, fill slots zero) become
 * D and the unscaled L of A = L D Lᵀ. A must be symmetric positive definite.
 */
export function factorSparse(e: Elimination, diagonal: Float64Array, values: Float64Array): void {
  let pair = 0;
  for (let n = 0; n < e.size; n++) {
    const p = e.order[n];
    const end = e.first[n + 1];
    for (let i = e.first[n]; i < end; i++) {
      const v = values[e.slot[i]];
      const factor = v / diagonal[p];
      diagonal[e.neighbour[i]] -= factor * v;
      for (let k = i + 1; k < end; k++) values[e.pairSlot[pair++]] -= factor * values[e.slot[k]];
    }
  }
}

/** Solves A x = b with the factors of `factorSparse`; `b` becomes x. */
export function solveSparse(e: Elimination, diagonal: Float64Array, values: Float64Array, b: Float64Array): void {
  const { order, first, neighbour, slot } = e;
  for (let n = 0; n < e.size; n++) {
    const p = order[n];
    const scaled = b[p] / diagonal[p];
    for (let i = first[n]; i < first[n + 1]; i++) b[neighbour[i]] -= values[slot[i]] * scaled;
  }
  for (let n = e.size - 1; n >= 0; n--) {
    const p = order[n];
    let sum = b[p];
    for (let i = first[n]; i < first[n + 1]; i++) sum -= values[slot[i]] * b[neighbour[i]];
    b[p] = sum / diagonal[p];
  }
}
