/**
 * Readings on scales where their errors are even, what each hypothesis gives each reading, and how much
 * information a reading would bring. One bin of OL beside the bins of values.
 */
import { type MeterType, OHM_RANGES } from '../circuit/index.ts';
import type { Measured } from '../ground/index.ts';

/** Share of readings that mean nothing: wrong point, wrong range, bad contact. */
const BLUNDER = 0.02;

interface Scale {
  from: number;
  to: number;
  bins: number;
  /** Readings above this (on the scale) show OL; null: never. */
  open: number | null;
}

const OPEN_OHM = OHM_RANGES[OHM_RANGES.length - 1].full;
const ohmScale = (r: number) => Math.log(Math.max(r, 0) + 0.2);
/** Raw ohms beyond this are all the same: nothing there. */
const NOTHING_OHM = 1e9;

const SCALES: Record<MeterType, Scale> = {
  ohm: { from: ohmScale(0), to: ohmScale(OPEN_OHM), bins: 64, open: ohmScale(OPEN_OHM) },
  cont: { from: ohmScale(0), to: ohmScale(600), bins: 64, open: ohmScale(600) },
  diode: { from: -0.2, to: 2.8, bins: 64, open: 2.8 },
  // a tenth too much on a rail is a bin of its own
  dcv: { from: -5.5, to: 5.5, bins: 128, open: null },
  isup: { from: Math.log(1e-3), to: Math.log(20), bins: 64, open: null },
};

/** A value on the even scale: ln(R + 0.2), volts of a drop, asinh(V / 0.5), ln(I + 1 mA). */
export function onScale(type: MeterType, value: number): number {
  switch (type) {
    case 'ohm':
    case 'cont':
      return ohmScale(Math.min(value, NOTHING_OHM));
    case 'diode':
      return Math.min(value, 3);
    case 'dcv':
      return Math.asinh(value / 0.5);
    case 'isup':
      return Math.log(Math.max(value, 0) + 1e-3);
  }
}

/** dy/dx of `onScale`. */
export function scaleSlope(type: MeterType, value: number): number {
  switch (type) {
    case 'ohm':
    case 'cont':
      return 1 / (Math.max(value, 0) + 0.2);
    case 'diode':
      return 1;
    case 'dcv':
      return 1 / Math.hypot(value, 0.5);
    case 'isup':
      return 1 / (Math.max(value, 0) + 1e-3);
  }
}

/** The value back from the scale. */
export function offScale(type: MeterType, y: number): number {
  switch (type) {
    case 'ohm':
    case 'cont':
      return Math.exp(y) - 0.2;
    case 'diode':
      return y;
    case 'dcv':
      return 0.5 * Math.sinh(y);
    case 'isup':
      return Math.exp(y) - 1e-3;
  }
}

/** One junction drops no more at a milliampere, V. */
const JUNCTION_V = 0.8;

/** What healthy boards of one kind differ by where the model says `y`, on the scale. */
export function healthySpread(type: MeterType, y: number): number {
  switch (type) {
    case 'ohm':
    case 'cont':
      // leakage of boards and parts rules the megohms
      if (y > Math.log(3e6)) return 1.3;
      return y > Math.log(1e3) ? 0.3 : y > Math.log(7) ? 0.15 : 0.2;
    case 'diode':
      // beyond a junction it is the tester's milliampere through ohms of chips
      return y > JUNCTION_V ? Math.max(0.035, 0.2 * y) : 0.035;
    case 'dcv':
      return 0.06;
    case 'isup':
      return 0.25;
  }
}
/** The same against a good board or a twin channel that was read too. */
const TWIN_SPREAD = 0.08;
const TWIN_DIODE = 0.02;
export const twinSpread = (type: MeterType): number => (type === 'diode' ? TWIN_DIODE : TWIN_SPREAD);

/** Φ, to 1e-7 (Abramowitz & Stegun 7.1.26). */
export function normalCdf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x) * Math.SQRT1_2);
  const poly = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const half = 0.5 * poly * Math.exp(-0.5 * x * x);
  return x >= 0 ? 1 - half : half;
}

/** A prediction: where on the scale, how wide. */
export interface Expected {
  y: number;
  s: number;
}

/** Chance of a reading (probability mass of its bin), with blunders. */
export function likelihood(type: MeterType, value: Measured, { y, s }: Expected): number {
  const { from, to, bins, open } = SCALES[type];
  const blunder = BLUNDER / (bins + 1);
  if (value === 'OL') return (1 - BLUNDER) * (open === null ? 0 : 1 - normalCdf((open - y) / s)) + blunder;
  const half = (to - from) / bins / 2;
  const at = Math.min(Math.max(onScale(type, value), from), to);
  const mass = normalCdf((at + half - y) / s) - normalCdf((at - half - y) / s);
  return (1 - BLUNDER) * Math.max(mass, 0) + blunder;
}

/** Chance of a reading when nothing is known of the circuit. */
export const flat = (type: MeterType): number => 1 / (SCALES[type].bins + 1);

/** Probability of every bin, OL last; the ends take the tails. */
export function answers(type: MeterType, { y, s }: Expected): Float64Array {
  const { from, to, bins, open } = SCALES[type];
  const p = new Float64Array(bins + 1);
  const width = (to - from) / bins;
  let below = 0;
  for (let b = 0; b < bins; b++) {
    const upper = normalCdf((from + (b + 1) * width - y) / s);
    p[b] = upper - below;
    below = upper;
  }
  if (open === null) p[bins - 1] += 1 - below;
  else p[bins] = 1 - below;
  for (let b = 0; b <= bins; b++) p[b] = (1 - BLUNDER) * p[b] + BLUNDER / (bins + 1);
  return p;
}

/** Entropy, bits. */
export function entropy(p: Float64Array): number {
  let h = 0;
  for (const x of p) if (x > 0) h -= x * Math.log2(x);
  return h;
}
