/** A part measured before it goes on: how, by its class, what a good one shows, and whether what was read is that. */
import { classOfPart, type PartClass, type PlacedPart } from '../board/index.ts';
import { parseReading } from '../ground/index.ts';

export interface Expected {
  measure: string;
  expect: string;
  /** In ohms, farads or henries, where its value is known. */
  within?: { lo: number; hi: number; unit: Unit };
}
type Unit = 'Ω' | 'F' | 'H';

/** What a hand meter and an unknown tolerance leave, as shares; cans and big ceramics are made wider. */
const WITHIN: Partial<Record<PartClass, { unit: Unit; lo: number; hi: number }>> = {
  mlcc: { unit: 'F', lo: 0.8, hi: 1.2 },
  mlccbig: { unit: 'F', lo: 0.7, hi: 1.2 },
  elko: { unit: 'F', lo: 0.8, hi: 1.3 },
  tant: { unit: 'F', lo: 0.8, hi: 1.2 },
  film: { unit: 'F', lo: 0.9, hi: 1.1 },
  res: { unit: 'Ω', lo: 0.95, hi: 1.05 },
  pres: { unit: 'Ω', lo: 0.9, hi: 1.1 },
  shunt: { unit: 'Ω', lo: 0.95, hi: 1.05 },
  coil: { unit: 'H', lo: 0.75, hi: 1.25 },
};

const MEASURE: Record<PartClass, readonly [measure: string, expect: string]> = {
  mlcc: ['Capacitance, then ohms', 'ohms open'],
  mlccbig: ['Capacitance, then ohms', 'ohms open once charged'],
  elko: ['Capacitance and ESR, polarity on it', 'ESR below an ohm, leakage settling within a minute'],
  tant: ['Capacitance, polarity on it', 'ohms open once charged; its stripe is plus'],
  film: ['Capacitance', 'no series resistance worth telling'],
  res: ['Ohms, leads taken off', 'the value printed'],
  pres: ['Ohms, leads taken off', 'the value printed'],
  shunt: ['Four wires at a known ampere', 'the value printed'],
  coil: ['Inductance, then ohms', 'ohms as on its sheet: below a few'],
  ferrite: ['Ohms', 'below one'],
  fuse: ['Ohms', 'below one; its rating as the old one'],
  relay: ['Coil ohms, then pull it', 'contacts below 0.1 Ω closed, open else'],
  contact: ['Ohms open and closed', 'below 0.1 Ω closed, OL open'],
  crystal: ['Ohms', 'open; its frequency as printed'],
  diode: ['Diode mode both ways', '0.45 to 0.75 V one way, OL the other'],
  schottky: ['Diode mode both ways', '0.15 to 0.4 V one way, OL the other'],
  tvs: ['Diode mode both ways', 'OL, or one diode of 0.5 to 0.8 V where it clamps one way'],
  led: ['Diode mode or a milliampere', 'it lights'],
  mosfet: ['Ohms G–S, diode mode D–S', 'G–S open, 0.4 to 0.7 V one way, OL the other'],
  bjt: ['Diode mode B–E and B–C', '0.55 to 0.75 V each one way, C–E open'],
  power: ['Diode mode from ground to every pin', 'as the sound pins of the old one; number on it exact'],
  load: ['Diode mode from ground to every pin', 'as the sound pins of the old one; number on it exact'],
  esd: ['Diode mode from ground to each line', 'all lines alike'],
  conn: ['Each contact end to end', 'below 0.1 Ω, neighbours open'],
};

/** What another part than the old one has to match or beat, by class; for all: package, pins, temperature. */
const NO_WORSE: Partial<Record<PartClass, string>> = {
  mlcc: 'capacitance, volts, dielectric',
  mlccbig: 'capacitance at its volts, dielectric',
  elko: 'capacitance, volts, ripple current, ESR no higher, hours and degrees',
  tant: 'capacitance, volts (half of them in use), ESR',
  film: 'capacitance, volts, safety class',
  res: 'ohms, tolerance, watts',
  pres: 'ohms, watts, volts',
  shunt: 'ohms, tolerance, watts',
  coil: 'inductance, saturation current, ohms no higher',
  ferrite: 'amperes, ohms at its frequency',
  fuse: 'amperes, speed, volts, breaking capacity: never stronger',
  relay: 'coil volts, contact amperes, pins',
  crystal: 'frequency, load capacitance',
  diode: 'volts, amperes, recovery no slower',
  schottky: 'volts, amperes, forward volts',
  tvs: 'stand-off and clamping volts, watts, one way or both',
  led: 'colour, forward volts, viewing angle',
  mosfet: 'volts, amperes, on-resistance, gate volts, gate charge',
  bjt: 'polarity, pin order, volts, amperes, gain',
  power: 'pin for pin, volts, amperes, frequency, variant of its output',
  load: 'pin for pin, volts, speed, firmware or variant in its number',
  esd: 'stand-off volts, capacitance, pin order',
  conn: 'pitch, height, polarity, cycles',
};

/** What to hold a substitute against before it is accepted. */
export const noWorseThan = (part: PlacedPart): string => NO_WORSE[classOfPart(part)] ?? 'all that its sheet says';

const SIGNS = { Ω: '(?:Ω|ohm)', F: 'F', H: 'H' } as const;

/** A value with its unit anywhere in a text, such as "4.7 µF 100 V"; `bare`: a number and prefix alone will do. */
function valueIn(text: string, unit: Unit, bare = false): number | undefined {
  // what is typed as an ohm sign may be either of two characters
  const plain = text.normalize('NFKC').replaceAll('μ', 'µ');
  const found = new RegExp(`([\\d.,]+\\s*[pnuµmkM]?\\d*)\\s*${SIGNS[unit]}`, 'i').exec(plain)?.[1];
  const value = found || bare ? parseReading(found ?? plain) : null;
  return typeof value === 'number' ? value : undefined;
}

/** How a new part of this place is measured, and what it should show. */
export function expectNew(part: PlacedPart): Expected {
  const cls = classOfPart(part);
  const [measure, expect] = MEASURE[cls];
  const band = WITHIN[cls];
  const value = band && valueIn(`${part.value ?? ''} ${part.what ?? ''}`, band.unit);
  if (!band || value === undefined) return { measure, expect };
  return { measure, expect, within: { lo: value * band.lo, hi: value * band.hi, unit: band.unit } };
}

/** Whether a reading is what a good one shows; null where it is no such number, or nothing is known. */
export function isAsExpected({ within }: Expected, read: string): boolean | null {
  const value = within && valueIn(read, within.unit, true);
  return within && value !== undefined ? value >= within.lo && value <= within.hi : null;
}
