import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareReading, formatReading, parseReading } from '../src/ground/readings.ts';
import { formatLength, formatTemperature, parseDecimal, toCelsius } from '../src/ground/units.ts';

describe('readings as people type them', () => {
  it.each([
    ['4k7', 4700],
    ['4.7k', 4700],
    ['.42', 0.42],
    ['0,33', 0.33],
    ['12m', 0.012],
    ['2M2', 2.2e6],
    ['47', 47],
    ['-0.5 V', -0.5],
    ['86 Ω', 86],
    ['10u', 1e-5],
    ['OL', 'OL'],
    ['0L', 'OL'],
    ['o.l.', 'OL'],
  ] as const)('%s', (text, value) => {
    const parsed = parseReading(text);
    if (value === 'OL') expect(parsed).toBe('OL');
    else expect(parsed).toBeCloseTo(value, 12);
  });
  it.each(['', '-', 'k', '4k7k', '1.2.3', '4.7k2', 'short', '1e5'])('refuses %j', (text) => {
    expect(parseReading(text)).toBeNull();
  });
  it('reads back what it writes, to three digits', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-5, max: 9e7, noNaN: true }), (v) => {
        const back = parseReading(formatReading(v, 'ohm'));
        expect(typeof back === 'number' && Math.abs(back / v - 1)).toBeLessThan(0.006);
      }),
    );
  });
});

describe('comparison with a good board', () => {
  it.each([
    [1.4, 2400, 'ohm', 'low'],
    [2070, 2100, 'ohm', 'same'],
    [0.52, 0.53, 'diode', 'same'],
    [0.04, 0.61, 'diode', 'low'],
    ['OL', 2100, 'ohm', 'high'],
    ['OL', 'OL', 'ohm', 'same'],
    [3.29, 3.3, 'dcv', 'same'],
    [1.1, 9.2, 'dcv', 'low'],
    [5, null, 'dcv', null],
  ] as const)('%s against %s %s: %s', (value, good, quantity, verdict) => {
    expect(compareReading(value, good, quantity)).toBe(verdict);
  });
});

describe('units', () => {
  it('writes and reads both scales', () => {
    const f = { temperature: 'F', length: 'mil' } as const;
    expect(formatTemperature(200, f)).toBe('392 °F');
    expect(toCelsius(392, f)).toBeCloseTo(200, 9);
    expect(formatLength(2.54, f)).toBe('100 mil');
    expect(formatLength(2.54, { temperature: 'C', length: 'in' })).toBe('0.100 in');
  });
  it.each([
    ['1.5', 1.5],
    ['1,5', 1.5],
    [',5', 0.5],
    ['-2', -2],
    ['1.000,5', null],
    ['x', null],
    ['', null],
  ])('decimal %j', (text, value) => {
    expect(parseDecimal(text)).toBe(value);
  });
});
