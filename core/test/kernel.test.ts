import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { benchCase } from '../src/thermal/bench.ts';
import {
  columnResponse,
  createGridKernel,
  factorise,
  kernelBytes,
  MEMORY_LIMIT,
  type KernelKind,
} from '../src/thermal/gridKernel.ts';

/** A grid of the given size with uneven conductances from a small generator. */
function randomCase(kind: KernelKind, nx: number, ny: number, nl: number, seed: number) {
  const k = createGridKernel(kind, nx, ny, nl);
  let s = seed;
  const next = () => (s = (s * 16807) % 2147483647) / 2147483647 + 0.05;
  const capacity = new Float64Array(k.nx * ny * nl).fill(1);
  for (let l = 0; l < nl; l++)
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) {
        const c = (l * ny + j) * k.nx + i;
        capacity[c] = next() * 1e-3;
        k.T[c] = 20 + 100 * next();
        if (i < nx - 1) k.GX[c] = next() * 1e-2;
        if (j < ny - 1) k.GY[c] = next() * 1e-2;
        if (l < nl - 1) k.GZ[c] = next() * 1e-2;
        k.H[c] = next() * 1e-4;
        k.S[c] = next() * 1e-2;
      }
  factorise(k, capacity, 0.05);
  return { k, capacity };
}

const sizes = fc.record({
  nx: fc.integer({ min: 1, max: 23 }),
  ny: fc.integer({ min: 1, max: 19 }),
  nl: fc.integer({ min: 1, max: 5 }),
  seed: fc.integer({ min: 1, max: 1e6 }),
});

describe('the heat kernel', () => {
  it.each([
    [80, 44, 4],
    [121, 119, 4],
    [400, 400, 3],
  ])('takes the memory it says, far below the limit: %i × %i × %i', (nx, ny, nl) => {
    const { byteLength } = createGridKernel('wasm', nx, ny, nl).T.buffer;
    // whole pages of 64 KiB
    expect(byteLength).toBeGreaterThanOrEqual(kernelBytes(nx, ny, nl));
    expect(byteLength).toBeLessThan(kernelBytes(nx, ny, nl) + 3 * 65536);
    expect(byteLength).toBeLessThan(MEMORY_LIMIT);
  });
  it('gives the same bits as its TypeScript twin, odd sizes included', () => {
    fc.assert(
      fc.property(sizes, ({ nx, ny, nl, seed }) => {
        const wasm = randomCase('wasm', nx, ny, nl, seed).k;
        const twin = randomCase('ts', nx, ny, nl, seed).k;
        wasm.step(7);
        twin.step(7);
        const size = wasm.nx * ny * nl;
        expect(Array.from(wasm.T.subarray(0, size))).toEqual(Array.from(twin.T.subarray(0, size)));
        expect(wasm.lossRate()).toBe(twin.lossRate());
      }),
      { numRuns: 60 },
    );
  });

  it('meets the figures of the yardstick program', () => {
    const k = benchCase('wasm', 0.05);
    k.step(600);
    const at = (i: number) => k.T[60 * 120 + i];
    // printed by the C reference after 30 s
    expect(at(60)).toBeCloseTo(174.875, 2);
    expect(at(72)).toBeCloseTo(276.798, 2);
    expect(k.T[3 * 14400 + 60 * 120 + 60]).toBeCloseTo(169.901, 2);
    expect(at(90)).toBeCloseTo(118.274, 2);
  });

  it('conserves energy in a closed grid', () => {
    const { k, capacity } = randomCase('wasm', 11, 9, 3, 42);
    k.H.fill(0);
    k.S.fill(0);
    factorise(k, capacity, 0.05);
    const heat = () => capacity.reduce((sum, C, c) => sum + C * k.T[c], 0);
    const before = heat();
    k.step(200);
    expect(heat() / before).toBeCloseTo(1, 12);
  });

  it('answers one watt in a column with dt joules, less what leaves through the faces', () => {
    const { k, capacity } = randomCase('wasm', 6, 5, 4, 7);
    k.H.fill(0);
    factorise(k, capacity, 0.05);
    const out = new Float64Array(4);
    const c = 2 * k.nx + 3 + k.nx * 5;
    columnResponse(k, capacity, 0.05, c, out);
    const joules = out.reduce((sum, v, l) => sum + v * capacity[(c % (k.nx * 5)) + l * k.nx * 5], 0);
    expect(joules).toBeCloseTo(0.05, 12);
  });
});
