import { expressBoard, type PlanResult } from '@orthos/core';
import { describe, expect, it } from 'vitest';
import { bestMethod, closedBy, explanation, headline, rangeText, verdictOf } from '../src/lib/plan/words.ts';

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
const units = { temperature: 'C', length: 'mm' } as const;
const cold = result({ allWet_s: null, allWetRange_s: { from: null, to: null } });
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
    expect(explanation(result(), board, units)).toMatch(/Joint 1 is last: it is far\. No neighbour reaches its limit/);
    expect(explanation(hurts, board, units)).toMatch(/8 s before joint 1 is wet\. Cover it/);
    expect(explanation(cold, board, units)).toMatch(/no hotter than 240 °C .* More air/);
    expect(closedBy(board, hurts)).toBe('PBT');
    expect(closedBy(board, result({ freezes_s: 50 }))).toBe('freezes');
  });
  it('gives ranges with an open end where a station may never get there', () => {
    expect(rangeText(result())).toBe('25 to 40 s');
    expect(rangeText(result({ allWetRange_s: { from: 25, to: null } }))).toBe('from 25 s, or never');
    expect(rangeText(cold)).toBe('');
  });
});
