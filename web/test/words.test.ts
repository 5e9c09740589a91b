import { expressBoard, methodsFor, type Method, type PlanResult } from '@orthos/core';
import { describe, expect, it } from 'vitest';
import { bestMethod, closedBy, explanation, headline, rangeText, verdictOf, whySolid } from '../src/lib/plan/words.ts';

const board = expressBoard({ package: 'SOIC-8', boardKind: 'thin', plastic: 'pbt', distance_mm: 4 });
const result = (change: Partial<PlanResult> = {}): PlanResult => ({
  joints: [{ terminal: '1', solidus_s: 20, liquidus_s: 30, peak_C: 240 }],
  allWet_s: 30,
  freezes_s: null,
  last: { terminal: '1', why: 'it is far' },
  body_C: 240,
  pads_C: 235,
  neighbours: [],
  closes: null,
  ended_s: 90,
  cells: 1,
  steps: 1,
  allWetRange_s: { from: 25, to: 40 },
  closesRange_s: { from: null, to: null },
  matters: [],
  calibrated: false,
  ...change,
});
const methodOf = (pkg: string, kind: Method['kind']): Method => {
  const found = methodsFor(pkg).find((m) => m.method.kind === kind)?.method;
  if (!found) throw new Error(`no ${kind} for ${pkg}`);
  return found;
};
const air = methodOf('SOIC-8', 'air');
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
  it('proposes the best: verdict first, then the longer window', () => {
    expect(bestMethod({ a: cold, b: hurts, c: result({ ended_s: 50 }), d: result() })).toBe('d');
    expect(bestMethod({})).toBeNull();
  });
});

describe('sentences', () => {
  it('say numbers, the reason, and what would help', () => {
    expect(headline('Air', result(), board)).toBe('Air: look from 30 s');
    expect(explanation(result(), board, air, units)).toMatch(
      /Joint 1 is last: it is far\. No neighbour reaches its limit/,
    );
    expect(explanation(hurts, board, air, units)).toMatch(/8 s before joint 1 is wet\. Cover it/);
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
    const vacuum = methodOf('DIP-8', 'iron');
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
    expect(whySolid(turns, methodOf('SOIC-8', 'low-melt'), units)).toMatch(
      /^Every joint comes loose, but never all at once/,
    );
    expect(whySolid(turns, methodOf('SOIC-8', 'low-melt'), units)).not.toMatch(/no hotter/);
  });
  it('advises what the tool at hand can do', () => {
    expect(whySolid(solid([{}]), air, units)).toMatch(/More air/);
    for (const m of [methodOf('SOIC-8', 'low-melt'), methodOf('DIP-8', 'iron'), methodOf('C0805', 'iron')]) {
      expect(whySolid(solid([{}]), m, units)).not.toMatch(/air|nozzle|distance/i);
      expect(whySolid(solid([{}]), m, units)).toMatch(/tip/i);
      expect(explanation(hurts, board, m, units)).not.toMatch(/nozzle/);
    }
  });
});
