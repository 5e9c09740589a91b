/** Readings between nets: what they are called, where a probe goes for them, which job readings stand for them. */
import { type BoardModel, isGroundNet } from '@orthos/core/board';
import {
  beyondMeter,
  isPowered,
  type MeterType,
  netAt,
  type Netlist,
  probePoints,
  statesOf,
} from '@orthos/core/circuit';
import { formatReading, type Measured, parseReading, type Place, type Quantity } from '@orthos/core/ground';
import type { JobEventBody } from '@orthos/core/job';
import { placeName, placeNamed } from './place';

export interface Probe {
  type: MeterType;
  red: string;
  black: string;
  state: string | null;
}
type ReadingBody = Extract<JobEventBody, { type: 'reading' }>;

export const QUANTITY_OF: Record<MeterType, Quantity> = {
  ohm: 'ohm',
  cont: 'ohm',
  diode: 'diode',
  dcv: 'dcv',
  isup: 'current',
};
export const TYPE_OF: Record<Quantity, MeterType> = { ohm: 'ohm', diode: 'diode', dcv: 'dcv', current: 'isup' };

export const probeKey = ({ type, red, black, state }: Probe): string => `${type}|${red}|${black}|${state ?? ''}`;

export const shown = (type: MeterType, value: Measured): string => formatReading(value, QUANTITY_OF[type]);

/** "3V3 to ground", "red on ground, black on 3V3", "across VIN and VINF", "supply current". */
export function probeName({ type, red, black }: Probe, ground: string): string {
  if (type === 'isup') return 'supply current';
  if (black === ground) return `${red} to ground`;
  if (red === ground) return `red on ground, black on ${black}`;
  return `across ${red} and ${black}`;
}

/** "ohms", "diode mode", "volts, awake". */
export function modeName({ type, state }: Pick<Probe, 'type' | 'state'>): string {
  const word = { ohm: 'ohms', cont: 'continuity', diode: 'diode mode', dcv: 'volts', isup: 'current' }[type];
  return isPowered(type) && state ? `${word}, ${state}` : word;
}

/** What was typed for a reading, or a sentence on why it cannot be one. */
export function readTyped(text: string, type: MeterType): { value: Measured } | { problem: string } {
  const value = parseReading(text);
  if (value === null) return { problem: 'A number such as 4k7, .42, 12m, or OL.' };
  const problem = beyondMeter(type, value);
  return problem === null ? { value } : { problem };
}

/** Where the probe that moves goes. */
export function placeOfProbe(probe: Probe, board: BoardModel, netlist: Netlist | null, near?: Place | null): Place {
  const net = probe.red === groundOf(board, netlist) ? probe.black : probe.red;
  const source = netlist?.power?.states[probe.state ?? '']?.sources[0] ?? netlist?.power?.sources[0];
  const [first] = probePoints(board, netlist, probe.type === 'isup' ? (source?.p ?? '') : net, { near });
  if (first) return first;
  const named = netlist === null ? placeNamed(board, net) : null;
  if (named) return named;
  // a net that the board does not know: the middle of the board, so that nothing typed is lost
  const xs = board.outline_mm.map(([x]) => x);
  const ys = board.outline_mm.map(([, y]) => y);
  const middle = (list: number[]) => (Math.min(...list) + Math.max(...list)) / 2;
  return { x_mm: middle(xs), y_mm: middle(ys), side: 'top' };
}

/** Where the other probe goes: the nearest good land of its net; null for a supply current or where the board does not know the net. */
export function otherPlaceOf(probe: Probe, board: BoardModel, netlist: Netlist, place: Place): Place | null {
  if (probe.type === 'isup' || place.partId === undefined) return null;
  const net = probe.red === netlist.ground ? netlist.ground : probe.black;
  return probePoints(board, netlist, net, { apart: place })[0] ?? null;
}

/** "at C7.1", or nothing where the board does not know the net. */
export const placeWords = (board: BoardModel, place: Place): string =>
  place.partId === undefined ? '' : `at ${placeName(board, place)}`;

type ReadAt = Pick<ReadingBody, 'place' | 'quantity' | 'probe'>;

/**
 * The probe of a reading: as stated, else from where it was taken. Without a circuit, nets are the board's, and a place on none of them is a
 * net of its own by its name.
 */
export function probeOfReading(reading: ReadAt, board: BoardModel, netlist: Netlist | null): Probe | null {
  const { probe, place } = reading;
  const type = TYPE_OF[reading.quantity];
  const ground = groundOf(board, netlist);
  const net = netAt(board, netlist, place) ?? (netlist === null && place.partId ? placeName(board, place) : undefined);
  // a name of the time before there was a circuit, or nets, means its place
  if (probe && (net === undefined || placeNamed(board, probe.red) === null)) return probe;
  const state = netlist && isPowered(type) ? (statesOf(netlist)[0] ?? null) : null;
  if (type === 'isup') return { type, red: '', black: '', state };
  return net === undefined || net === ground ? null : { type, red: net, black: ground, state };
}

/** Ground as the circuit calls it, else the board. */
export function groundOf(board: BoardModel, netlist: Netlist | null): string {
  if (netlist) return netlist.ground;
  return board.parts.flatMap((p) => Object.values(p.nets ?? {})).find(isGroundNet) ?? 'GND';
}
