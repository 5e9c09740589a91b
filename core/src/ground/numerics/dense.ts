/** Inverse of a small dense matrix (n × n, row-major) by Gauss–Jordan with row exchange. Throws where it is singular. */
export function invert(matrix: Float64Array, n: number): Float64Array {
  const a = matrix.slice();
  const inverse = new Float64Array(n * n);
  for (let i = 0; i < n; i++) inverse[i * n + i] = 1;
  for (let c = 0; c < n; c++) {
    let p = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(a[r * n + c]) > Math.abs(a[p * n + c])) p = r;
    const pivot = a[p * n + c];
    if (!(Math.abs(pivot) > 0)) throw new Error('The matrix is singular.');
    for (const m of [a, inverse])
      for (let k = 0; k < n; k++) {
        const v = m[p * n + k] / pivot;
        m[p * n + k] = m[c * n + k];
        m[c * n + k] = v;
      }
    for (let r = 0; r < n; r++) {
      const f = a[r * n + c];
      if (r === c || f === 0) continue;
      for (const m of [a, inverse]) for (let k = 0; k < n; k++) m[r * n + k] -= f * m[c * n + k];
    }
  }
  return inverse;
}

/**
 * Inverse of a small symmetric tridiagonal matrix (n × n, row-major) from the factors of its elimination from the top: `pivot` holds the reciprocals of the
 * pivots, `down` how much of the next unknown's value a row takes over (minus the element beside the pivot, over the pivot). Writes into `out`.
 */
export function invertTridiagonal(pivot: Float64Array, down: Float64Array, out: Float64Array): void {
  const n = pivot.length;
  for (let l = n - 1; l >= 0; l--) {
    for (let j = l + 1; j < n; j++) out[l * n + j] = out[j * n + l] = down[l] * out[(l + 1) * n + j];
    out[l * n + l] = pivot[l] + (l < n - 1 ? down[l] * out[l * n + l + 1] : 0);
  }
}
