/** The short check before power: one rail's resistance against a good board, the rail's nature, or what its voltage would drive through it. */
import { voltsOf } from '../board/index.ts';
import { formatReading, type Measured } from '../ground/index.ts';

/** Below this part of a good board's reading a rail is short, from the other on it is sound; between them nobody knows (bench judgement). */
export const SHORT_SHARE = 0.2;
const SOUND_SHARE = 0.5;
/** What a rail may draw when nothing but its voltage is known, W: 1 kΩ at 48 V (bench judgement). */
const MODEST_W = 2.3;
/** With not even that known, Ω. */
export const SURELY_OHM = 1000;
/** Two usual leads, taken off where they matter, Ω. */
const LEADS_OHM = 0.2;
const LEADS_MATTER_OHM = 5;

const ohms = (v: Measured): string => formatReading(v, 'ohm');

interface ShortVerdict {
  state: 'met' | 'unmet' | 'unknown';
  why: string;
}

/**
 * Judges one measurement, Ω or in diode mode. A low rail may be healthy: rails of big chips, motors and heaters are low by nature,
 * so without a reference a low reading is "unknown", not "short".
 */
export function judgeShort(check: {
  rail?: string | undefined;
  ohm?: Measured | undefined;
  /** Read in diode mode instead, V, and what a good board shows there. */
  diode?: { V: Measured; good_V: number | null } | undefined;
  good_ohm: number | null;
  nature: { why: string; least_ohm: number } | null;
}): ShortVerdict {
  const { ohm, diode, good_ohm, nature, rail = '' } = check;
  if (diode) return judgeDiode(diode);
  if (ohm === undefined) return { state: 'unknown', why: 'not read' };
  const read = ohm === 'OL' ? Infinity : ohm;
  const value = read < LEADS_MATTER_OHM ? Math.max(0, read - LEADS_OHM) : read;
  if (good_ohm !== null) {
    const why = `${ohms(ohm)}, good board ${ohms(good_ohm)}`;
    if (value >= SOUND_SHARE * good_ohm) return { state: 'met', why };
    if (value < SHORT_SHARE * good_ohm) return { state: 'unmet', why };
    return { state: 'unknown', why: `${why}: low; measure the other way round, and compare once more` };
  }
  if (nature !== null) {
    const why = `${ohms(ohm)}, ${nature.why}: at least ${ohms(nature.least_ohm)}`;
    return { state: read >= nature.least_ohm ? 'met' : 'unmet', why };
  }
  const volts = voltsOf(rail);
  const watts = volts === null ? null : volts ** 2 / value;
  if (watts !== null && watts <= MODEST_W)
    return { state: 'met', why: `${ohms(ohm)}, not short: ${drawn(watts)} at ${volts} V` };
  if (watts === null && value >= SURELY_OHM) return { state: 'met', why: `${ohms(ohm)}, not short` };
  const power = watts === null || !Number.isFinite(watts) ? '' : ` (${drawn(watts)} at ${volts} V)`;
  return { state: 'unknown', why: `${ohms(ohm)}${power} may be a short or its nature: compare with a good board` };
}

/** A meter drives about 1 mA: this many volts are this many kilohms at most, so next to nothing is a short (bench judgement). */
const NOTHING_V = 0.02;
const JUNCTION_V = 0.2;
const SAME_V = 0.05;

function judgeDiode({ V, good_V }: { V: Measured; good_V: number | null }): ShortVerdict {
  if (V === 'OL') return { state: 'met', why: 'OL in diode mode, not short' };
  const told = `${formatReading(V, 'diode')} in diode mode`;
  if (V < NOTHING_V) return { state: 'unmet', why: `${told}: short` };
  if (good_V !== null) {
    const why = `${told}, good board ${formatReading(good_V, 'diode')}`;
    if (V >= good_V - SAME_V) return { state: 'met', why };
    return V < SHORT_SHARE * good_V
      ? { state: 'unmet', why }
      : { state: 'unknown', why: `${why}: low; read it in ohms` };
  }
  return V >= JUNCTION_V
    ? { state: 'met', why: `${told}: a junction, not short` }
    : { state: 'unknown', why: `${told}: low; read it in ohms, or on a good board` };
}

const drawn = (W: number): string => (W < 0.1 ? `${Math.max(1, Math.round(W * 1000))} mW` : `${W.toPrecision(2)} W`);
