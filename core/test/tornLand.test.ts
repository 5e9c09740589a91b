/** How likely a land comes off with the part. */
import { describe, expect, it } from 'vitest';
import { normalCdf } from '../src/ground/numerics/normal.ts';
import { packageById } from '../src/packages/index.ts';
import { methodsFor } from '../src/rework/methods/choose.ts';
import { mainPhase } from '../src/rework/methods/method.ts';
import type { Phase } from '../src/rework/phases/schema.ts';
import { pullTears, tornLand, type LandHistory } from '../src/rework/bench/tornLand.ts';
import { air, bead } from './plans.ts';

const terminal = (w: number, h = 1.5) => ({ ...packageById('SOIC-8').terminals[0], land: { x: 0, y: 0, w, h } });
const land = (lift_C: number, w = 0.3, exposure_K_s = 0): LandHistory => ({
  terminal: terminal(w),
  lift_C,
  exposure_K_s,
});
const of = (pkg: string, phase: Phase = air(), lift_C = 220, heat_s = 30) =>
  tornLand(
    packageById(pkg).terminals.map((t) => ({ terminal: t, lift_C, exposure_K_s: 0 })),
    pkg,
    phase.kind !== 'air' && 'set_C' in phase.settings ? phase.settings.set_C : undefined,
    heat_s,
    135,
  );

describe('the normal distribution', () => {
  it.each([
    [0, 0.5],
    [1, 0.841345],
    [-1.96, 0.024998],
    [3, 0.99865],
  ])('at %d is %d', (z, p) => expect(normalCdf(z)).toBeCloseTo(p, 6));
});

describe('a pull', () => {
  it('tears a land at the strength itself in half of the cases, whatever the spread', () => {
    // 0.25 N on a land that holds 1 N/mm of 0.25 mm
    expect(pullTears(land(220, 0.25), 135)).toBeGreaterThan(0.4);
    expect(pullTears(land(220, 0.25), 135)).toBeLessThan(0.6);
  });
  it('tears hot lands, narrow ones and weakened ones more easily', () => {
    expect(pullTears(land(220), 135)).toBeGreaterThan(8 * pullTears(land(100), 135));
    expect(pullTears(land(220, 0.3), 135)).toBeGreaterThan(3 * pullTears(land(220, 0.8), 135));
    const [fresh, reflowed, long, ever] = [0, 12_000, 60_000, 1e7].map((K_s) => pullTears(land(220, 0.6, K_s), 135));
    expect(reflowed / fresh).toBeLessThan(1.7);
    expect(long).toBeGreaterThan(reflowed);
    // never weaker than half
    expect(ever).toBeCloseTo(pullTears(land(220, 0.3), 135), 9);
  });
  it('passes the glass transition smoothly, where it lies for this laminate', () => {
    const at = [115, 125, 135, 145, 155].map((C) => pullTears(land(C), 135));
    for (let i = 1; i < at.length; i++) expect(at[i]).toBeGreaterThan(at[i - 1]);
    expect(pullTears(land(150), 175)).toBeLessThan(pullTears(land(150), 135) / 8);
  });
});

describe('a method', () => {
  it('is kinder when its lands stay below the transition, and no worse than certain', () => {
    expect(of('QFP-48', bead(), 120).p).toBeLessThan(of('QFP-48', air(), 220).p / 6);
    expect(of('QFP-48').early_p).toBeCloseTo(4 * of('QFP-48').p, 9);
  });
  it('hidden joints and holes are held more often', () => {
    expect(of('QFN-24').p / of('QFN-24').early_p).toBeCloseTo(0.25, 9);
    // 8 % that a pin still holds, 30 % that it then takes its plating along, half a percent a pin besides
    expect(of('DIP-8', air(), 60).p).toBeCloseTo(0.08 * 0.3 + 8 * 0.005, 9);
    // …while heat is still on them nothing holds a pin that is free
    expect(of('DIP-8', air(), 220).p).toBeCloseTo(0.08 * 0.3, 9);
  });
  it('a tip above 400 °C tears on its own account, by its time', () => {
    const hot = bead({ set_C: 420 });
    expect(of('SOIC-8', hot, 120, 10).p - of('SOIC-8', bead({ set_C: 400 }), 120, 10).p).toBeCloseTo(0.004, 9);
  });
  it('is told apart on one part: air, bead and a vacuum iron', () => {
    const each = methodsFor('SOIC-16').map(({ method }) => {
      const phase = mainPhase(method);
      return of('SOIC-16', phase, phase.kind === 'air' ? 225 : 150).p;
    });
    expect(new Set(each.map((p) => p.toFixed(5))).size).toBeGreaterThan(1);
  });
});
