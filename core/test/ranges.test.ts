/** The spread of a plan: its design and its arithmetic. */
import { describe, expect, it } from 'vitest';
import { helping } from './helping.ts';
import { air, bead, boardOf, planOf, spike, tweezers } from './plans.ts';
import { DEFAULT_STATION } from '../src/rework/station.ts';
import { designFor, effectsOf } from '../src/rework/design.ts';
import { planHeat } from '../src/rework/planHeat.ts';
import { LIFT_S } from '../src/rework/bench/runTimes.ts';
import { type PlanInput } from '../src/rework/planForm.ts';
import { lowestTip } from '../src/rework/lowestTip.ts';
import { runPlan } from '../src/rework/planRun.ts';
import { uncertainOf } from '../src/rework/uncertainty.ts';

const input = ({ phases = [air()], ...more }: Partial<PlanInput> = {}) =>
  planOf(boardOf('SOIC-8', 'two-layer', 'pbt'), phases, more);
const context = { now: () => 0 };

describe('the design', () => {
  it.each([7, 11])('for %i inputs is balanced and its columns are orthogonal', (inputs) => {
    const design = designFor(inputs);
    expect(design).toHaveLength(inputs + 1);
    for (let a = 0; a < inputs; a++) {
      expect(design.reduce((sum, row) => sum + row[a], 0)).toBe(0);
      for (let b = 0; b < a; b++) expect(design.reduce((sum, row) => sum + row[a] * row[b], 0)).toBe(0);
    }
  });
  it('gives every effect of a linear response back exactly, however many there are', () => {
    const slopes = [3, -2, 0.5, 0, 7, -1, 0.25, 4, -0.5, 1, 2];
    for (const inputs of [3, 7, 9, 11]) {
      const responses = designFor(inputs).map(
        (row) => 40 + slopes.slice(0, inputs).reduce((sum, slope, i) => sum + row[i] * slope, 0),
      );
      expect(effectsOf(responses, inputs)).toHaveLength(inputs);
      for (const [i, e] of effectsOf(responses, inputs).entries()) expect(e).toBeCloseTo(slopes[i], 12);
    }
    expect(() => designFor(16)).toThrow('too many');
  });
});

describe('an ensemble in shares', () => {
  it('is the same to the last bit, wherever its members were computed', async () => {
    const asked = input({ phases: [tweezers()] });
    const { shares, idle } = helping(2);
    const answered: number[] = [];
    const progress = (done: number) => void answered.push(done);
    const shared = await planHeat(asked, { ...context, idle, progress });
    expect(shared).toEqual(await planHeat(asked, context));
    expect(shares.there).toBeGreaterThan(2);
    expect(answered).toEqual([...answered].sort((a, b) => a - b));
  });
});

describe('inputs that may be off', () => {
  it.each([
    ['air', [air({ stages: [{ from_s: 10, flow_L_min: 60, standoff_mm: 8 }] })], 7],
    ['bead', [bead()], 7],
    ['tweezers', [tweezers()], 7],
    ['a spike, then air', [spike(), air()], 11],
  ] as const)(
    'of %s: no more than its design takes, nothing changes at zero, each changes something at one',
    (_, phases, most) => {
      const inputs = uncertainOf(phases);
      expect(inputs.length).toBeLessThanOrEqual(most);
      const plan = input({ phases: [...phases] });
      for (const u of inputs) {
        expect(u.off(plan, 0)).toEqual(plan);
        expect(u.off(plan, 1)).not.toEqual(plan);
        expect(u.off(plan, -1)).not.toEqual(u.off(plan, 1));
      }
    },
  );
  it('a calibrated station is narrower', async () => {
    const width = async (station: PlanInput['station']) => {
      const { from, to } = (await planHeat(input({ station }), context)).allWetRange_s;
      return (to ?? Infinity) - (from ?? 0);
    };
    const known = { ...DEFAULT_STATION, efficiencyPlusMinus: 0.01, handFactorPlusMinus: 0.02, flowPlusMinus: 0.02 };
    expect(await width(known)).toBeLessThan(0.75 * (await width(DEFAULT_STATION)));
  });
});

describe('a plan with its ranges', () => {
  it('brackets every time, and says what matters in order', async () => {
    const plan = await planHeat(input(), context);
    const wet = plan.allWet_s ?? NaN;
    expect(plan.allWetRange_s.from).toBeLessThan(wet);
    expect(plan.allWetRange_s.to).toBeGreaterThan(wet);
    expect(plan.matters.map((m) => m.input).sort()).toEqual(
      uncertainOf([air()])
        .map((u) => u.name)
        .sort(),
    );
    const shifts = plan.matters.map((m) => m.shift_s ?? Infinity);
    expect(shifts).toEqual([...shifts].sort((a, b) => b - a));
    expect(shifts.every((s) => s >= 0)).toBe(true);
    expect(plan.jointRanges_s).toHaveLength(8);
    for (const r of plan.jointRanges_s ?? []) {
      const joint = plan.joints.find((j) => j.terminal === r.terminal);
      expect(r.from).toBeLessThan(joint?.wet_s ?? NaN);
      expect(r.to).toBeGreaterThan(joint?.wet_s ?? NaN);
    }
    expect(plan.neighbourRanges?.[0].atWetPlusMinus_K).toBeGreaterThan(0);
    expect(plan.calibrated).toBe(false);
  });
  it('leaves the end open where a cool station never melts it', async () => {
    const weak = air({ set_C: 345, flow_L_min: 27 });
    const plan = await planHeat(input({ phases: [weak] }), context);
    expect(plan.allWet_s).not.toBeNull();
    expect(plan.allWetRange_s.to).toBeNull();
    expect(plan.matters[0].shift_s ?? Infinity).toBeGreaterThan(30);
  });
});

describe('the lowest tip of a bead', () => {
  const lowest = (pkg: string, kind: Parameters<typeof boardOf>[1], more: Partial<PlanInput> = {}) =>
    lowestTip(planOf(boardOf(pkg, kind, 'none'), bead(), more), bead(), context);
  it('keeps it liquid for a lift after the iron has left, and 10 K less does not', async () => {
    const plan = planOf(boardOf('SOIC-16', 'four-layer', 'none'), bead());
    const C = (await lowestTip(plan, bead(), context)) ?? 0;
    // below 350 °C, as benches find
    expect(C).toBeGreaterThanOrEqual(260);
    expect(C).toBeLessThanOrEqual(330);
    const hold = async (set_C: number) =>
      (await runPlan({ ...plan, phases: [bead({ set_C })], quality: 'search', frames: false, books: false }, context))
        .hold_s;
    const off = plan.station.ironPlusMinus_K;
    expect(await hold(C - off)).toBeGreaterThanOrEqual(LIFT_S);
    expect(await hold(C - 10 - off)).toBeLessThan(LIFT_S);
  });
  it('rises with the copper under it, and a known iron may be set lower', async () => {
    const [thin, thick] = [await lowest('SOIC-16', 'two-layer'), await lowest('SOIC-16', 'heavy')];
    expect(thick ?? Infinity).toBeGreaterThan(thin ?? Infinity);
    const known = await lowest('SOIC-16', 'four-layer', { station: { ...DEFAULT_STATION, ironPlusMinus_K: 0 } });
    expect(known ?? Infinity).toBeLessThan((await lowest('SOIC-16', 'four-layer')) ?? 0);
  });
  it('is none where no tip does it, and can be called off', async () => {
    const weak = bead({ power_W: 10, stroke_s: 2 });
    expect(await lowestTip(planOf(boardOf('D2PAK', 'heavy', 'none'), weak), weak, context)).toBeNull();
    const off = lowestTip(planOf(boardOf('SOIC-16', 'two-layer', 'none'), bead()), bead(), {
      ...context,
      signal: { aborted: true },
    });
    await expect(off).rejects.toThrow();
  });
});
