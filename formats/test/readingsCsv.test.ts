import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BoardFileError, readReadings, writeReadings, type ReadingRow } from '../src/index.ts';

const complaint = (text: string): string => {
  try {
    readReadings(text);
  } catch (e) {
    if (e instanceof BoardFileError) return e.sentence;
    throw e;
  }
  throw new Error('was taken');
};

describe('readings as a table', () => {
  it('takes values as people type them', () => {
    const rows = readReadings(
      'type,red,black,state,value,good\nohm,3V3,GND,,4k7,"2,4k"\ndcv,3V3,GND,awake,.42,\ndiode,GND,SW,,0L,OL\n',
    );
    expect(rows).toEqual([
      { type: 'ohm', red: '3V3', black: 'GND', state: '', value: 4700, good: 2400 },
      { type: 'dcv', red: '3V3', black: 'GND', state: 'awake', value: 0.42, good: null },
      { type: 'diode', red: 'GND', black: 'SW', state: '', value: 'OL', good: 'OL' },
    ]);
  });
  it('does without the columns that may be missing, in any order, with a byte order mark', () => {
    expect(readReadings('\uFEFFvalue;Red;TYPE\n12m;A;isup\n')).toEqual([
      { type: 'isup', red: 'A', black: '', state: '', value: 0.012, good: null },
    ]);
  });
  it('names the line and what would be accepted', () => {
    expect(complaint('type,red,value\nohm,A,much\n')).toBe(
      'line 2: value: "much" is no reading such as 4k7, 0.42 or OL',
    );
    expect(complaint('type,red,value\nohm,A,1\nfarad,B,2\n')).toContain('line 3: "farad" is none of ohm');
    expect(complaint('place,value\nA,1\n')).toContain('missing: type, red');
    expect(complaint(`type,red,value\n${'ohm,A,1\n'.repeat(5001)}`)).toContain('more than 5000');
  });
  it('gives no spreadsheet anything to run', () => {
    const text = writeReadings([{ type: 'ohm', red: '=cmd()', black: '+12V', state: '', value: -1.5, good: null }]);
    expect(text.split('\n')[1]).toBe("ohm,'=cmd(),'+12V,,-1.5,");
    expect(readReadings(text)[0]).toMatchObject({ red: '=cmd()', black: '+12V', value: -1.5 });
  });
  it('comes back as it went', () => {
    const net = fc.stringMatching(/^[A-Za-z0-9_.+=@-]{1,12}$/);
    const value = fc.option(
      fc.oneof(
        fc.double({ min: -1e6, max: 6e7, noNaN: true }).map((v) => Number(v.toPrecision(9)) + 0),
        fc.constant('OL' as const),
      ),
    );
    const row = fc.record({
      type: fc.constantFrom('ohm', 'diode', 'dcv', 'isup', 'cont'),
      red: net,
      black: net,
      state: fc.oneof(fc.constant(''), net),
      value,
      good: value,
    });
    fc.assert(
      fc.property(fc.array(row as fc.Arbitrary<ReadingRow>, { minLength: 1, maxLength: 20 }), (rows) => {
        const plain = rows.map((r) => ({ ...r, value: tidy(r.value), good: tidy(r.good) }));
        expect(readReadings(writeReadings(plain))).toEqual(plain);
      }),
      { numRuns: 50 },
    );
  });
});

/** Values that a table writes without an exponent. */
const tidy = (v: ReadingRow['value']): ReadingRow['value'] =>
  typeof v === 'number' ? (Math.abs(v) < 1e-4 ? 0 : Number(v.toFixed(6)) + 0) : v;
