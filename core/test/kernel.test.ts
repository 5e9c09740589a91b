import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { yardstickCase } from '../src/thermal/yardstick.ts';
import {
  columnResponse,
  createGridKernel,
  factorise,
  kernelBytes,
  MEMORY_LIMIT,
  type KernelKind,
  type SweepOrder,
  type Sweeps,
} from '../src/thermal/gridKernel.ts';

/** A grid of the given size with uneven conductances from a small generator. */
function randomCase(
  options: { kind?: KernelKind; sweeps: Sweeps; order?: SweepOrder },
  [nx, ny, nl]: [number, number, number],
  seed: number,
) {
  const k = createGridKernel(nx, ny, nl, options);
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

const heatOf = ({ T }: { T: Float64Array }, capacity: Float64Array) =>
  capacity.reduce((sum, C, c) => sum + C * T[c], 0);

// what a rounding of the changes may cost
describe.each([
  ['double', 'xyz', 12],
  ['double', 'xzy', 12],
  ['single', 'xyz', 7],
  ['single', 'xzy', 7],
] as const)('the heat kernel, sweeping in %ss, %s', (sweeps, order, digits) => {
  it.each([
    [80, 44, 4],
    [121, 119, 4],
    [400, 400, 3],
  ])('takes the memory it says, far below the limit: %i × %i × %i', (nx, ny, nl) => {
    const { byteLength } = createGridKernel(nx, ny, nl, { sweeps }).T.buffer;
    const said = kernelBytes(nx, ny, nl, sweeps);
    // whole pages of 64 KiB
    expect(byteLength).toBeGreaterThanOrEqual(said);
    expect(byteLength).toBeLessThan(said + 65536);
    expect(byteLength).toBeLessThan(MEMORY_LIMIT);
  });

  it('gives the same bits as its TypeScript twin, odd sizes included', () => {
    fc.assert(
      fc.property(sizes, ({ nx, ny, nl, seed }) => {
        const wasm = randomCase({ sweeps, order }, [nx, ny, nl], seed).k;
        const twin = randomCase({ kind: 'ts', sweeps, order }, [nx, ny, nl], seed).k;
        wasm.step(7);
        for (let n = 0; n < 7; n++) {
          twin.begin();
          twin.finish();
        }
        const size = wasm.nx * ny * nl;
        expect(Array.from(wasm.T.subarray(0, size))).toEqual(Array.from(twin.T.subarray(0, size)));
        wasm.begin();
        twin.begin();
        expect(Array.from(wasm.D.subarray(0, size))).toEqual(Array.from(twin.D.subarray(0, size)));
      }),
      { numRuns: 60 },
    );
  });

  it('meets the figures of the yardstick program', () => {
    const k = yardstickCase(0.05, { sweeps, order });
    k.step(600);
    const at = (i: number) => k.T[60 * 120 + i];
    // printed by the C reference after 30 s
    expect(at(60)).toBeCloseTo(174.875, 2);
    expect(at(72)).toBeCloseTo(276.798, 2);
    expect(k.T[3 * 14400 + 60 * 120 + 60]).toBeCloseTo(169.901, 2);
    expect(at(90)).toBeCloseTo(118.274, 2);
  });

  it('conserves energy in a closed grid', () => {
    const { k, capacity } = randomCase({ sweeps, order }, [11, 9, 3], 42);
    k.H.fill(0);
    k.S.fill(0);
    factorise(k, capacity, 0.05);
    const before = heatOf(k, capacity);
    k.step(200);
    expect(heatOf(k, capacity) / before).toBeCloseTo(1, digits);
  });

  it('leaves a board at the temperature of its surroundings alone', () => {
    const { k, capacity } = randomCase({ sweeps, order }, [11, 9, 3], 42);
    k.T.fill(22, 0, capacity.length);
    for (let c = 0; c < capacity.length; c++) k.S[c] = k.H[c] * 22;
    k.step(2000);
    for (let c = 0; c < capacity.length; c++) expect(k.T[c]).toBe(22);
  });

  it('answers one watt in a column with dt joules, less what leaves through the faces', () => {
    const { k, capacity } = randomCase({ sweeps, order }, [6, 5, 4], 7);
    k.H.fill(0);
    factorise(k, capacity, 0.05);
    const out = new Float64Array(4);
    const plane = k.nx * 5;
    const c = 2 * k.nx + 3 + plane;
    columnResponse(k, capacity, 0.05, c, out);
    const joules = out.reduce((sum, v, l) => sum + v * capacity[(c % plane) + l * plane], 0);
    expect(joules).toBeCloseTo(0.05, digits);
  });
});

describe('sweeps in singles', () => {
  it('follow those in doubles to a ten-thousandth of a degree', () => {
    const [single, double] = [yardstickCase(0.05, { sweeps: 'single' }), yardstickCase(0.05)];
    for (const k of [single, double]) k.step(1200);
    const worst = single.T.reduce((most, t, c) => Math.max(most, Math.abs(t - double.T[c])), 0);
    expect(worst).toBeLessThan(1e-4);
    expect(worst).toBeGreaterThan(0);
  });

  it('are not slowed down by a source that is far away on a bad conductor', () => {
    // without the breath of heat the far cells would hold denormal numbers
    const k = createGridKernel(64, 4, 1, { sweeps: 'single' });
    const capacity = new Float64Array(256).fill(0.01);
    for (let c = 0; c < 256; c++) k.GX[c] = c % 64 < 63 ? 2e-3 : 0;
    k.S[0] = 1;
    factorise(k, capacity, 0.05);
    k.step(3);
    const tiny = k.D.subarray(0, 256).filter((d) => Math.abs(d) < 2 ** -126);
    expect(tiny).toHaveLength(0);
  });
});
