/**
 * The heat kernel: one Douglas–Gunn alternating-direction step (theta = 1/2) on a tensor grid.
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
 * Arrays are Float64Array, layers × ny × nx (nx padded to even), row-major, layer 0 on top, with a
 * guard of eight values in front and at least eight rows of zeros behind. GX[k] is the conductance
 * (W/K) from cell k to k + 1, GY to the next row, GZ to the next layer. H is the conductance to the
 * surroundings, S the constant power (W), including H·T_surroundings.
 */
import { kernelWasmBase64 } from './kernelWasm.generated.ts';

export type KernelKind = 'wasm' | 'ts';

const NAMES = ['T', 'D', 'GX', 'GY', 'GZ', 'XM', 'XE', 'XC', 'YM', 'YE', 'YC', 'ZM', 'ZE', 'ZC', 'H', 'S'] as const;
type ArrayName = (typeof NAMES)[number];

export interface GridKernel extends Record<ArrayName, Float64Array> {
  readonly kind: KernelKind;
  /** Padded row length (even), rows per layer, layers. */
  readonly nx: number;
  readonly ny: number;
  readonly nl: number;
  step(count: number): void;
  /** Sum of H·T over all cells, W. */
  lossRate(): number;
}

interface WasmExports {
  configure(base: number, slot: number, nx: number, ny: number, nl: number): void;
  step(count: number): void;
  lossRate(): number;
}

const GUARD = 8;
/** The kernel's own variables lie below, bytes. */
const BASE = 1024;

/** Row pairs share interleaved x coefficients: index of row r, column i. */
function xIndex(nx: number, row: number, i: number): number {
  return ((row >> 1) * nx + i) * 2 + (row & 1);
}

function layout(nx: number, ny: number, nl: number) {
  const paddedRows = Math.ceil((ny * nl) / 8) * 8;
  const slot = GUARD + paddedRows * nx + GUARD;
  return { slot, scratch: nx * 8 };
}

/** Most memory a run may take, bytes. */
export const MEMORY_LIMIT = 64e6;

/** Memory of a kernel of `nx × ny × nl` cells, bytes (128 a cell, and a little). */
export function kernelBytes(nx: number, ny: number, nl: number): number {
  const { slot, scratch } = layout(nx + (nx & 1), ny, nl);
  return BASE + (slot * NAMES.length + scratch + GUARD) * 8;
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
 * Makes a kernel for `nx × ny × nl` cells; `nx` is padded to even, padded cells are isolated.
 * One instance serves one run: memory is sized here, before any view is made.
 */
export function createGridKernel(kind: KernelKind, nx: number, ny: number, nl: number): GridKernel {
  const even = nx + (nx & 1);
  const { slot } = layout(even, ny, nl);
  const bytes = kernelBytes(nx, ny, nl);
  let buffer: ArrayBuffer;
  let wasm: WasmExports | undefined;
  if (kind === 'wasm') {
    const memory = new WebAssembly.Memory({ initial: Math.ceil(bytes / 65536) + 1 });
    const instance = new WebAssembly.Instance(compile(), { env: { memory } });
    wasm = instance.exports as unknown as WasmExports;
    wasm.configure(BASE + GUARD * 8, slot * 8, even, ny, nl);
    buffer = memory.buffer as ArrayBuffer;
  } else buffer = new ArrayBuffer(bytes);
  const arrays = Object.fromEntries(
    NAMES.map((name, i) => [name, new Float64Array(buffer, BASE + (slot * i + GUARD) * 8, slot - GUARD)]),
  ) as Record<ArrayName, Float64Array>;
  const geometry = { kind, nx: even, ny, nl, ...arrays };
  if (wasm) {
    const { step, lossRate } = wasm;
    return { ...geometry, step, lossRate };
  }
  return referenceKernel(geometry);
}

/** The plain TypeScript twin of the WebAssembly kernel: same order of operations, same bits. */
function referenceKernel(k: Omit<GridKernel, 'step' | 'lossRate'>): GridKernel {
  const { nx, ny, nl, T, D, GX, GY, GZ, XM, XE, XC, YM, YE, YC, ZM, ZE, ZC, H, S } = k;
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
            GY[c] * (T[c + dn] - t) +
            GY[c - up] * (T[c - up] - t) +
            GZ[c] * (T[c + zd] - t) +
            GZ[c - zu] * (T[c - zu] - t) +
            GX[c] * (T[c + 1] - t) +
            west +
            (S[c] - H[c] * t);
        }
      }
  }

  function sweepX() {
    for (let r = 0; r < ny * nl; r++) {
      const o = r * nx;
      let p = 0;
      for (let i = 0; i < nx; i++) {
        const q = xIndex(nx, r, i);
        p = D[o + i] * XM[q] + XE[q] * p;
        D[o + i] = p;
      }
      p = 0;
      for (let i = nx - 1; i >= 0; i--) {
        p = D[o + i] + XC[xIndex(nx, r, i)] * p;
        D[o + i] = p;
      }
    }
  }

  function sweepY() {
    for (let l = 0; l < nl; l++) {
      const first = l * plane;
      const last = first + plane - nx;
      for (let c = first; c < first + nx; c++) D[c] = D[c] * YM[c];
      for (let c = first + nx; c < last + nx; c++) D[c] = D[c] * YM[c] + YE[c] * D[c - nx];
      for (let c = last - 1; c >= first; c--) D[c] = D[c] + YC[c] * D[c + nx];
    }
  }

  function sweepZ() {
    for (let c = 0; c < plane; c++) D[c] = D[c] * ZM[c];
    for (let c = plane; c < total; c++) D[c] = D[c] * ZM[c] + ZE[c] * D[c - plane];
    for (let c = total - plane; c < total; c++) T[c] = T[c] + D[c];
    for (let c = total - plane - 1; c >= 0; c--) {
      const d = D[c] + ZC[c] * D[c + plane];
      D[c] = d;
      T[c] = T[c] + d;
    }
  }

  return {
    ...k,
    step(count) {
      for (let n = 0; n < count; n++) {
        residual();
        sweepX();
        sweepY();
        sweepZ();
      }
    },
    lossRate() {
      let even = 0;
      let odd = 0;
      for (let c = 0; c < total; c += 2) {
        even += H[c] * T[c];
        odd += H[c + 1] * T[c + 1];
      }
      return even + odd;
    },
  };
}

/**
 * Prepares the Thomas factors for a step of `dt` seconds from the conductances GX, GY, GZ, H and
 * the cell capacities `capacity` (J/K, same layout). `only: 'z'` renews the vertical sweep alone,
 * for when nothing but H has changed.
 */
export function factorise(k: GridKernel, capacity: Float64Array, dt: number, only: 'all' | 'z' = 'all'): void {
  const { nx, ny, nl } = k;
  const plane = nx * ny;
  for (let l = 0; l < nl; l++)
    for (let j = 0; j < ny; j++) {
      const row = l * ny + j;
      for (let i = 0; i < nx; i++) {
        const c = row * nx + i;
        const cdt = capacity[c] / dt;
        if (only === 'all') {
          const q = xIndex(nx, row, i);
          const gw = i > 0 ? 0.5 * k.GX[c - 1] : 0;
          const ge = i < nx - 1 ? 0.5 * k.GX[c] : 0;
          const mx = 1 / (cdt + gw + ge - (i > 0 ? gw * k.XC[xIndex(nx, row, i - 1)] : 0));
          k.XM[q] = mx;
          k.XE[q] = gw * mx;
          k.XC[q] = ge * mx;
          const gn = j > 0 ? 0.5 * k.GY[c - nx] : 0;
          const gs = j < ny - 1 ? 0.5 * k.GY[c] : 0;
          const my = 1 / (cdt + gn + gs - (j > 0 ? gn * k.YC[c - nx] : 0));
          k.YM[c] = cdt * my;
          k.YE[c] = gn * my;
          k.YC[c] = gs * my;
        }
        const gu = l > 0 ? 0.5 * k.GZ[c - plane] : 0;
        const gd = l < nl - 1 ? 0.5 * k.GZ[c] : 0;
        const mz = 1 / (cdt + gu + gd + 0.5 * k.H[c] - (l > 0 ? gu * k.ZC[c - plane] : 0));
        k.ZM[c] = cdt * mz;
        k.ZE[c] = gu * mz;
        k.ZC[c] = gd * mz;
      }
    }
}

/**
 * Answer of the column through cell `c` to one watt put into `c` during the step:
 * v = (C/dt + A_z/2)^-1 e_c, K/W, one value per layer from the top.
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
