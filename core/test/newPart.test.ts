// A new part before it goes on: how it is measured by its class, and whether a reading is what a good one shows.
import { describe, expect, it } from 'vitest';
import { CLASS_NAMES, type PlacedPart } from '../src/board/index.ts';
import { expectNew, isAsExpected } from '../src/diagnosis/index.ts';

const part = (ref: string, pkg: string, value?: string, what?: string): PlacedPart => ({
  ...{ partId: ref, ref, package: pkg, x_mm: 0, y_mm: 0, rotation_deg: 0, side: 'top' },
  ...(value ? { value } : {}),
  ...(what ? { what } : {}),
});

describe('a new part', () => {
  it('shows its value within what a hand meter and its tolerance leave', () => {
    const c = expectNew(part('C1', 'C0603', '100 nF'));
    expect(c.within).toMatchObject({ unit: 'F' });
    expect([c.within?.lo, c.within?.hi].map((v) => (v ?? 0) * 1e9)).toEqual([
      expect.closeTo(80, 6),
      expect.closeTo(120, 6),
    ]);
    expect(['98 nF', '98n', '0,1 µF', '70 nF', '150 n'].map((r) => isAsExpected(c, r))).toEqual([
      true,
      true,
      true,
      false,
      false,
    ]);
    const r = expectNew(part('R1', 'R0603', '4.7 kΩ'));
    expect(['4k7', '4,7 k', '4700', '5.2 kΩ'].map((v) => isAsExpected(r, v))).toEqual([true, true, true, false]);
    expect(expectNew(part('C2', 'C1210', '4.7 µF 100 V')).within?.hi).toBeCloseTo(4.7e-6 * 1.2, 12);
  });
  it('without a value is told by its class alone, and words are no reading', () => {
    const d = expectNew(part('D1', 'SMB', undefined, 'flyback diode'));
    expect(d.within).toBeUndefined();
    expect(d.expect).toMatch(/one way, OL the other/);
    expect(isAsExpected(d, '0.6')).toBeNull();
    expect(isAsExpected(expectNew(part('C1', 'C0603', '100 nF')), 'looks good')).toBeNull();
    expect(isAsExpected(expectNew(part('C1', 'C0603')), '100 nF')).toBeNull();
  });
  it('has a recipe whatever it is', () => {
    expect(CLASS_NAMES.length).toBeGreaterThan(10);
    for (const ref of ['C1', 'R1', 'L1', 'FB1', 'F1', 'K1', 'D1', 'Q1', 'U1', 'Y1', 'J1', 'XX9'])
      expect(expectNew(part(ref, 'C0603')).measure, ref).not.toBe('');
  });
});
