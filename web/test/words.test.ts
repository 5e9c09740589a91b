import { harmOf, type Method, methodsFor, type PlanResult, planResultSchema } from '@orthos/core/rework';
import { describe, expect, it } from 'vitest';
import {
  amountWords,
  closedBy,
  explanation,
  headline,
  marginText,
  rangeText,
  verdictOf,
  whySolid,
  worthShowing,
} from '../src/lib/plan/words.ts';
import { mmss } from '../src/lib/set/words.ts';
import { express, neighbour, result } from './planResult.ts';
import planBefore from './planBefore.json' with { type: 'json' };

const board = express;
const methodOf = (pkg: string, id: string): Method => {
  const found = methodsFor(pkg).find((m) => m.method.id === id)?.method;
  if (!found) throw new Error(`no ${id} for ${pkg}`);
  return found;
};
const air = methodOf('SOIC-8', 'air-slow');
const units = { temperature: 'C', length: 'mm' } as const;
const cold = result({
  joints: [{ terminal: '1', solidus_s: null, liquidus_s: null, peak_C: 240 }],
  allWet_s: null,
  allWetRange_s: { from: null, to: null },
});
const hurts = result({ closes: { at_s: 22, partId: 'plastic' } });

describe('verdicts', () => {
  it.each([
    ['works', result(), 'good'],
    ['short window', result({ closes: { at_s: 34, partId: 'plastic' } }), 'tight'],
    ['a cool station never melts it', result({ allWetRange_s: { from: 25, to: null } }), 'tight'],
    ['neighbour first', hurts, 'hurts'],
    ['never wet', cold, 'cold'],
  ] as const)('%s', (_, r, kind) => {
    expect(verdictOf(r).kind).toBe(kind);
  });
});

describe('neighbours', () => {
  it('what has to be taken out first makes no method work, and is named instead of compared', () => {
    const cell = result({ neighbours: [neighbour({ takeOut: true, says: 'clear' })] });
    expect(verdictOf(cell, board)).toMatchObject({ kind: 'tight', word: 'take PBT out first' });
    expect(headline('Air', cell, board)).toBe('Air: take PBT out, then look from 30 s');
    expect(explanation(cell, board, air, units)).toMatch(/^Take PBT out first\. Joint 1 is last/);
    expect(worthShowing(cell, 6)).toHaveLength(1);
  });
  it('perhaps hurt is tight, near is not', () => {
    expect(verdictOf(result({ neighbours: [neighbour({ says: 'may hurt', margin_K: 5 })] })).kind).toBe('tight');
    expect(verdictOf(result({ neighbours: [neighbour({ says: 'near', margin_K: 15 })] })).kind).toBe('good');
  });
  it('a window that closes before the part is off is none', () => {
    expect(verdictOf(result({ closes: { at_s: 32, partId: 'plastic' } })).kind).toBe('hurts');
    expect(verdictOf(result({ closes: { at_s: 32, partId: 'plastic', why: 'wind' } })).word).toMatch(/blows/);
    const own = result({ closes: { at_s: 20, partId: 'target', why: 'body' } });
    expect(headline('Air', own, board)).toBe('Air: the part itself is hurt before the lift');
    expect(explanation(own, board, air, units)).toMatch(/^The part itself is hurt 13 s before/);
  });
  it('says what is left in the user’s degrees, and is sorted by it', () => {
    expect(marginText(neighbour(), units)).toBe('40 K left');
    expect(marginText(neighbour({ margin_K: -10 }), { ...units, temperature: 'F' })).toBe('18 °F too hot');
    expect(marginText(neighbour({ margin_K: null }), units)).toBe('nothing harms it');
    const shown = worthShowing(
      result({
        neighbours: [
          neighbour({ partId: 'a', margin_K: 60 }),
          neighbour({ partId: 'b', margin_K: 10 }),
          neighbour({ partId: 'c', margin_K: 120 }),
        ],
      }),
      6,
    );
    expect(shown.map((n) => n.partId)).toEqual(['b', 'a']);
  });
  it('a plan stored before there were doses still loads and shows', () => {
    for (const stored of Object.values(planBefore.results)) {
      const r = planResultSchema.parse(stored);
      for (const n of r.neighbours) {
        expect(n.says).toBeUndefined();
        expect(harmOf(n).margin_K).toBe((n.limit_C ?? 0) - n.atWet_C);
      }
      expect(verdictOf(r).word).not.toBe('');
      expect(worthShowing(r, 6).length).toBeLessThanOrEqual(6);
    }
  });
});

/** As the comparison tells which joint is last, in which share of benches. */
const lastOn = (shares: readonly (readonly [string, number])[]) =>
  ({
    ...result(),
    row: { last: shares.map(([terminal, p]) => ({ terminal, p })) },
  }) as unknown as Parameters<typeof explanation>[0];
const laid = { mass_mg: 100, asked: { targetLiquidus_C: 150 } } as Parameters<typeof amountWords>[1];
const amount = { ratio: 1, mass_mg: 40, wire_mm: 5 };
const told = (more: object) =>
  ({
    ...{ reachable: true, liquidus_C: 149, rules: 'bead', needed: amount, cleanUp: null, notes: [] },
    ...amount,
    ...more,
  }) as Parameters<typeof amountWords>[0];

describe('how much alloy', () => {
  it('names what rules it and what the other needs are', () => {
    const hold = { ...amount, mass_mg: 60.2, freezes_C: 120, seconds: 4 };
    expect(amountWords(told({ hold }), laid, units)).toBe(
      'The bead over the lands rules it; the mixture would want 40 mg to be fluid from 150 °C, 61 mg to stay liquid 3 s for a lift.',
    );
    expect(amountWords(told({ hold: { ...hold, mass_mg: 140 } }), laid, units)).toBe(
      'Too little: 140 mg to stay liquid 3 s for a lift.',
    );
    expect(amountWords(told({ hold: null }), laid, { temperature: 'F', length: 'mm' })).toMatch(
      /302 °F\. It stays liquid for a lift only while the heat is on\.$/,
    );
    expect(amountWords({ reachable: false, why: 'too hot' }, laid, units)).toBe('');
  });
});

describe('sentences', () => {
  it('say how sure it is which joint is last, where it is not', () => {
    const said = (shares: readonly (readonly [string, number])[]) =>
      explanation(lastOn(shares), board, air, units).split(':')[0];
    expect(said([['1', 1]])).toBe('Joint 1 is last');
    expect(
      said([
        ['1', 0.96],
        ['4', 0.04],
      ]),
    ).toBe('Joint 1 is last');
    expect(
      said([
        ['1', 0.62],
        ['4', 0.3],
        ['5', 0.08],
      ]),
    ).toBe('Joint 1 is last on 6 of 10 such boards, else 4 or 5');
    expect(
      said([
        ['4', 0.97],
        ['1', 0.03],
      ]),
    ).toBe('Joint 1 is last as set, 4 on 10 of 10 such boards');
  });
  it('say numbers, the reason, and what would help', () => {
    expect(headline('Air', result(), board)).toBe('Air: look from 30 s');
    expect(explanation(result(), board, air, units)).toMatch(
      /Joint 1 is last: it is far\. No neighbour reaches its limit/,
    );
    expect(explanation(hurts, board, air, units)).toMatch(/11 s before the part on joint 1 is off\. Cover it/);
    expect(explanation(cold, board, air, units)).toMatch(/no hotter than 240 °C .* More air/);
    expect(closedBy(board, hurts)).toBe('PBT');
    expect(closedBy(board, result({ freezes_s: 50 }))).toBe('freezes');
  });
  it('gives ranges with an open end where a station may never get there', () => {
    expect(rangeText(result())).toBe('25 to 40 s');
    expect(rangeText(result({ allWetRange_s: { from: 25, to: null } }))).toBe('from 25 s, may stay solid');
    expect(rangeText(cold)).toBe('');
  });
});

describe('what stays solid', () => {
  const joint = (change: object) => ({
    terminal: '1',
    solidus_s: null,
    liquidus_s: null,
    wet_s: null,
    peak_C: 200,
    solidus_C: 217,
    liquidus_C: 220,
    ...change,
  });
  const solid = (joints: object[], change: Partial<PlanResult> = {}) =>
    result({
      joints: joints.map(joint),
      allWet_s: null,
      allWetRange_s: { from: null, to: null },
      ...change,
    });
  it('is said to stay so only where the whole ensemble does', () => {
    const never = solid([{}]);
    const perhaps = solid([{}], { allWetRange_s: { from: 70, to: null } });
    expect([verdictOf(never).word, verdictOf(perhaps).word]).toEqual(['stays solid', 'may stay solid']);
    expect(headline('Air', never, board)).toBe('Air leaves joint 1 solid');
    expect(headline('Air', perhaps, board)).toBe('Air may leave joint 1 solid');
    expect(explanation(perhaps, board, air, units)).toMatch(/It may melt from 70 s on/);
    expect(explanation(never, board, air, units)).not.toMatch(/may melt/);
  });
  it('names the true reason: too cold, not through, not wet, not emptied, never together', () => {
    const vacuum = methodOf('DIP-8', 'vacuum');
    expect(whySolid(solid([{}]), air, units)).toMatch(
      /no hotter than 200 °C of the 220 °C it needs in 90 s: it is far/,
    );
    expect(whySolid(solid([{ solidus_s: 40, peak_C: 220 }]), air, units)).toMatch(/begins to melt, but is not through/);
    expect(whySolid(solid([{ liquidus_s: 40, peak_C: 247 }]), air, units)).toMatch(/melts, but does not wet/);
    expect(whySolid(solid([{ liquidus_s: 4, peak_C: 247 }]), vacuum, units)).toMatch(
      /not for long enough to be sucked/,
    );
    const turns = solid([
      { liquidus_s: 3, wet_s: 4, peak_C: 247 },
      { terminal: '2', liquidus_s: 5, wet_s: 6, peak_C: 250 },
    ]);
    expect(whySolid(turns, methodOf('SOIC-8', 'bead'), units)).toMatch(
      /^Every joint comes loose, but never all at once/,
    );
    expect(whySolid(turns, methodOf('SOIC-8', 'bead'), units)).not.toMatch(/no hotter/);
  });
  it('advises what the tool at hand can do', () => {
    expect(whySolid(solid([{}]), air, units)).toMatch(/More air/);
    for (const m of [methodOf('SOIC-8', 'bead'), methodOf('DIP-8', 'vacuum'), methodOf('C0805', 'tweezers')]) {
      expect(whySolid(solid([{}]), m, units)).not.toMatch(/air|nozzle|distance/i);
      expect(whySolid(solid([{}]), m, units)).toMatch(/tip/i);
      expect(explanation(hurts, board, m, units)).not.toMatch(/nozzle/);
    }
  });
});

it('a clock is rounded before it is split: no minute is lost at its last half second', () => {
  expect([0, 59.4, 59.6, 60, 119.5, 3599.9].map(mmss)).toEqual(['0:00', '0:59', '1:00', '1:00', '2:00', '60:00']);
});
