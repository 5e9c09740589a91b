/**
 * What a hand-held meter and a bench supply would show. Ohms: 0.6 V behind the range's resistance, the
 * first range that fits; diode mode: 1 mA, open above 2.8 V; continuity: the lowest ohm range; volts:
 * 10 MΩ across the probes; supply current. Typical of 6,000-count meters.
 */
import type { Measured } from '../ground/index.ts';
import { NetlistError } from './netlist.ts';
import type { Network } from './network.ts';
import type { Stimulus } from './equations.ts';
import type { NetworkSolver, Solution } from './solver.ts';

export const METER_TYPES = ['ohm', 'diode', 'cont', 'dcv', 'isup'] as const;
export type MeterType = (typeof METER_TYPES)[number];

/** Test voltage of the ohm ranges, V. */
const OHM_V = 0.6;
/** Full scale and resistance behind the test voltage of each range, Ω. */
export const OHM_RANGES = [
  { full: 600, behind: 1e3 },
  { full: 6e3, behind: 1e4 },
  { full: 6e4, behind: 1e5 },
  { full: 6e5, behind: 1e6 },
  { full: 6e6, behind: 1e7 },
  { full: 6e7, behind: 1e7 },
] as const;
const DIODE_A = 1e-3;
const DIODE_CLAMP_V = 3;
const DIODE_OPEN_V = 2.8;
/** Below this a continuity tester beeps, Ω. */
export const BEEP_OHM = 40;
/** Input resistance of the voltmeter, S. */
const VOLTMETER_S = 1e-7;

export interface Probe {
  type: MeterType;
  /** Nets of the probes; `isup` may name the supply's net, or none for all supplies. */
  red?: string;
  black?: string;
}

export interface Shown {
  value: Measured;
  converged: boolean;
  /** Range of an ohm reading, index into `OHM_RANGES`. */
  range?: number;
  /** The network as the meter left it, to start the next solution from. */
  solution: Solution;
}

/** True for a reading that needs the board powered. */
export const isPowered = (type: MeterType): boolean => type === 'dcv' || type === 'isup';

/** The range a value is read on, as the dial says; `auto` where it does not matter. */
export function rangeOf(type: MeterType, value: Measured): string {
  if (type === 'diode') return '1 mA';
  if (type !== 'ohm' && type !== 'cont') return 'auto';
  const row = value === 'OL' ? undefined : OHM_RANGES.find((r) => value <= r.full);
  const { full } = row ?? OHM_RANGES[OHM_RANGES.length - 1];
  return full >= 1e6 ? `${full / 1e6} MΩ` : full >= 1e3 ? `${full / 1e3} kΩ` : `${full} Ω`;
}

/** Most volts and amperes that a hand-held meter, or a bench supply's display, shows. */
const MOST_V = 1000;
const MOST_A = 20;

/** Why a value cannot have been shown in this mode; null when it can. */
export function beyondMeter(type: MeterType, value: Measured): string | null {
  if (value === 'OL')
    return type === 'dcv' || type === 'isup' ? 'Volts and amperes have no OL: type the number.' : null;
  switch (type) {
    case 'ohm':
    case 'cont':
      if (value < 0) return 'Ohms below nothing: take the board’s power away, then read again.';
      return value > OHM_RANGES[OHM_RANGES.length - 1].full ? 'More than 60 MΩ shows as OL: type OL.' : null;
    case 'diode':
      if (value < -0.1) return 'Diode mode shows no minus: is there still voltage on the board?';
      return value > DIODE_OPEN_V ? 'Diode mode shows OL above 2.8 V: volts are typed here, 0.45 for 450 mV.' : null;
    case 'dcv':
      return Math.abs(value) > MOST_V ? 'More than 1000 V: no hand-held meter shows that.' : null;
    case 'isup':
      return Math.abs(value) > MOST_A ? 'More than 20 A: amperes are typed here, 35m for 35 mA.' : null;
  }
}

/** Node of a net; throws a sentence for one that is not there. */
export function probeNode(network: Network, net: string): number {
  const node = network.node(net);
  if (node === undefined) throw new NetlistError(`no net ${net} in the circuit`);
  return node;
}

/** What an ohm range does to the circuit. */
export const ohmStimulus = (red: number, black: number, range: number): Stimulus => {
  const g = 1 / OHM_RANGES[range].behind;
  return { red, black, g, i: OHM_V * g };
};
export const diodeStimulus = (red: number, black: number): Stimulus => ({
  red,
  black,
  g: 0,
  i: DIODE_A,
  clamp_V: DIODE_CLAMP_V,
});
export const voltStimulus = (red: number, black: number): Stimulus => ({ red, black, g: VOLTMETER_S, i: 0 });

/** Ohms that a range shows for the voltage across its probes; null when it is over range. */
export function ohmsAt(range: number, across_V: number): number | null {
  const { full, behind } = OHM_RANGES[range];
  const r = (behind * across_V) / (OHM_V - across_V);
  return across_V < OHM_V && r <= full ? r : null;
}

/** Reads a meter laid on the network. `start`: voltages of a like reading, to save work. */
export function readMeter(solver: NetworkSolver, probe: Probe, start?: Float64Array): Shown {
  const { network } = solver;
  if (probe.type === 'isup') {
    const solution = solver.solve(null, start);
    return { value: solver.supplyCurrent(solution.v, probe.red), converged: solution.converged, solution };
  }
  const red = probeNode(network, probe.red ?? '');
  const black = probe.black === undefined ? network.size : probeNode(network, probe.black);
  const across = (s: Solution) => s.v[red] - s.v[black];
  if (probe.type === 'dcv') {
    const solution = solver.solve(voltStimulus(red, black), start);
    return { value: across(solution), converged: solution.converged, solution };
  }
  if (probe.type === 'diode') {
    const solution = solver.solve(diodeStimulus(red, black), start);
    const v = across(solution);
    return { value: v > DIODE_OPEN_V ? 'OL' : v, converged: solution.converged, solution };
  }
  return readOhms(solver, red, black, { ranges: probe.type === 'cont' ? 1 : OHM_RANGES.length, start });
}

/** Junction currents below this share of the meter's do not bend a reading. */
const STRAIGHT = 1e-4;

/**
 * The lowest range that fits, looked for from `guess` on: a circuit whose junctions carry nothing reads the
 * same on every range, else the range below is tried too.
 */
export function readOhms(
  solver: NetworkSolver,
  red: number,
  black: number,
  { guess = 0, start, ranges = OHM_RANGES.length }: { guess?: number; start?: Float64Array; ranges?: number } = {},
): Shown {
  let converged = true;
  let from = start;
  const tried = (range: number) => {
    const solution = solver.solve(ohmStimulus(red, black, range), from);
    from = solution.v;
    converged &&= solution.converged;
    const across_V = solution.v[red] - solution.v[black];
    const ohms = ohmsAt(range, across_V);
    const meter_A = (OHM_V - across_V) / OHM_RANGES[range].behind;
    const straight = solver.bent_A < STRAIGHT * Math.abs(meter_A);
    return { range, ohms, straight, solution };
  };
  let best = tried(Math.min(guess, ranges - 1));
  while (best.ohms === null && best.range < ranges - 1) best = tried(best.range + 1);
  while (best.ohms !== null && best.range > 0) {
    if (best.straight && best.ohms > OHM_RANGES[best.range - 1].full) break;
    const lower = tried(best.range - 1);
    if (lower.ohms === null) break;
    best = lower;
  }
  return { value: best.ohms ?? 'OL', converged, range: best.range, solution: best.solution };
}
