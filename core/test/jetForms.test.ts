import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blowAway, blowAwayInput, jetProfile, jetProfileInput } from '../src/thermal/jetForms.ts';

const profile = (input: object) => jetProfile(jetProfileInput.parse(input));
const blow = (change: object = {}) =>
  blowAway(
    blowAwayInput.parse({
      Q_L_min: 30,
      D_mm: 8,
      H_mm: 12,
      Tset_C: 370,
      part: { l_mm: 1.6, w_mm: 0.8, h_mm: 0.8 },
      r_mm: 8,
      wet: 1,
      ...change,
    }),
  );

describe('jet.profile', () => {
  it('gives Martin’s area means where his correlation holds', () => {
    for (const Re of [2000, 10_000, 40_000])
      for (const hd of [2, 6, 12])
        for (const x of [2.5, 4, 7.5]) {
          const out = profile({ Re, H_over_D: hd, r_over_D: [x] });
          if (!('meanNu' in out)) throw new Error('no Nusselt number');
          // Martin 1977: Nu = Pr^0.42 · (1 − 1.1 D/r)/(1 + 0.1(H/D − 6) D/r) · D/r · 2 Re^½(1 + 0.005 Re^0.55)^½
          const F = 2 * Math.sqrt(Re * (1 + 0.005 * Re ** 0.55));
          const exact = 0.7 ** 0.42 * (((1 - 1.1 / x) / (1 + (0.1 * (hd - 6)) / x)) * (1 / x)) * F;
          expect(out.meanNu[0] / exact).toBeCloseTo(1, 9);
        }
  });
  it('the mean over a disc is the mean of the local values', () => {
    const r_mm = Array.from({ length: 400 }, (_, i) => ((i + 0.5) * 30) / 400);
    const out = profile({ Q_L_min: 30, D_mm: 6, H_mm: 30, Tset_C: 400, r_mm: [...r_mm, 30] });
    if (!('points' in out)) throw new Error('no profile');
    const sum = out.points.slice(0, 400).reduce((s, p) => s + p.h * p.r_mm, 0);
    const weight = r_mm.reduce((s, r) => s + r, 0);
    expect(sum / weight / out.mean[400].h).toBeCloseTo(1, 2);
  });
  it('cools and weakens outward, never below the room nor above the mouth', () => {
    const input = fc.record({
      Q_L_min: fc.integer({ min: 5, max: 120 }),
      D_mm: fc.integer({ min: 3, max: 20 }),
      H_mm: fc.integer({ min: 3, max: 60 }),
      Tset_C: fc.integer({ min: 100, max: 550 }),
    });
    fc.assert(
      fc.property(input, (setting) => {
        const out = profile({ ...setting, r_mm: [0, 5, 10, 20, 40, 80] });
        if (!('points' in out)) throw new Error('no profile');
        out.points.forEach((p, i) => {
          expect(p.Taw_C).toBeGreaterThanOrEqual(22);
          expect(p.Taw_C).toBeLessThanOrEqual(out.exit_C + 1e-9);
          expect(p.h).toBeGreaterThan(0);
          if (i > 0) expect(p.Taw_C).toBeLessThanOrEqual(out.points[i - 1].Taw_C + 1e-9);
        });
        expect(out.notes.length > 0).toBe(
          out.Re < 2000 || setting.H_mm / setting.D_mm < 2 || setting.H_mm / setting.D_mm > 12,
        );
      }),
    );
  });
  it.each([
    [{ Q_L_min: 10_000, D_mm: 8, H_mm: 12, Tset_C: 370, r_mm: [0] }, 'Q_L_min'],
    [{ Q_L_min: 30, D_mm: 8, H_mm: 12, Tset_C: 2000, r_mm: [0] }, 'Tset_C'],
    [{ Q_L_min: 30, D_mm: 8, Tset_C: 370, r_mm: [0] }, 'H_mm'],
    [{ Re: 5000, r_over_D: [3] }, 'H_over_D'],
    [{ Q_L_min: 30, D_mm: 8, H_mm: 12, Tset_C: 370, r_mm: [] }, 'r_mm'],
  ])('refuses %j by its field', (input, field) =>
    expect(jetProfileInput.safeParse(input).error?.issues.map((i) => i.path[0])).toContain(field),
  );
});

describe('blowaway.check', () => {
  it('close and strong flies, far or weak stays', () => {
    expect(blow({ wet: 0, Q_L_min: 90, H_mm: 6, r_mm: 0 }).verdict).toBe('flies');
    expect(blow({ Q_L_min: 10, r_mm: 40 }).verdict).toBe('stays');
  });
  it('more flow, closer to the axis, less solder: never steadier', () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 100 }), fc.integer({ min: 0, max: 40 }), (Q_L_min, r_mm) => {
        const N = blow({ Q_L_min, r_mm }).N;
        expect(blow({ Q_L_min: Q_L_min + 20, r_mm }).N).toBeGreaterThan(N);
        expect(blow({ Q_L_min, r_mm, wet: 0.5 }).N).toBeGreaterThan(N);
        expect(blow({ Q_L_min, r_mm: r_mm + 30 }).N).toBeLessThan(N);
      }),
    );
  });
  it('agrees with the arithmetic by hand', () => {
    const { u_m_s, N } = blow({ wet: 0, r_mm: 20 });
    // air at 318 °C: 0.602 g/s through 50.3 mm²
    const Te = 22 + 0.85 * (370 - 22) + 273.15;
    const U = (1.204 * 30) / 60000 / ((353.1 / Te) * Math.PI * 16e-6);
    const s = Math.sqrt(295.15 / Te);
    const u =
      Math.min(U * Math.min(1, (6.2 * s * 8) / 12), 1.17 * U * s * 0.4 ** 1.1 * (16 / 8) ** 0.1) *
      Math.min(1, (0.8 / 0.4) ** (1 / 7));
    expect(u_m_s).toBeCloseTo(u, 9);
    expect(N).toBeGreaterThan(0);
  });
  it('takes true and false for wet', () => {
    expect(blow({ wet: true })).toEqual(blow({ wet: 1 }));
    expect(blow({ wet: false })).toEqual(blow({ wet: 0 }));
  });
});
