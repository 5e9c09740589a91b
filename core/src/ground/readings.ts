/** Readings as people type and read them: `4k7`, `.42`, `0,33`, `12m`, `OL`, `0L`. */
import { z } from 'zod';

/** What a meter shows: a number in base units, or "OL". */
export const measuredSchema = z.union([z.number(), z.literal('OL')]);
export type Measured = z.infer<typeof measuredSchema>;

const PREFIX: Record<string, number> = { p: 1e-12, n: 1e-9, u: 1e-6, µ: 1e-6, m: 1e-3, k: 1e3, K: 1e3, M: 1e6, G: 1e9 };
const NUMBER = /^([-+]?)(\d*)(?:([.,])(\d*))?\s*([pnuµmkKMG]?)(\d*)\s*(?:Ω|ohm|V|A|R)?$/i;

/** Value in base units, "OL", or null when it cannot be read. */
export function parseReading(text: string): Measured | null {
  const trimmed = text.trim();
  if (/^[o0]\.?l\.?$/i.test(trimmed)) return 'OL';
  const match = NUMBER.exec(trimmed);
  if (!match) return null;
  const [, sign, whole, point, decimals = '', prefix, tail] = match;
  if (whole === '' && decimals === '') return null;
  // a prefix in the place of the decimal sign: 4k7
  if (tail !== '' && (prefix === '' || point)) return null;
  const digits = tail !== '' ? `${whole}.${tail}` : `${whole || '0'}.${decimals || '0'}`;
  const value = Number(digits) * (prefix ? (PREFIX[prefix] ?? PREFIX[prefix.toLowerCase()] ?? 1) : 1);
  return Number.isFinite(value) ? (sign === '-' ? -value : value) : null;
}

const STEPS: [number, string][] = [
  [1e6, 'M'],
  [1e3, 'k'],
  [1, ''],
  [1e-3, 'm'],
  [1e-6, 'µ'],
];

export const UNITS = { ohm: 'Ω', diode: 'V', dcv: 'V', current: 'A' } as const;
export type Quantity = keyof typeof UNITS;

/** Three digits with a prefix: 2070 Ω → "2.07 kΩ". */
export function formatReading(value: Measured, quantity: Quantity): string {
  const unit = UNITS[quantity];
  if (value === 'OL') return 'OL';
  if (value === 0) return `0 ${unit}`;
  const size = Math.abs(value);
  // below the last digit of any meter
  if (unit === 'V' && size < 5e-5) return '0 V';
  // volts and small ohms stay as a meter shows them: 0.487 V, 0.7 Ω
  if (unit === 'V' || (unit === 'Ω' && size < 1 && size >= 0.01)) return `${Number(value.toPrecision(3))} ${unit}`;
  return prefixed(value, unit, STEPS);
}

const SMALLER: [number, string][] = [...STEPS, [1e-9, 'n'], [1e-12, 'p']];
/** Three digits with a prefix, of any unit: 1e-7, F → "100 nF". */
export const formatValue = (value: number, unit: string): string => prefixed(value, unit, SMALLER);

function prefixed(value: number, unit: string, steps: readonly [number, string][]): string {
  const [factor, prefix] = steps.find(([f]) => Math.abs(value) >= f * 0.9995) ?? steps[steps.length - 1];
  return `${Number((value / factor).toPrecision(3))} ${prefix}${unit}`;
}

/**
 * How far a reading is from the good one: 'same' within what two healthy boards differ, 'low', 'high',
 * or null without a reference. Ohms are compared by ratio (30 %), diode drops by 60 mV, volts by 8 %.
 */
export function compareReading(
  value: Measured,
  good: Measured | null,
  quantity: Quantity,
): 'same' | 'low' | 'high' | null {
  if (good === null) return null;
  if (value === 'OL' || good === 'OL') {
    if (value === good) return 'same';
    return value === 'OL' ? 'high' : 'low';
  }
  const tolerance =
    quantity === 'diode'
      ? 0.06
      : Math.abs(good) * (quantity === 'dcv' ? 0.08 : 0.3) + (quantity === 'ohm' ? 0.3 : 0.002);
  if (Math.abs(value - good) <= tolerance) return 'same';
  return value < good ? 'low' : 'high';
}
