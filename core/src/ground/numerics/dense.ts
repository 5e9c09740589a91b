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
