// A dial without numbers: what is told for it holds on stations of 30 to 120 L/min full scale.
import { describe, expect, it } from 'vitest';
import { planWay } from '../src/compare/index.ts';
import { randomOf } from '../src/ground/index.ts';
import { caseOf, methodsFor, type PlanInput, reworkPlaceSchema, runPlan, uncertainOf } from '../src/rework/index.ts';

const context = { now: () => 0 };
/** Full scale of the station a dial belongs to: log-normal round 60 L/min, two standard deviations a factor of two (10-heat). */
const [MEDIAN, FACTOR] = [60, 2];
const STATIONS = 60;

function normals(seed: number): () => number {
  const random = randomOf(seed);
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

describe.each([
  ['SOIC-8', 'two-layer', 0.6],
  ['QFP-44', 'four-layer', 0.8],
])('an unmarked dial, %s on %s', (packageId, kind, dial) => {
  it('has a 90 % range that holds', async () => {
    const board = {
      ...{ kind, lx_mm: 40, ly_mm: 40 },
      parts: [{ id: 'u1', package: packageId, x_mm: 20, y_mm: 20 }],
    };
    const found = caseOf(reworkPlaceSchema.parse({ board, target: 'u1' }));
    const [air] = methodsFor(packageId).find((m) => m.method.id === 'air-fast')?.method.phases ?? [];
    const blown = (flow_L_min: number) =>
      [{ ...air, giveUp_s: 240, settings: { ...air.settings, flow_L_min } }] as PlanInput['phases'];
    const plan: PlanInput = {
      ...found,
      station: { ...found.station, air: 'unmarked' },
      phases: blown(dial * MEDIAN),
      quality: 'coarse',
      frames: false,
    };
    const { row } = await planWay({ plan, as: 'air-fast', ranges: true }, context);
    const { p5, p95 } = row?.loose_s ?? { p5: null, p95: null };
    expect(p5).not.toBeNull();

    const normal = normals(7);
    const times: number[] = [];
    while (times.length < STATIONS) {
      const z = normal();
      if (Math.abs(z) > 2) continue;
      const full = MEDIAN * FACTOR ** (z / 2);
      expect(full).toBeGreaterThanOrEqual(30);
      expect(full).toBeLessThanOrEqual(120);
      // what else is uncertain is off as well
      const marked: PlanInput = { ...plan, station: found.station, phases: blown(dial * full) };
      const off = uncertainOf(marked.phases)
        .filter((u) => !u.name.startsWith('flow'))
        .reduce((input, u) => u.off(input, normal() / 2), marked);
      const run = await runPlan({ ...off, quality: 'search' }, context);
      times.push(run.allWet_s ?? Infinity);
    }
    const inside = times.filter((t) => t >= (p5 ?? 0) && t <= (p95 ?? Infinity)).length / STATIONS;
    expect(inside).toBeGreaterThanOrEqual(0.85);
    // nor is it so wide that it says nothing
    expect(p95 === null || p95 / (p5 ?? NaN) < 8).toBe(true);
  }, 60_000);
});
