import { describe, expect, it } from 'vitest';
import { limitLines, readLimits } from '../src/lib/settings/limits.ts';

describe('limits of a shop', () => {
  it('are lines of a row, degrees and perhaps seconds, and come back as they were', () => {
    const limits = { 'elko-radial': { C: 140, s: 10 }, 'pbt-gf': { C: 190 } };
    expect(readLimits(limitLines(limits))).toEqual({ limits });
    expect(readLimits('\n  pbt-gf   190 \n')).toEqual({ limits: { 'pbt-gf': { C: 190 } } });
    expect(readLimits('')).toEqual({ limits: {} });
    expect(limitLines()).toBe('');
  });
  it.each([
    ['jelly 80', /"jelly" is no row/],
    ['pbt-gf', /pbt-gf: 30 to 500/],
    ['pbt-gf hot', /30 to 500/],
    ['pbt-gf 900', /30 to 500/],
    ['pbt-gf 190 9999', /30 to 500/],
    ['pbt-gf 190\npbt-gf 200', /said twice/],
    ['toString 90', /is no row/],
  ])('%j is refused with its reason', (text, issue) => {
    const read = readLimits(text);
    expect('issue' in read && read.issue).toMatch(issue);
  });
});
