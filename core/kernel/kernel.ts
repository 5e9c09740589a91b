// One Douglas–Gunn step (theta = 1/2) on a tensor grid, f64x2 lanes.
// Layout, meaning of every array and the reference implementation: ../src/thermal/gridKernel.ts.
// Only + - * on precomputed coefficients, in the reference's order, so both give the same bits.

let rowLength: i32; // cells per row, even
let rows: i32; // rows per layer
let layers: i32;
let T: usize, D: usize, GX: usize, GY: usize, GZ: usize;
let XM: usize, XE: usize, XC: usize, YM: usize, YE: usize, YC: usize, ZM: usize, ZE: usize, ZC: usize;
let H: usize, S: usize, SCRATCH: usize;

/** Sets the geometry; arrays lie one after the other from `base`, `slot` bytes apart. */
export function configure(base: usize, slot: usize, nx: i32, ny: i32, nl: i32): void {
  rowLength = nx;
  rows = ny;
  layers = nl;
  T = base;
  D = base + slot;
  GX = base + 2 * slot;
  GY = base + 3 * slot;
  GZ = base + 4 * slot;
  XM = base + 5 * slot;
  XE = base + 6 * slot;
  XC = base + 7 * slot;
  YM = base + 8 * slot;
  YE = base + 9 * slot;
  YC = base + 10 * slot;
  ZM = base + 11 * slot;
  ZE = base + 12 * slot;
  ZC = base + 13 * slot;
  H = base + 14 * slot;
  S = base + 15 * slot;
  SCRATCH = base + 16 * slot;
}

function residual(): void {
  const row = <usize>rowLength << 3;
  const plane = row * <usize>rows;
  for (let l = 0; l < layers; l++) {
    const zu: usize = l > 0 ? plane : 0;
    const zd: usize = l < layers - 1 ? plane : 0;
    for (let j = 0; j < rows; j++) {
      const up: usize = j > 0 ? row : 0;
      const dn: usize = j < rows - 1 ? row : 0;
      const start = <usize>(l * rows + j) * row;
      for (let k = start; k < start + row; k += 16) {
        const c = v128.load(T + k);
        let d = f64x2.mul(v128.load(GY + k), f64x2.sub(v128.load(T + k + dn), c));
        d = f64x2.add(d, f64x2.mul(v128.load(GY + k - up), f64x2.sub(v128.load(T + k - up), c)));
        d = f64x2.add(d, f64x2.mul(v128.load(GZ + k), f64x2.sub(v128.load(T + k + zd), c)));
        d = f64x2.add(d, f64x2.mul(v128.load(GZ + k - zu), f64x2.sub(v128.load(T + k - zu), c)));
        d = f64x2.add(d, f64x2.mul(v128.load(GX + k), f64x2.sub(v128.load(T + k + 8), c)));
        d = f64x2.add(d, f64x2.mul(v128.load(GX + k - 8), f64x2.sub(v128.load(T + k - 8), c)));
        d = f64x2.add(d, f64x2.sub(v128.load(S + k), f64x2.mul(v128.load(H + k), c)));
        v128.store(D + k, d);
      }
    }
  }
}

// Eight rows at a time as four lane pairs: four independent recurrences hide the latency.
// x coefficients are stored lane-interleaved per row pair, so only D is transposed.
function sweepX(): void {
  const row = <usize>rowLength << 3;
  const pair = row << 1;
  const groups = (rows * layers + 7) >> 3;
  for (let g = 0; g < groups; g++) {
    const q = <usize>g * (row << 3);
    let p0 = f64x2.splat(0);
    let p1 = p0, p2 = p0, p3 = p0;
    for (let i: usize = 0; i < row; i += 16) {
      let a = v128.load(D + q + i);
      let b = v128.load(D + q + row + i);
      const lo0 = v128.shuffle<f64>(a, b, 0, 2), hi0 = v128.shuffle<f64>(a, b, 1, 3);
      a = v128.load(D + q + pair + i);
      b = v128.load(D + q + pair + row + i);
      const lo1 = v128.shuffle<f64>(a, b, 0, 2), hi1 = v128.shuffle<f64>(a, b, 1, 3);
      a = v128.load(D + q + 2 * pair + i);
      b = v128.load(D + q + 2 * pair + row + i);
      const lo2 = v128.shuffle<f64>(a, b, 0, 2), hi2 = v128.shuffle<f64>(a, b, 1, 3);
      a = v128.load(D + q + 3 * pair + i);
      b = v128.load(D + q + 3 * pair + row + i);
      const lo3 = v128.shuffle<f64>(a, b, 0, 2), hi3 = v128.shuffle<f64>(a, b, 1, 3);
      const k = q + (i << 1);
      const w = SCRATCH + (i << 3);
      p0 = f64x2.add(f64x2.mul(lo0, v128.load(XM + k)), f64x2.mul(v128.load(XE + k), p0));
      p1 = f64x2.add(f64x2.mul(lo1, v128.load(XM + k + pair)), f64x2.mul(v128.load(XE + k + pair), p1));
      p2 = f64x2.add(f64x2.mul(lo2, v128.load(XM + k + 2 * pair)), f64x2.mul(v128.load(XE + k + 2 * pair), p2));
      p3 = f64x2.add(f64x2.mul(lo3, v128.load(XM + k + 3 * pair)), f64x2.mul(v128.load(XE + k + 3 * pair), p3));
      v128.store(w, p0);
      v128.store(w, p1, 16);
      v128.store(w, p2, 32);
      v128.store(w, p3, 48);
      p0 = f64x2.add(f64x2.mul(hi0, v128.load(XM + k, 16)), f64x2.mul(v128.load(XE + k, 16), p0));
      p1 = f64x2.add(f64x2.mul(hi1, v128.load(XM + k + pair, 16)), f64x2.mul(v128.load(XE + k + pair, 16), p1));
      p2 = f64x2.add(f64x2.mul(hi2, v128.load(XM + k + 2 * pair, 16)), f64x2.mul(v128.load(XE + k + 2 * pair, 16), p2));
      p3 = f64x2.add(f64x2.mul(hi3, v128.load(XM + k + 3 * pair, 16)), f64x2.mul(v128.load(XE + k + 3 * pair, 16), p3));
      v128.store(w, p0, 64);
      v128.store(w, p1, 80);
      v128.store(w, p2, 96);
      v128.store(w, p3, 112);
    }
    p0 = p1 = p2 = p3 = f64x2.splat(0);
    for (let i: usize = row; i > 0; ) {
      i -= 16;
      const k = q + (i << 1);
      const w = SCRATCH + (i << 3);
      const h0 = (p0 = f64x2.add(v128.load(w, 64), f64x2.mul(v128.load(XC + k, 16), p0)));
      const h1 = (p1 = f64x2.add(v128.load(w, 80), f64x2.mul(v128.load(XC + k + pair, 16), p1)));
      const h2 = (p2 = f64x2.add(v128.load(w, 96), f64x2.mul(v128.load(XC + k + 2 * pair, 16), p2)));
      const h3 = (p3 = f64x2.add(v128.load(w, 112), f64x2.mul(v128.load(XC + k + 3 * pair, 16), p3)));
      p0 = f64x2.add(v128.load(w), f64x2.mul(v128.load(XC + k), p0));
      p1 = f64x2.add(v128.load(w, 16), f64x2.mul(v128.load(XC + k + pair), p1));
      p2 = f64x2.add(v128.load(w, 32), f64x2.mul(v128.load(XC + k + 2 * pair), p2));
      p3 = f64x2.add(v128.load(w, 48), f64x2.mul(v128.load(XC + k + 3 * pair), p3));
      v128.store(D + q + i, v128.shuffle<f64>(p0, h0, 0, 2));
      v128.store(D + q + row + i, v128.shuffle<f64>(p0, h0, 1, 3));
      v128.store(D + q + pair + i, v128.shuffle<f64>(p1, h1, 0, 2));
      v128.store(D + q + pair + row + i, v128.shuffle<f64>(p1, h1, 1, 3));
      v128.store(D + q + 2 * pair + i, v128.shuffle<f64>(p2, h2, 0, 2));
      v128.store(D + q + 2 * pair + row + i, v128.shuffle<f64>(p2, h2, 1, 3));
      v128.store(D + q + 3 * pair + i, v128.shuffle<f64>(p3, h3, 0, 2));
      v128.store(D + q + 3 * pair + row + i, v128.shuffle<f64>(p3, h3, 1, 3));
    }
  }
}

function sweepY(): void {
  const row = <usize>rowLength << 3;
  for (let l = 0; l < layers; l++) {
    const first = <usize>(l * rows) * row;
    const last = first + <usize>(rows - 1) * row;
    for (let k = first; k < first + row; k += 16)
      v128.store(D + k, f64x2.mul(v128.load(D + k), v128.load(YM + k)));
    for (let k = first + row; k < last + row; k += 16)
      v128.store(D + k, f64x2.add(f64x2.mul(v128.load(D + k), v128.load(YM + k)), f64x2.mul(v128.load(YE + k), v128.load(D + k - row))));
    if (rows > 1)
      for (let k = last; k > first; ) {
        k -= 16;
        v128.store(D + k, f64x2.add(v128.load(D + k), f64x2.mul(v128.load(YC + k), v128.load(D + k + row))));
      }
  }
}

function sweepZ(): void {
  const row = <usize>rowLength << 3;
  const plane = row * <usize>rows;
  const bottom = <usize>(layers - 1) * plane;
  // column strips of one row stay in the first-level cache through all layers
  for (let o: usize = 0; o < plane; o += row) {
    for (let k = o; k < o + row; k += 16)
      v128.store(D + k, f64x2.mul(v128.load(D + k), v128.load(ZM + k)));
    for (let l: usize = plane; l <= bottom; l += plane)
      for (let k = l + o; k < l + o + row; k += 16)
        v128.store(D + k, f64x2.add(f64x2.mul(v128.load(D + k), v128.load(ZM + k)), f64x2.mul(v128.load(ZE + k), v128.load(D + k - plane))));
    for (let k = bottom + o; k < bottom + o + row; k += 16)
      v128.store(T + k, f64x2.add(v128.load(T + k), v128.load(D + k)));
    for (let l = bottom; l > 0; ) {
      l -= plane;
      for (let k = l + o; k < l + o + row; k += 16) {
        const d = f64x2.add(v128.load(D + k), f64x2.mul(v128.load(ZC + k), v128.load(D + k + plane)));
        v128.store(D + k, d);
        v128.store(T + k, f64x2.add(v128.load(T + k), d));
      }
    }
  }
}

/** Advances the grid by `count` steps. */
export function step(count: i32): void {
  for (let n = 0; n < count; n++) {
    residual();
    sweepX();
    sweepY();
    sweepZ();
  }
}

/** Sum of H*T over the cells (W): what leaves through the faces, less the constant part. */
export function lossRate(): f64 {
  const end = (<usize>(rowLength * rows * layers)) << 3;
  let sum = f64x2.splat(0);
  for (let k: usize = 0; k < end; k += 16) sum = f64x2.add(sum, f64x2.mul(v128.load(H + k), v128.load(T + k)));
  return f64x2.extract_lane(sum, 0) + f64x2.extract_lane(sum, 1);
}
