/**
 * The uniform yardstick: 60 × 60 mm board, 0.5 mm cells, 4 layers (57 600 cells), 120 s at 50 ms.
 * The same case as the C program used by developers, so a ratio of both is meaningful.
 */
import {
  createGridKernel,
  factorise,
  type GridKernel,
  type KernelKind,
  type SweepOrder,
  type Sweeps,
} from './gridKernel.ts';

const NX = 120;
const NY = 120;
const NL = 4;
export const YARDSTICK_CELLS = NX * NY * NL;

/** Builds the yardstick case at 20 °C, ready to step by `dt` seconds. */
export function yardstickCase(
  dt: number,
  options: { kind?: KernelKind; sweeps?: Sweeps; order?: SweepOrder } = {},
): GridKernel {
  const k = createGridKernel(NX, NY, NL, options);
  const dx = 0.5e-3;
  const dz = 0.4e-3;
  const coverage = [0.35, 0.9, 0.9, 0.35];
  const capacity = new Float64Array(YARDSTICK_CELLS);
  for (let l = 0; l < NL; l++) {
    const phi = coverage[l];
    const foil = 35e-6 / dz;
    const rhoc = (1 - foil * phi) * 2.15e6 + foil * phi * 3.45e6;
    const kxy = 0.85 + (390 - 0.85) * foil * (0.5 * phi + 0.5 * phi ** 4);
    for (let j = 0; j < NY; j++)
      for (let i = 0; i < NX; i++) {
        const c = (l * NY + j) * NX + i;
        const x = (i + 0.5) * dx - (NX * dx) / 2;
        const y = (j + 0.5) * dx - (NY * dx) / 2;
        const kz = 0.35 + (Math.abs(x) < 4e-3 && Math.abs(y) < 4e-3 ? 8 : 0);
        capacity[c] = rhoc * dx * dx * dz;
        k.GX[c] = i < NX - 1 ? kxy * dz : 0;
        k.GY[c] = j < NY - 1 ? kxy * dz : 0;
        k.GZ[c] = l < NL - 1 ? (dx * dx * kz) / dz : 0;
        k.T[c] = 20;
        if (l === 0) {
          const r = Math.hypot(x, y);
          const h = 25 + 300 / (1 + (r / 8e-3) ** 2);
          const air = 20 + 360 / (1 + (r / 6e-3) ** 4) ** 0.2;
          const spot = Math.abs(x - 6e-3) < 1e-3 && Math.abs(y) < 1e-3 ? 0.1 : 0;
          k.H[c] = h * dx * dx;
          k.S[c] = h * dx * dx * air + spot;
        } else if (l === NL - 1) {
          k.H[c] = 18 * dx * dx;
          k.S[c] = 20 * 18 * dx * dx;
        }
      }
  }
  factorise(k, capacity, dt);
  return k;
}

export interface YardstickResult {
  ns_per_cell_step: number;
  cells: number;
  steps: number;
  best_s: number;
  median_s: number;
  kernel: KernelKind;
}

/** Times the yardstick, as planning runs sweep; `now` returns milliseconds (the core has no clock of its own). */
export function runYardstick(
  now: () => number,
  { kind = 'wasm', sweeps = 'single', repeats = 3 }: { kind?: KernelKind; sweeps?: Sweeps; repeats?: number } = {},
): YardstickResult {
  const dt = 0.05;
  const steps = Math.round(120 / dt);
  const times: number[] = [];
  for (let n = 0; n < repeats; n++) {
    const k = yardstickCase(dt, { kind, sweeps, order: 'xzy' });
    const start = now();
    k.step(steps);
    times.push((now() - start) / 1000);
  }
  times.sort((a, b) => a - b);
  const best_s = times[0];
  return {
    ns_per_cell_step: (best_s / steps / YARDSTICK_CELLS) * 1e9,
    cells: YARDSTICK_CELLS,
    steps,
    best_s,
    median_s: times[Math.floor(repeats / 2)],
    kernel: kind,
  };
}
