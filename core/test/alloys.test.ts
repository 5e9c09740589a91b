import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cleanUp, cleanUpInput, PLACES, residualLimits, roundsUntil } from '../src/alloys/cleanUp.ts';
import { PLUS_MINUS_K, trustIn } from '../src/alloys/confidence.ts';
import {
  density_g_cm3,
  elementsOf,
  moleFractions,
  normalised,
  SOLDER_ELEMENTS,
  type Composition,
  type Element,
} from '../src/alloys/elements.ts';
import { Equilibria, scheilOf, solidusOf } from '../src/alloys/equilibrium.ts';
import { hazardsOf, isRefused } from '../src/alloys/hazards.ts';
import { ALLOY_LIBRARY } from '../src/alloys/library.ts';
import { liquidusOf } from '../src/alloys/liquidus.ts';
import {
  alloyAmount,
  alloyAmountInput,
  alloyMix,
  alloyMixInput,
  holdSeconds,
  mixed,
  stiffens_C,
} from '../src/alloys/mixing.ts';
import { minimise, potentials, R, startsOf, systemOf } from '../src/alloys/phases.ts';
import { alloyProperties, matrixLiquidus_C } from '../src/alloys/properties.ts';
import { apart, publishedFor, PUBLISHED } from '../src/alloys/published.ts';
import { alloyRows, errorsOf, meanOf, medianOf } from './alloyErrors.ts';
import { alloysNote, expectNote } from './notes.ts';

const SAC: Composition = { Sn: 96.5, Ag: 3, Cu: 0.5 };
const LEADED: Composition = { Sn: 63, Pb: 37 };
const TERNARY: Composition = { Bi: 52.5, Pb: 32, Sn: 15.5 };
const INDIUM: Composition = { Bi: 49, Pb: 18, Sn: 12, In: 21 };
const SNBI: Composition = { Bi: 58, Sn: 42 };

const of = (wt: Composition) => {
  const elements = elementsOf(wt);
  return { system: systemOf(elements), x: moleFractions(wt, elements) };
};
const range = (wt: Composition) => {
  const { system, x } = of(wt);
  const l = liquidusOf(system, x);
  return {
    liquidus: l.true_K - 273.15,
    matrix: l.matrix_K - 273.15,
    solidus: solidusOf(system, x, l.true_K) - 273.15,
  };
};
const inPart = (a: Composition, b: Composition, share: number) =>
  mixed([
    { wt: a, mass_mg: 1 - share },
    { wt: b, mass_mg: share },
  ]);

describe('pure elements', () => {
  it.each(Object.entries(SOLDER_ELEMENTS))('%s melts at its own temperature', (element, row) => {
    const { liquidus, solidus } = range({ [element]: 100 });
    expect(Math.abs(liquidus + 273.15 - row.melting.value)).toBeLessThan(0.01);
    expect(Math.abs(solidus + 273.15 - row.melting.value)).toBeLessThan(0.05);
  });
});

describe('published melting ranges', () => {
  const rows = alloyRows();
  it('are met as closely as the fit allows: median about a degree, nine of ten within 8', () => {
    const [liquidus, solidus] = [errorsOf(rows, 'liquidus'), errorsOf(rows, 'solidus')];
    expect(rows.length).toBe(67);
    expect(medianOf(liquidus)).toBeLessThan(1.5);
    expect(meanOf(liquidus)).toBeLessThan(2.4);
    expect(medianOf(solidus)).toBeLessThan(1);
    expect(meanOf(solidus)).toBeLessThan(2);
    expect(liquidus.filter((e) => e <= 8).length).toBeGreaterThanOrEqual(62);
    expect(solidus.filter((e) => e <= 8).length).toBeGreaterThanOrEqual(63);
  });
  it('are what the note says', () => expectNote('alloys', alloysNote(rows)));
  it('lie within what the confidence says', () => {
    for (const confidence of ['high', 'medium', 'low'] as const)
      for (const r of rows.filter((q) => q.confidence === confidence && q.published.sure !== 'C'))
        expect(Math.abs(r.model.liquidus - r.published.liquidus), r.name).toBeLessThanOrEqual(PLUS_MINUS_K[confidence]);
  });
});

describe('invariant points', () => {
  it('tin, lead and bismuth keep a last liquid at 96 °C in every mixture with leaded or lead-free solder', () => {
    expect(Math.abs(range(TERNARY).solidus - 96)).toBeLessThan(0.5);
    for (const joint of [LEADED, SAC])
      for (const share of [0.1, 0.5, 0.9]) {
        const { system, x } = of(inPart(joint, TERNARY, share));
        const { end_K } = scheilOf(system, x, liquidusOf(system, x).true_K);
        expect(Math.abs((end_K ?? 0) - 273.15 - 95.8)).toBeLessThan(1.5);
      }
  });
  it('a leaded spike melts a lead-free joint from 177 °C on', () => {
    for (const share of [0.1, 0.3, 0.5])
      expect(Math.abs(range(inPart(SAC, LEADED, share)).solidus - 176.9)).toBeLessThan(1.5);
  });
  it('without lead there is no last liquid at 96 °C', () => {
    const { system, x } = of(inPart(SAC, SNBI, 0.2));
    const { end_K } = scheilOf(system, x, liquidusOf(system, x).true_K);
    expect((end_K ?? 0) - 273.15).toBeGreaterThan(130);
  });
});

describe('behaviour', () => {
  it('a trace of anything moves the liquidus by less than a hundredth of a degree', () => {
    for (const wt of [SNBI, LEADED, SAC] as Composition[]) {
      const before = range(wt).matrix;
      for (const e of ['In', 'Cd', 'Sb', 'Zn', 'Bi'] as Element[]) {
        if (wt[e]) continue;
        expect(Math.abs(range({ ...wt, [e]: 1e-4 }).matrix - before)).toBeLessThan(0.01);
      }
    }
  });
  it.each([
    ['the ternary into lead-free', SAC, TERNARY],
    ['the ternary into leaded', LEADED, TERNARY],
    ['tin-bismuth into lead-free', SAC, SNBI],
    ['the indium alloy into lead-free', SAC, INDIUM],
  ])('the matrix liquidus falls all the way: %s', (_, joint, alloy) => {
    let before = Infinity;
    for (let share = 0; share <= 0.801; share += 0.1) {
      const now = matrixLiquidus_C(inPart(joint, alloy, share));
      expect(now).toBeLessThan(before + 0.01);
      before = now;
    }
  });
  it('hard grains keep the true liquidus high where the joint is long fluid', () => {
    const { matrix, liquidus } = range(inPart(SAC, TERNARY, 0.6));
    expect(matrix).toBeLessThan(160);
    expect(liquidus).toBeGreaterThan(220);
  });
  const element = fc.constantFrom<Element>('Sn', 'Pb', 'Bi', 'In', 'Ag', 'Cu', 'Sb', 'Zn');
  const any = fc.dictionary(element, fc.integer({ min: 1, max: 100 }), {
    minKeys: 2,
    maxKeys: 4,
  }) as fc.Arbitrary<Composition>;
  it('solidus never lies above liquidus, whatever is mixed', () => {
    fc.assert(
      fc.property(any, (wt) => {
        const { solidus, liquidus } = range(wt);
        expect(Number.isFinite(solidus) && Number.isFinite(liquidus)).toBe(true);
        expect(solidus).toBeLessThanOrEqual(liquidus + 0.1);
      }),
      { numRuns: 25, seed: 11 },
    );
  });
  it('an equilibrium holds every atom, melts with heat, and its phases agree on what an atom is worth', () => {
    for (const wt of [LEADED, SAC, TERNARY, inPart(SAC, TERNARY, 0.3)]) {
      const { system, x } = of(wt);
      const { liquidus, solidus } = range(wt);
      const equilibria = new Equilibria(system, x);
      let before = -1;
      for (let i = 0; i <= 6; i++) {
        const T = solidus - 5 + ((liquidus - solidus + 10) * i) / 6 + 273.15;
        const { phases, liquid, mu } = equilibria.at(T);
        const sum = x.map((_, k) => phases.reduce((s, p) => s + p.amount * p.x[k], 0));
        sum.forEach((v, k) => expect(Math.abs(v - x[k])).toBeLessThan(1e-9));
        expect(liquid).toBeGreaterThan(before - 0.02);
        before = liquid;
        const melt = phases.find((p) => p.phase === 'LIQUID');
        if (!melt || liquid < 1e-3) continue;
        const own = new Float64Array(x.length);
        potentials(system.liquid, melt.x, T, own);
        // the search stops when nothing gains a twentieth of a joule; with the curvature RT/x that leaves this much, J/mol
        own.forEach((v, k) => expect(Math.abs(v - mu[k])).toBeLessThan(Math.sqrt((2 * 0.05 * R * T) / melt.x[k])));
      }
      expect(equilibria.at(solidus + 273.15 - 3).liquid).toBeLessThan(0.01);
      expect(equilibria.at(liquidus + 273.15 + 3).liquid).toBeGreaterThan(0.99);
    }
  });
});

describe('energies', () => {
  const system = systemOf(['Sn', 'Pb', 'Bi', 'Ag', 'Cu']);
  const fractions = fc
    .array(fc.float({ min: Math.fround(0.01), max: 1, noNaN: true }), { minLength: 5, maxLength: 5 })
    .map((v) => {
      const total = v.reduce((a, b) => a + b, 0);
      return Float64Array.from(v, (y) => y / total);
    });
  it('potentials are the slopes of the energy (finite differences)', () => {
    fc.assert(
      fc.property(fractions, fc.integer({ min: 350, max: 700 }), (y, T) => {
        const mu = new Float64Array(5);
        potentials(system.liquid, y, T, mu);
        const scratch = new Float64Array(5);
        const h = 1e-6;
        // moving atoms from element 4 to element i changes the energy by their difference in potential
        for (let i = 0; i < 4; i++) {
          const energy = (d: number) => {
            const moved = y.slice();
            moved[i] += d;
            moved[4] -= d;
            return potentials(system.liquid, moved, T, scratch);
          };
          const slope = (energy(h) - energy(-h)) / (2 * h);
          expect(Math.abs(slope - (mu[i] - mu[4]))).toBeLessThan(1 + 1e-4 * Math.abs(slope));
        }
      }),
      { numRuns: 40 },
    );
  });
  it('a minimum lies no higher than where its search began', () => {
    fc.assert(
      fc.property(fractions, fc.integer({ min: 350, max: 700 }), (x, T) => {
        const mu = new Float64Array(5);
        potentials(system.liquid, x, T, mu);
        for (const phase of system.solids)
          for (const start of startsOf(phase, x)) {
            const own = new Float64Array(start.length);
            let before = potentials(phase, start, T, own);
            start.forEach((v, i) => (before -= v * mu[phase.members[i]]));
            expect(minimise(phase, mu, T, start).value).toBeLessThanOrEqual(before + 1e-6);
          }
      }),
      { numRuns: 30 },
    );
  });
});

describe('mixing', () => {
  const part = fc.record({
    wt: fc.constantFrom(SAC, LEADED, TERNARY, INDIUM, SNBI),
    mass_mg: fc.float({ min: Math.fround(0.1), max: 50, noNaN: true }),
  });
  it('keeps the mass of every element', () => {
    fc.assert(
      fc.property(fc.array(part, { minLength: 1, maxLength: 5 }), (parts) => {
        const total = parts.reduce((m, p) => m + p.mass_mg, 0);
        const wt = mixed(parts);
        for (const e of elementsOf(wt)) {
          const mass = parts.reduce((m, p) => m + ((normalised(p.wt)[e] ?? 0) * p.mass_mg) / 100, 0);
          expect(((wt[e] ?? 0) * total) / 100).toBeCloseTo(mass, 6);
        }
      }),
    );
  });
  it('says what the mixture is', () => {
    const out = alloyMix(
      alloyMixInput.parse({
        parts: [
          { wt: SAC, mass_mg: 10 },
          { wt: LEADED, mass_mg: 10 },
        ],
      }),
    );
    expect(out.mass_mg).toBe(20);
    expect(out.wt.Pb).toBeCloseTo(18.5, 9);
    expect(out.solidus_C).toBeLessThan(178.5);
    expect(out.hazards.map((h) => h.element)).toEqual(['Pb']);
  });
  // ratios of an independent program with the same parameters
  it.each([
    [SAC, INDIUM, 180, 0.46],
    [SAC, TERNARY, 180, 0.6],
    [SAC, SNBI, 180, 1.19],
    [SAC, INDIUM, 150, 0.95],
    [LEADED, INDIUM, 140, 0.67],
    [LEADED, TERNARY, 150, 1.52],
    [SAC, LEADED, 200, 0.81],
  ])('%j with %j to %d °C takes %d times the joint', (joint, alloy, targetLiquidus_C, ratio) => {
    const out = alloyAmount(
      alloyAmountInput.parse({
        joint: { wt: joint, mass_mg: 10 },
        alloy: { wt: alloy },
        targetLiquidus_C,
        mixingEfficiency: 0.8,
        wire: { dia_mm: 0.8, coreVolumeFraction: 0.1 },
      }),
    );
    if (!out.reachable) throw new Error(out.why);
    expect(Math.abs(out.ratio - ratio)).toBeLessThan(0.01 * ratio + 0.006);
    expect(out.liquidus_C).toBeLessThanOrEqual(targetLiquidus_C);
    expect(matrixLiquidus_C(inPart(joint, alloy, (0.98 * out.ratio) / (1 + 0.98 * out.ratio)))).toBeGreaterThan(
      targetLiquidus_C,
    );
    expect(out.mass_mg).toBeCloseTo((out.ratio * 10) / 0.8, 9);
    // wire: mass over density and section without the flux core
    expect(out.wire_mm).toBeCloseTo(out.mass_mg / (density_g_cm3(alloy) * (Math.PI / 4) * 0.64 * 0.9), 9);
  });
  const ask = (more: object) =>
    alloyAmount(
      alloyAmountInput.parse({
        joint: { wt: SAC, mass_mg: 10 },
        alloy: { wt: TERNARY },
        targetLiquidus_C: 180,
        ...more,
      }),
    );
  it('says when no share of an alloy gets there', () => {
    const out = ask({ alloy: { wt: LEADED } });
    expect(out).toMatchObject({ reachable: false });
    expect(out.reachable ? '' : out.why).toContain('alone it melts at 183 °C');
  });
  it('needs nothing where the joint is fluid already', () => {
    expect(ask({ targetLiquidus_C: 240 })).toMatchObject({ reachable: true, ratio: 0, mass_mg: 0 });
  });
  it('a bead along the rows rules over composition, a long hold over a thin bead; the reason is said', () => {
    const bead = ask({ rows: { lengths_mm: [10, 10], section_mm2: 0.9 } });
    if (!bead.reachable) throw new Error(bead.why);
    expect(bead.rules).toBe('bead');
    expect(bead.needed.mass_mg).toBeCloseTo(18 * density_g_cm3(TERNARY), 9);
    expect(bead.cleanUp?.element).toBe('Bi');
    const hold = ask({ hold: { seconds: 6, tau_s: 8, peak_C: 230 } });
    if (!hold.reachable || !hold.hold) throw new Error('no hold');
    expect(hold.rules).toBe('hold');
    expect(hold.hold.seconds).toBeGreaterThanOrEqual(6);
    expect(hold.hold.mass_mg).toBeGreaterThan(hold.mass_mg);
    expect(ask({ hold: { seconds: 200, peak_C: 230 } })).toMatchObject({
      hold: null,
      notes: [expect.stringContaining('keep heat on')],
    });
  });
  it('holds for the time of Newton’s law', () => {
    expect(holdSeconds(100, { peak_C: 220, ambient_C: 20, tau_s: 10 })).toBeCloseTo(10 * Math.log(200 / 80), 12);
    expect(holdSeconds(230, { peak_C: 220, ambient_C: 20, tau_s: 10 })).toBe(0);
  });
  it('stiffens between solidus and liquidus', () => {
    for (const wt of [SAC, TERNARY, inPart(SAC, TERNARY, 0.4)]) {
      const { solidus, matrix } = range(wt);
      const T = stiffens_C(wt);
      expect(T).toBeLessThanOrEqual(matrix + 0.5);
      expect(T).toBeGreaterThan(solidus - 3);
    }
  });
  it('refuses cadmium as a choice, not as something that is there', () => {
    const wt = { Bi: 50, Pb: 26.7, Sn: 13.3, Cd: 10 };
    expect(
      alloyAmountInput.safeParse({ joint: { wt: SAC, mass_mg: 1 }, alloy: { wt }, targetLiquidus_C: 150 }).error
        ?.issues[0],
    ).toMatchObject({
      path: ['alloy', 'wt'],
      message: expect.stringContaining('cadmium') as string,
    });
    expect(isRefused(wt)).toBe(true);
    expect(alloyProperties({ wt, curve: 0 }).hazards[0]).toMatchObject({ element: 'Cd', refused: true });
  });
});

describe('properties of a composition', () => {
  it('beside a published row, with a curve from fluid to frozen', () => {
    const out = alloyProperties({ wt: SAC, curve: 12 });
    expect(out.published).toEqual({ solidus_C: 217, liquidus_C: 220, sure: 'A' });
    expect(out.confidence).toBe('high');
    const solid = out.curve?.map((p) => p.solid) ?? [];
    expect(solid[0]).toBeLessThan(0.02);
    expect(solid.at(-1)).toBeGreaterThan(0.98);
    for (let i = 1; i < solid.length; i++) expect(solid[i]).toBeGreaterThan(solid[i - 1] - 0.02);
    expect(out.freezingRange_K).toBeGreaterThanOrEqual(0);
  });
  it('the last liquid of a mixture is named with its share', () => {
    const out = alloyProperties({ wt: inPart(LEADED, TERNARY, 0.3), curve: 0 });
    expect(Math.abs((out.scheilEnd_C ?? 0) - 96)).toBeLessThan(1.5);
    expect(out.scheilLast).toBeGreaterThan(0.02);
    expect(out.freezingRange_K).toBeGreaterThan(30);
  });
  it('knows how far to trust itself', () => {
    const level = (wt: Composition) => trustIn(wt).confidence;
    expect([level(LEADED), level(SAC), level(SNBI)]).toEqual(['high', 'high', 'high']);
    expect([level(TERNARY), level({ In: 52, Sn: 48 }), level({ Sn: 91, Zn: 9 })]).toEqual([
      'medium',
      'medium',
      'medium',
    ]);
    expect([level(INDIUM), level({ Sn: 10, Pb: 88, Ag: 2 }), level({ Sn: 40, Pb: 40, Sb: 20 })]).toEqual([
      'low',
      'low',
      'low',
    ]);
    expect(trustIn(INDIUM).notes[0]).toContain('indicative');
    expect(level({ Sn: 55, Pb: 20, Bi: 25 })).toBe('medium');
  });
  it('finds a published row within half a percent', () => {
    expect(publishedFor({ Sn: 62.9, Pb: 37.1 })?.liquidus_C).toBe(183);
    expect(publishedFor({ Sn: 62, Pb: 38 })).toBeNull();
    for (const row of PUBLISHED) expect(apart(row.wt, row.wt)).toBe(0);
  });
});

describe('the library', () => {
  it('holds no cadmium, names alloys by composition, has each once', () => {
    for (const a of ALLOY_LIBRARY) {
      expect(isRefused(a.wt)).toBe(false);
      expect(a.id).toBe(
        Object.entries(a.wt)
          .map(([e, w]) => `${e}${w}`)
          .join(''),
      );
    }
    expect(new Set(ALLOY_LIBRARY.map((a) => a.id)).size).toBe(ALLOY_LIBRARY.length);
  });
  it('says what lead and indium do', () => {
    expect(hazardsOf(LEADED).map((h) => h.element)).toEqual(['Pb']);
    expect(hazardsOf(INDIUM).map((h) => h.element)).toEqual(['Pb', 'In']);
    expect(hazardsOf(SAC)).toEqual([]);
  });
});

describe('clean-up', () => {
  const run = (input: object) => cleanUp(cleanUpInput.parse(input));
  it('braid takes solder, not composition; fresh solder thins it', () => {
    const out = run({ c0_wt: 20, m0: 2, steps: [{ wick: 0.1 }, { add: 1 }, { add: 1, c_wt: 10 }] });
    expect(out.trace.map((s) => [Number(s.c_wt.toFixed(6)), Number(s.mass.toFixed(6))])).toEqual([
      [20, 2],
      [20, 0.2],
      [3.333333, 1.2],
      [6.363636, 2.2],
    ]);
  });
  it.each([
    [25, 0.25, 2, 0.225225],
    [25, 0.1, 3, 0.022502],
    [0.2, 0.25, 0, 0.2],
  ])('from %d %% to %d %% in %d rounds', (c0_wt, limit_wt, cycles, c_wt) => {
    const out = run({ c0_wt, m0: 1, wick: 0.1, add: 1, limit_wt });
    expect(out).toMatchObject({ cycles });
    expect(out.c_wt).toBeCloseTo(c_wt, 5);
  });
  it('one round less is not enough, and flooding without braid only halves', () => {
    fc.assert(
      fc.property(
        fc.float({ min: 1, max: 60, noNaN: true }),
        fc.constantFrom(...Object.values(PLACES)),
        (c_wt, { wick }) => {
          const { cycles, trace } = roundsUntil({ c_wt, mass: 1 }, { wick, add: 1, limit_wt: 0.25 });
          expect(trace[cycles].c_wt).toBeLessThanOrEqual(0.25);
          if (cycles > 0) expect(trace[cycles - 1].c_wt).toBeGreaterThan(0.25);
        },
      ),
    );
    expect(roundsUntil({ c_wt: 16, mass: 1 }, { wick: 1, add: 1, limit_wt: 8 }).cycles).toBe(1);
  });
  it('holes take more rounds than lands', () => {
    const rounds = (wick: number) => roundsUntil({ c_wt: 40, mass: 1 }, { wick, add: 1, limit_wt: 0.25 }).cycles;
    expect(rounds(PLACES.holes.wick)).toBeGreaterThan(rounds(PLACES.lands.wick));
  });
  it('limits depend on what the joint will be', () => {
    expect(residualLimits(TERNARY, false)).toMatchObject([{ element: 'Bi', limit_wt: 0.25 }]);
    expect(residualLimits(SNBI, true)).toMatchObject([{ element: 'Bi', limit_wt: 2 }]);
    expect(residualLimits(INDIUM, true).map((r) => r.element)).toEqual(['Bi', 'In', 'Pb']);
    expect(residualLimits(SAC, true)).toEqual([]);
  });
  it.each([
    { c0_wt: 20, m0: 1, wick: 0.1, add: 0, limit_wt: 1 },
    { c0_wt: 20, m0: 1, wick: 0.1, add: 1, limit_wt: 0 },
    { c0_wt: 20, m0: 0, steps: [{ wick: 0.1 }] },
    { c0_wt: 20, m0: 1, steps: [{ wick: 2 }] },
    { c0_wt: 20, m0: 1, steps: [{ wick: 0.1, add: 1 }] },
    { c0_wt: 20, m0: 1, steps: [{ wick: 0.1 }], limit_wt: 1 },
    { c0_wt: 20, m0: 1 },
  ])('refuses %j', (input) => expect(cleanUpInput.safeParse(input).success).toBe(false));
});
