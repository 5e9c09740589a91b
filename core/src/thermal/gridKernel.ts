/**
 * The heat kernel: Douglas–Gunn alternating-direction steps on a tensor grid, here with theta = 1/2.
 *
 *   D                    = sum g (T_n - T) + S - H T            (W per cell, all at the old time)
 *   (C/dt + A_x/2) d1    = D
 *   (C/dt + A_y/2) d2    = (C/dt) d1
 *   (C/dt + A_z/2) d3    = (C/dt) d2,      T += d3
 *
 * Source: J. Douglas, J. E. Gunn, Numer. Math. 6 (1964) 428. The sweeps are Thomas solves with
 * factors prepared by `factorise`. Two implementations share this layout and order of operations:
 * WebAssembly (core/kernel/kernel.ts) and the reference below; in one engine they give equal bits.
 *
 * The order of the sweeps decides what is stable. x, y, z is so at any step where every layer is even in itself (A_x and A_y
 * commute). Copper that is uneven within a layer wants x, z, y: stable as long as the middle sweep is a weak one, below about
 * three times C/dt (found numerically, see docs/physics); what is stiffer goes as a link of its column (columns.ts).
 *
 * Temperatures and the residual are doubles. The change of one step, D, and the factors are doubles too, or singles for
 * runs in a hurry: a rounding is then 6e-8 of the change, not of the temperature, so a steady field stays as exact,
 * while half as many bytes go through the cache in twice as many lanes. Energy closes to about 1e-7 of the input then, and
 * worse on grids far stiffer than boards (conductance · dt many times the capacity), to rounding in doubles.
 *
 * Arrays are layers × ny × nx (nx padded to a multiple of four), row-major, layer 0 on top, doubles with a
 * guard of eight values in front and at least eight rows of zeros behind. GX[k] is the conductance
 * (W/K) from cell k to k + 1, GY to the next row, GZ to the next layer. H is the conductance to the
 * surroundings, S the constant power (W), including H·T_surroundings.
 */
import { kernelWasmBase64 } from './kernelWasm.generated.ts';

export type KernelKind = 'wasm' | 'ts';
/** Number type of the sweeps. */
export type Sweeps = 'double' | 'single';
/** Order of the sweeps: for layers that are even in themselves, for copper that is uneven within them. */
export type SweepOrder = 'xyz' | 'xzy';

const DOUBLES = ['T', 'S', 'H', 'GX', 'GY', 'GZ'] as const;
const REALS = ['D', 'XM', 'XE', 'XC', 'YM', 'YE', 'YC', 'ZM', 'ZE', 'ZC'] as const;
type Doubles = Record<(typeof DOUBLES)[number], Float64Array>;
type Reals = Record<(typeof REALS)[number], Float64Array | Float32Array>;

export interface GridKernel extends Doubles, Reals {
  readonly kind: KernelKind;
  readonly sweeps: Sweeps;
  /** Weight of the new time. */
  readonly theta: number;
  /** Padded row length (a multiple of four), rows per layer, layers. */
  readonly nx: number;
  readonly ny: number;
  readonly nl: number;
  step(count: number): void;
  /** A step in two halves: after `begin` D holds the change that links may still correct, `finish` brings it into T. */
  begin(): void;
  finish(): void;
}

interface WasmExports {
  configure(
    doubles: number,
    wide: number,
    reals: number,
    real: number,
    nx: number,
    ny: number,
    nl: number,
    uneven: boolean,
  ): void;
  stepDouble(count: number): void;
  beginDouble(): void;
  finishDouble(): void;
  stepSingle(count: number): void;
  beginSingle(): void;
  finishSingle(): void;
}

const GUARD = 8;
/** The kernel's own variables lie below, bytes. */
const BASE = 1024;

const bytesOf = (sweeps: Sweeps) => (sweeps === 'single' ? 4 : 8);

/** As many rows as fill a vector of sixteen bytes share interleaved x coefficients: index of row r, column i. */
function xIndex(sweeps: Sweeps, nx: number, row: number, i: number): number {
  const lanes = 16 / bytesOf(sweeps);
  return (Math.floor(row / lanes) * nx + i) * lanes + (row % lanes);
}

/** Row length of `nx` cells with its padding. */
export function paddedRow(nx: number): number {
  return Math.ceil(nx / 4) * 4;
}

/** Values per array, and where the reals of the sweeps begin and all ends, bytes; `nx` padded. */
function layout(nx: number, ny: number, nl: number, sweeps: Sweeps) {
  const paddedRows = Math.ceil((ny * nl) / 16) * 16;
  const slot = GUARD + paddedRows * nx + GUARD;
  const reals = BASE + slot * DOUBLES.length * 8;
  const scratch = reals + slot * REALS.length * bytesOf(sweeps);
  // four groups of rows, a vector for each column and one between
  return { slot, reals, end: scratch + 4 * (nx + 1) * 16 + 16 };
}

/** One half is of second order but rings where it is stiff; a little more lets that die away, for a first-order error of a twentieth of a step. */
const THETA: Record<SweepOrder, number> = { xyz: 0.5, xzy: 0.55 };

/** Heat into every cell, W: nothing feels it, but where it is cold no sweep falls into slow denormal numbers. */
const BREATH = 1e-25;

/** Most memory a run may take, bytes. */
export const MEMORY_LIMIT = 64e6;

/** Memory of a kernel of `nx × ny × nl` cells, bytes (128 a cell in doubles, 88 in singles, and a little). */
export function kernelBytes(nx: number, ny: number, nl: number, sweeps: Sweeps = 'double'): number {
  return layout(paddedRow(nx), ny, nl, sweeps).end;
}

let compiled: WebAssembly.Module | undefined;

function compile(): WebAssembly.Module {
  if (!compiled) {
    const text = atob(kernelWasmBase64);
    const bytes = new Uint8Array(text.length);
    for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
    compiled = new WebAssembly.Module(bytes);
  }
  return compiled;
}

/**
 * Makes a kernel for `nx × ny × nl` cells; `nx` is padded to a multiple of four, padded cells are isolated.
 * One instance serves one run: memory is sized here, before any view is made.
 */
export function createGridKernel(
  nx: number,
  ny: number,
  nl: number,
  { kind = 'wasm', sweeps = 'double', order = 'xyz' }: { kind?: KernelKind; sweeps?: Sweeps; order?: SweepOrder } = {},
): GridKernel {
  const padded = paddedRow(nx);
  const { slot, reals, end } = layout(padded, ny, nl, sweeps);
  const real = bytesOf(sweeps);
  let buffer: ArrayBuffer;
  let wasm: WasmExports | undefined;
  if (kind === 'wasm') {
    const memory = new WebAssembly.Memory({ initial: Math.ceil(end / 65536) });
    const instance = new WebAssembly.Instance(compile(), { env: { memory } });
    wasm = instance.exports as unknown as WasmExports;
    wasm.configure(BASE + GUARD * 8, slot * 8, reals, slot * real, padded, ny, nl, order === 'xzy');
    buffer = memory.buffer as ArrayBuffer;
  } else buffer = new ArrayBuffer(end);
  const RealArray = sweeps === 'single' ? Float32Array : Float64Array;
  const arrays = {
    ...Object.fromEntries(
      DOUBLES.map((name, i) => [name, new Float64Array(buffer, BASE + (slot * i + GUARD) * 8, slot - GUARD)]),
    ),
    ...Object.fromEntries(REALS.map((name, i) => [name, new RealArray(buffer, reals + slot * i * real, slot)])),
  } as unknown as Doubles & Reals;
  const geometry = { kind, sweeps, theta: THETA[order], nx: padded, ny, nl, ...arrays };
  if (wasm) {
    return sweeps === 'single'
      ? { ...geometry, step: wasm.stepSingle, begin: wasm.beginSingle, finish: wasm.finishSingle }
      : { ...geometry, step: wasm.stepDouble, begin: wasm.beginDouble, finish: wasm.finishDouble };
  }
  return referenceKernel(geometry, order);
}

/** The plain TypeScript twin of the WebAssembly kernel: same order of operations, same bits. */
function referenceKernel(k: Omit<GridKernel, 'step' | 'begin' | 'finish'>, order: SweepOrder): GridKernel {
  const { sweeps, nx, ny, nl, T, D, GX, GY, GZ, XM, XE, XC, YM, YE, YC, ZM, ZE, ZC, H, S } = k;
  const plane = nx * ny;
  const total = plane * nl;

  function residual() {
    for (let l = 0; l < nl; l++)
      for (let j = 0; j < ny; j++) {
        const up = j > 0 ? nx : 0;
        const dn = j < ny - 1 ? nx : 0;
        const zu = l > 0 ? plane : 0;
        const zd = l < nl - 1 ? plane : 0;
        const start = (l * ny + j) * nx;
        for (let c = start; c < start + nx; c++) {
          const t = T[c];
          // the cell in front of the first one lies in the guard, which a typed array cannot index
          const west = c > 0 ? GX[c - 1] * (T[c - 1] - t) : 0;
          D[c] =
            BREATH +
            (GY[c] * (T[c + dn] - t) +
              GY[c - up] * (T[c - up] - t) +
              GZ[c] * (T[c + zd] - t) +
              GZ[c - zu] * (T[c - zu] - t) +
              GX[c] * (T[c + 1] - t) +
              west +
              (S[c] - H[c] * t));
        }
      }
  }

  // singles: every product and sum is rounded, as in the lanes
  const round = sweeps === 'single' ? Math.fround : (x: number) => x;
  const plus = (a: number, b: number, c: number) => round(a + round(b * c));

  function sweepX() {
    for (let r = 0; r < ny * nl; r++) {
      const o = r * nx;
      let p = 0;
      for (let i = 0; i < nx; i++) {
        const q = xIndex(sweeps, nx, r, i);
        p = plus(round(D[o + i] * XM[q]), XE[q], p);
        D[o + i] = p;
      }
      p = 0;
      for (let i = nx - 1; i >= 0; i--) {
        p = plus(D[o + i], XC[xIndex(sweeps, nx, r, i)], p);
        D[o + i] = p;
      }
    }
  }

  function sweepY() {
    for (let l = 0; l < nl; l++) {
      const first = l * plane;
      const last = first + plane - nx;
      for (let c = first; c < first + nx; c++) D[c] = D[c] * YM[c];
      for (let c = first + nx; c < last + nx; c++) D[c] = plus(round(D[c] * YM[c]), YE[c], D[c - nx]);
      for (let c = last - 1; c >= first; c--) D[c] = plus(D[c], YC[c], D[c + nx]);
    }
  }

  function sweepZ() {
    for (let c = 0; c < plane; c++) D[c] = D[c] * ZM[c];
    for (let c = plane; c < total; c++) D[c] = plus(round(D[c] * ZM[c]), ZE[c], D[c - plane]);
    for (let c = total - plane - 1; c >= 0; c--) D[c] = plus(D[c], ZC[c], D[c + plane]);
  }

  function begin() {
    residual();
    sweepX();
    if (order === 'xyz') sweepY();
    sweepZ();
  }

  function finish() {
    if (order === 'xzy') sweepY();
    for (let c = 0; c < total; c++) T[c] = T[c] + D[c];
  }

  return {
    ...k,
    begin,
    finish,
    step(count) {
      for (let n = 0; n < count; n++) {
        begin();
        finish();
      }
    },
  };
}

/**
 * Prepares the Thomas factors for a step of `dt` seconds from the conductances GX, GY, GZ, H and
 * the cell capacities `capacity` (J/K, same layout). `only: 'z'` renews the vertical sweep alone,
 * for when nothing but H has changed.
 */
export function factorise(k: GridKernel, capacity: Float64Array, dt: number, only: 'all' | 'z' = 'all'): void {
  if (only === 'all') factoriseLayers(k, capacity, dt);
  const { theta, nl, GZ, H, ZM, ZE, ZC } = k;
  const plane = k.nx * k.ny;
  for (let l = 0, c = 0; l < nl; l++)
    for (const end = c + plane; c < end; c++) {
      const cdt = capacity[c] / dt;
      const gu = l > 0 ? theta * GZ[c - plane] : 0;
      const gd = l < nl - 1 ? theta * GZ[c] : 0;
      const m = 1 / (cdt + gu + gd + theta * H[c] - (l > 0 ? gu * ZC[c - plane] : 0));
      ZM[c] = cdt * m;
      ZE[c] = gu * m;
      ZC[c] = gd * m;
    }
}

/** The factors of the sweeps within layers. */
function factoriseLayers(k: GridKernel, capacity: Float64Array, dt: number): void {
  const { sweeps, theta, nx, ny, nl, GX, GY, XM, XE, XC, YM, YE, YC } = k;
  for (let row = 0, c = 0; row < ny * nl; row++) {
    const j = row % ny;
    for (let i = 0; i < nx; i++, c++) {
      const cdt = capacity[c] / dt;
      const q = xIndex(sweeps, nx, row, i);
      const gw = i > 0 ? theta * GX[c - 1] : 0;
      const ge = i < nx - 1 ? theta * GX[c] : 0;
      const mx = 1 / (cdt + gw + ge - (i > 0 ? gw * XC[xIndex(sweeps, nx, row, i - 1)] : 0));
      XM[q] = mx;
      XE[q] = gw * mx;
      XC[q] = ge * mx;
      const gn = j > 0 ? theta * GY[c - nx] : 0;
      const gs = j < ny - 1 ? theta * GY[c] : 0;
      const my = 1 / (cdt + gn + gs - (j > 0 ? gn * YC[c - nx] : 0));
      YM[c] = cdt * my;
      YE[c] = gn * my;
      YC[c] = gs * my;
    }
  }
}

/**
 * Answer of the column through cell `c` to one watt put into `c` during the step:
 * v = (C/dt + theta·A_z)^-1 e_c, K/W, one value per layer from the top.
 */
export function columnResponse(k: GridKernel, capacity: Float64Array, dt: number, c: number, out: Float64Array): void {
  const plane = k.nx * k.ny;
  const column = c % plane;
  for (let l = 0; l < k.nl; l++) {
    const q = column + l * plane;
    const load = q === c ? (k.ZM[q] * dt) / capacity[q] : 0;
    out[l] = load + (l > 0 ? k.ZE[q] * out[l - 1] : 0);
  }
  for (let l = k.nl - 2; l >= 0; l--) out[l] += k.ZC[column + l * plane] * out[l + 1];
}
