/** Readings of good boards over several units: one value with its spread. */
import type { MeterType } from '../circuit/index.ts';
import type { Measured } from '../ground/index.ts';
import { offScale, onScale } from './evidence.ts';

export interface Reference {
  value: Measured;
  /** Range in which two thirds of the units lie; null with fewer than two. */
  from: number | null;
  to: number | null;
  units: number;
}

/**
 * Middle and spread of one reading over good boards; a unit read several times counts once, with its last
 * value. Null without any.
 */
export function referenceOf(type: MeterType, readings: readonly { unit: string; value: Measured }[]): Reference | null {
  const units = new Map(readings.map((r) => [r.unit, r.value]));
  if (units.size === 0) return null;
  const values = [...units.values()];
  const open = values.filter((v) => v === 'OL').length;
  if (2 * open > values.length) return { value: 'OL', from: null, to: null, units: units.size };
  const ys = values.flatMap((v) => (v === 'OL' ? [] : [onScale(type, v)])).sort((a, b) => a - b);
  const middle = (ys[(ys.length - 1) >> 1] + ys[ys.length >> 1]) / 2;
  const value = offScale(type, middle);
  if (ys.length < 2) return { value, from: null, to: null, units: units.size };
  const mean = ys.reduce((a, b) => a + b, 0) / ys.length;
  const sigma = Math.sqrt(ys.reduce((sum, y) => sum + (y - mean) ** 2, 0) / (ys.length - 1));
  return { value, from: offScale(type, middle - sigma), to: offScale(type, middle + sigma), units: units.size };
}
