/** Ways of working as the comparison shows them. */
import { inTheEnd, type Row } from '@orthos/core/compare';
import { describe, expect, it } from 'vitest';
import { atBench, COUNTS, lasts, neighboursBar, nextWeight, padsBar, partBar, VERDICT } from '../src/lib/plan/ways.ts';
import { express } from './planResult.ts';

const spread = (p50: number) => ({ p5: p50 * 0.8, p50, p95: p50 * 1.5 });
const row = (more: Partial<Row> = {}): Row => ({
  id: 'air-slow',
  name: 'Air, slow',
  verdict: 'works',
  loose_s: spread(40),
  heat_s: spread(40),
  window: { open_s: spread(40), shut_s: spread(60), by: 'PBT', p_open: 0.95 },
  joints: [],
  last: [],
  worst: { partId: 'plastic', margin_K: 30, p_hurt: 0, word: 'clear' },
  land: { terminal: '1', p_torn: 0.004 },
  part: { p_hurt: 0, dose: null, margin_K: 40, word: 'clear' },
  rounds: 1,
  minutes: 4,
  score: 0.07,
  why: 'because',
  procedure: null,
  ...more,
});

describe('bars', () => {
  it('are short where it is kind: few torn lands, neighbours far from their limits', () => {
    const torn = (p_torn: number) => padsBar(row({ land: { terminal: '1', p_torn } }));
    expect(torn(0.004)?.part).toBeLessThan(torn(0.05)?.part ?? 0);
    expect([torn(0.004)?.word, torn(0.2)?.word]).toEqual(['0.4 %', '20 %']);
    expect([torn(0.004)?.tone, torn(0.06)?.tone, torn(0.3)?.tone]).toEqual(['good', 'caution', 'stop']);
    expect(padsBar(row({ land: null }))).toBeNull();
    const near = (margin_K: number, word: 'hurts' | 'may hurt' | 'near' | 'clear' = 'clear') =>
      neighboursBar(row({ worst: { partId: 'plastic', margin_K, p_hurt: 0, word } }), express);
    expect(near(120).part).toBeLessThan(near(20).part);
    expect(near(-5, 'hurts')).toMatchObject({ part: 1, tone: 'stop' });
    expect(near(5, 'may hurt').tone).toBe('caution');
    expect(neighboursBar(row({ worst: null }), express).word).toBe('nobody');
    expect(partBar(row({ part: { p_hurt: 1, dose: null, margin_K: null, word: 'hurts' } }))?.word).toBe('dies');
    expect(partBar(row({ part: null }))).toBeNull();
  });
  it('every verdict has its own mark', () => {
    const marks = Object.values(VERDICT).map((v) => v.mark);
    expect(new Set(marks).size).toBe(marks.length);
  });
});

describe('words', () => {
  it('say both clocks where hands work without heat', () => {
    expect(atBench(row())).toBe('All loose after about 40 s at the bench, 32 s to 60 s.');
    expect(atBench(row({ heat_s: spread(9) }))).toBe(
      'All loose after about 40 s at the bench, 32 s to 60 s; of it 9 s heat.',
    );
    expect(atBench(row({ heat_s: spread(0) }))).toMatch(/of it no heat/);
    expect(atBench(row({ loose_s: { p5: null, p50: null, p95: null } }))).toBe('');
    expect([lasts(59.6), lasts(264)]).toEqual(['60 s', '4.4 min']);
  });
  it('what counts goes round from one to three and to nothing', () => {
    expect([1, 2, 3, 0].map(nextWeight)).toEqual([2, 3, 0, 1]);
    expect(COUNTS).toHaveLength(4);
  });
  it('the order is that of the core', () => {
    const worse = row({ id: 'bead', score: 0.2 });
    expect(inTheEnd([worse, row()]).rows.map((r) => r.id)).toEqual(['air-slow', 'bead']);
  });
});
