// Douglas–Gunn steps (theta = 1/2) on a tensor grid, sweeps in doubles (two lanes) or in singles (four).
// Layout, meaning of every array and the reference implementation: ../src/thermal/gridKernel.ts.
// Only + - * on precomputed coefficients, in the reference's order, so both give the same bits.
// Bases are copied into locals before a loop: a global would be read anew for every cell.

// x, y, z for layers that are even, x, z, y for copper that is uneven within a layer
let uneven: bool;
let rowLength: i32; // cells per row, a multiple of four
let rows: i32; // rows per layer
let layers: i32;
// doubles
let T: usize, S: usize, H: usize, GX: usize, GY: usize, GZ: usize;
// reals of the sweeps, doubles or singles
let D: usize, XM: usize, XE: usize, XC: usize, YM: usize, YE: usize, YC: usize, ZM: usize, ZE: usize, ZC: usize;
let SCRATCH: usize;

/** Sets geometry and order; the arrays lie one after the other, `wide` bytes apart the doubles, `real` bytes those of the sweeps, then scratch. */
export function configure(doubles: usize, wide: usize, reals: usize, real: usize, nx: i32, ny: i32, nl: i32, isUneven: bool): void {
  uneven = isUneven;
  rowLength = nx;
  rows = ny;
  layers = nl;
  T = doubles;
  S = doubles + wide;
  H = doubles + 2 * wide;
  GX = doubles + 3 * wide;
  GY = doubles + 4 * wide;
  GZ = doubles + 5 * wide;
  D = reals;
  XM = reals + real;
  XE = reals + 2 * real;
  XC = reals + 3 * real;
  YM = reals + 4 * real;
  YE = reals + 5 * real;
  YC = reals + 6 * real;
  ZM = reals + 7 * real;
  ZE = reals + 8 * real;
  ZC = reals + 9 * real;
  SCRATCH = reals + 10 * real;
}

/** So little heat into every cell that nothing feels it, yet where it is cold no sweep falls into slow denormal numbers, W. */
const BREATH: f64 = 1e-25;

/** Bytes of the sweeps' reals per byte of doubles, as a shift to the right. */
@inline
function narrow<R>(): usize {
  return sizeof<R>() == 4 ? 1 : 0;
}

/** a + b·c, rounded twice. */
@inline
function plus<R>(a: v128, b: v128, c: v128): v128 {
  return v128.add<R>(a, v128.mul<R>(b, c));
}

function residual<R>(): void {
  const t = T, gx = GX, gy = GY, gz = GZ, h = H, s = S, out = D;
  const breath = f64x2.splat(BREATH);
  const row = <usize>rowLength << 3;
  const plane = row * <usize>rows;
  for (let l = 0; l < layers; l++) {
    const zu: usize = l > 0 ? plane : 0;
    const zd: usize = l < layers - 1 ? plane : 0;
    for (let j = 0; j < rows; j++) {
      const up: usize = j > 0 ? row : 0;
      const dn: usize = j < rows - 1 ? row : 0;
      const start = <usize>(l * rows + j) * row;
      let west = f64x2.splat(0);
      for (let k = start; k < start + row; k += 16) {
        const c = v128.load(t + k);
        let d = f64x2.mul(v128.load(gy + k), f64x2.sub(v128.load(t + k + dn), c));
        d = plus<f64>(d, v128.load(gy + k - up), f64x2.sub(v128.load(t + k - up), c));
        d = plus<f64>(d, v128.load(gz + k), f64x2.sub(v128.load(t + k + zd), c));
        d = plus<f64>(d, v128.load(gz + k - zu), f64x2.sub(v128.load(t + k - zu), c));
        // what goes east comes to the next cell from the west
        const east = f64x2.mul(v128.load(gx + k), f64x2.sub(v128.load(t + k + 8), c));
        d = f64x2.add(d, east);
        d = f64x2.sub(d, v128.shuffle<i64>(west, east, 1, 2));
        west = east;
        d = f64x2.add(d, f64x2.sub(v128.load(s + k), f64x2.mul(v128.load(h + k), c)));
        d = f64x2.add(d, breath);
        if (sizeof<R>() == 4) v128.store64_lane(out + (k >> 1), f32x4.demote_f64x2_zero(d), 0);
        else v128.store(out + k, d);
      }
    }
  }
}

// Rows go in four groups of as many as there are lanes: four independent recurrences hide the latency.
// x coefficients are stored lane-interleaved per group, so only D is transposed. The scratch of
// every group begins after sixteen zero bytes, which also end the group before.
function sweepX<R>(): void {
  const d = D, xm = XM, xe = XE, xc = XC, scratch = SCRATCH;
  const row = <usize>rowLength * sizeof<R>();
  const lanes = 16 / sizeof<R>();
  const group = row * lanes;
  const step = group + 16;
  const turns = (<usize>(rows * layers) + 4 * lanes - 1) / (4 * lanes);
  for (let turn: usize = 0; turn < turns; turn++) {
    const first = turn * group * 4;
    for (let i: usize = 0; i < row; i += 16)
      for (let s: usize = 0; s < 4; s++) {
        const q = d + first + s * group + i;
        const m = xm + first + s * group + i * lanes;
        const e = xe + first + s * group + i * lanes;
        const w = scratch + s * step + i * lanes;
        let p = v128.load(w);
        if (sizeof<R>() == 4) {
          const a = v128.load(q), b = v128.load(q + row), c = v128.load(q + 2 * row), f = v128.load(q + 3 * row);
          const ab0 = v128.shuffle<f32>(a, b, 0, 4, 1, 5), ab1 = v128.shuffle<f32>(a, b, 2, 6, 3, 7);
          const cf0 = v128.shuffle<f32>(c, f, 0, 4, 1, 5), cf1 = v128.shuffle<f32>(c, f, 2, 6, 3, 7);
          p = plus<R>(f32x4.mul(v128.shuffle<i64>(ab0, cf0, 0, 2), v128.load(m)), v128.load(e), p);
          v128.store(w, p, 16);
          p = plus<R>(f32x4.mul(v128.shuffle<i64>(ab0, cf0, 1, 3), v128.load(m, 16)), v128.load(e, 16), p);
          v128.store(w, p, 32);
          p = plus<R>(f32x4.mul(v128.shuffle<i64>(ab1, cf1, 0, 2), v128.load(m, 32)), v128.load(e, 32), p);
          v128.store(w, p, 48);
          p = plus<R>(f32x4.mul(v128.shuffle<i64>(ab1, cf1, 1, 3), v128.load(m, 48)), v128.load(e, 48), p);
          v128.store(w, p, 64);
        } else {
          const a = v128.load(q), b = v128.load(q + row);
          p = plus<R>(f64x2.mul(v128.shuffle<i64>(a, b, 0, 2), v128.load(m)), v128.load(e), p);
          v128.store(w, p, 16);
          p = plus<R>(f64x2.mul(v128.shuffle<i64>(a, b, 1, 3), v128.load(m, 16)), v128.load(e, 16), p);
          v128.store(w, p, 32);
        }
      }
    for (let i: usize = row; i > 0; ) {
      i -= 16;
      for (let s: usize = 0; s < 4; s++) {
        const q = d + first + s * group + i;
        const c = xc + first + s * group + i * lanes;
        const w = scratch + s * step + i * lanes;
        if (sizeof<R>() == 4) {
          const p3 = plus<R>(v128.load(w, 64), v128.load(c, 48), v128.load(w, 80));
          const p2 = plus<R>(v128.load(w, 48), v128.load(c, 32), p3);
          const p1 = plus<R>(v128.load(w, 32), v128.load(c, 16), p2);
          const p0 = plus<R>(v128.load(w, 16), v128.load(c), p1);
          v128.store(w, p0, 16);
          const a = v128.shuffle<f32>(p0, p1, 0, 4, 1, 5), b = v128.shuffle<f32>(p0, p1, 2, 6, 3, 7);
          const e = v128.shuffle<f32>(p2, p3, 0, 4, 1, 5), f = v128.shuffle<f32>(p2, p3, 2, 6, 3, 7);
          v128.store(q, v128.shuffle<i64>(a, e, 0, 2));
          v128.store(q + row, v128.shuffle<i64>(a, e, 1, 3));
          v128.store(q + 2 * row, v128.shuffle<i64>(b, f, 0, 2));
          v128.store(q + 3 * row, v128.shuffle<i64>(b, f, 1, 3));
        } else {
          const p1 = plus<R>(v128.load(w, 32), v128.load(c, 16), v128.load(w, 48));
          const p0 = plus<R>(v128.load(w, 16), v128.load(c), p1);
          v128.store(w, p0, 16);
          v128.store(q, v128.shuffle<i64>(p0, p1, 0, 2));
          v128.store(q + row, v128.shuffle<i64>(p0, p1, 1, 3));
        }
      }
    }
  }
}

/** T += x for as many cells as there are lanes. */
@inline
function warm<R>(t: usize, x: v128): void {
  if (sizeof<R>() == 4) {
    v128.store(t, f64x2.add(v128.load(t), f64x2.promote_low_f32x4(x)));
    v128.store(t, f64x2.add(v128.load(t, 16), f64x2.promote_low_f32x4(v128.shuffle<i64>(x, x, 1, 1))), 16);
  } else v128.store(t, f64x2.add(v128.load(t), x));
}

/** `last`: the change is complete and goes into T. */
@inline
function sweepY<R>(last: bool): void {
  const t = T, d = D, ym = YM, ye = YE, yc = YC;
  const row = <usize>rowLength * sizeof<R>();
  for (let l = 0; l < layers; l++) {
    const first = <usize>(l * rows) * row;
    const end = first + <usize>(rows - 1) * row;
    for (let k = first; k < first + row; k += 16)
      v128.store(d + k, v128.mul<R>(v128.load(d + k), v128.load(ym + k)));
    for (let k = first + row; k < end + row; k += 16)
      v128.store(d + k, plus<R>(v128.mul<R>(v128.load(d + k), v128.load(ym + k)), v128.load(ye + k), v128.load(d + k - row)));
    if (last) for (let k = end; k < end + row; k += 16) warm<R>(t + (k << narrow<R>()), v128.load(d + k));
    if (rows > 1)
      for (let k = end; k > first; ) {
        k -= 16;
        const x = plus<R>(v128.load(d + k), v128.load(yc + k), v128.load(d + k + row));
        v128.store(d + k, x);
        if (last) warm<R>(t + (k << narrow<R>()), x);
      }
  }
}

@inline
function sweepZ<R>(last: bool): void {
  const t = T, d = D, zm = ZM, ze = ZE, zc = ZC;
  const row = <usize>rowLength * sizeof<R>();
  const plane = row * <usize>rows;
  const bottom = <usize>(layers - 1) * plane;
  // column strips of one row stay in the first-level cache through all layers
  for (let o: usize = 0; o < plane; o += row) {
    for (let k = o; k < o + row; k += 16)
      v128.store(d + k, v128.mul<R>(v128.load(d + k), v128.load(zm + k)));
    for (let l: usize = plane; l <= bottom; l += plane)
      for (let k = l + o; k < l + o + row; k += 16)
        v128.store(d + k, plus<R>(v128.mul<R>(v128.load(d + k), v128.load(zm + k)), v128.load(ze + k), v128.load(d + k - plane)));
    if (last) for (let k = bottom + o; k < bottom + o + row; k += 16) warm<R>(t + (k << narrow<R>()), v128.load(d + k));
    for (let l = bottom; l > 0; ) {
      l -= plane;
      for (let k = l + o; k < l + o + row; k += 16) {
        const x = plus<R>(v128.load(d + k), v128.load(zc + k), v128.load(d + k + plane));
        v128.store(d + k, x);
        if (last) warm<R>(t + (k << narrow<R>()), x);
      }
    }
  }
}

/** T += D. */
function add<R>(): void {
  const t = T, d = D;
  const end = <usize>(rowLength * rows * layers) * sizeof<R>();
  for (let k: usize = 0; k < end; k += 16) warm<R>(t + (k << narrow<R>()), v128.load(d + k));
}

function begin<R>(): void {
  residual<R>();
  sweepX<R>();
  if (!uneven) sweepY<R>(false);
  sweepZ<R>(false);
}

function finish<R>(): void {
  if (uneven) sweepY<R>(true);
  else add<R>();
}

function advance<R>(count: i32): void {
  for (let n = 0; n < count; n++) {
    if (uneven) {
      begin<R>();
      finish<R>();
    } else {
      residual<R>();
      sweepX<R>();
      sweepY<R>(false);
      sweepZ<R>(true);
    }
  }
}

/** Advances the grid by `count` steps, sweeping in doubles. */
export function stepDouble(count: i32): void {
  advance<f64>(count);
}

/** Advances the grid by `count` steps, sweeping in singles. */
export function stepSingle(count: i32): void {
  advance<f32>(count);
}

/** One step in two halves: after the first D is the change that links may still correct, the second brings it into T. */
export function beginDouble(): void {
  begin<f64>();
}
export function finishDouble(): void {
  finish<f64>();
}
export function beginSingle(): void {
  begin<f32>();
}
export function finishSingle(): void {
  finish<f32>();
}
