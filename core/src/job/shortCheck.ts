/** The short check before power: one rail's resistance against a good board or against the rail's nature. */
import { formatReading } from '../quantities/readings.ts';
import type { Measured } from './eventForms.ts';

/** Below this part of a good board's reading a rail counts as short (bench judgement). */
export const SHORT_SHARE = 0.2;
/** Only a rail of which nothing is known is judged by a bare number, Ω (bench judgement). */
export const UNKNOWN_RAIL_OHM = 20;

const ohms = (v: Measured): string => formatReading(v, 'ohm');

/**
 * Judges one measurement, Ω. A low rail may be healthy: rails of big chips, motors and heaters are low by nature,
 * so without a reference a low reading is "unknown", not "short".
 */
export function judgeShort(check: {
  ohm: Measured;
  good_ohm: number | null;
  nature: { why: string; least_ohm: number } | null;
}): { state: 'met' | 'unmet' | 'unknown'; why: string } {
  const { ohm, good_ohm, nature } = check;
  const value = ohm === 'OL' ? Infinity : ohm;
  if (good_ohm !== null) {
    const why = `${ohms(ohm)}, good board ${ohms(good_ohm)}`;
    return { state: value >= SHORT_SHARE * good_ohm ? 'met' : 'unmet', why };
  }
  if (nature !== null) {
    const why = `${ohms(ohm)}, ${nature.why}: at least ${ohms(nature.least_ohm)}`;
    return { state: value >= nature.least_ohm ? 'met' : 'unmet', why };
  }
  if (value >= UNKNOWN_RAIL_OHM) return { state: 'met', why: `${ohms(ohm)}, not short` };
  return { state: 'unknown', why: `${ohms(ohm)} may be a short or its nature: compare with a good board` };
}
