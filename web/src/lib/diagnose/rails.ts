/** Which rail a search along copper begins with, and where its current goes in. */
import { type BoardModel, isGroundNet } from '@orthos/core/board';
import { classOf, type Netlist } from '@orthos/core/circuit';
import { compareReading, type Place } from '@orthos/core/ground';
import type { JobState } from '@orthos/core/job';
import { probeOfReading } from './probes';

/** With no reference, ohms below this look like a short. */
const LOW_OHM = 20;

/** A net with fewer parts is no rail. */
const RAIL_PARTS = 3;

/** Nets of a board that several parts hang on, the fullest first. */
export function railsOfBoard(board: BoardModel): { net: string; parts: number }[] {
  const count = new Map<string, number>();
  for (const part of board.parts)
    for (const net of new Set(Object.values(part.nets ?? {})))
      if (!isGroundNet(net)) count.set(net, (count.get(net) ?? 0) + 1);
  return [...count]
    .map(([net, parts]) => ({ net, parts }))
    .filter((r) => r.parts >= RAIL_PARTS)
    .sort((a, b) => b.parts - a.parts);
}

/** The net of `nets` that reads lowest to ground, if it reads too low or looks short; null where none does. */
export function lowestRail(
  board: BoardModel,
  netlist: Netlist | null,
  readings: JobState['readings'],
  nets: readonly string[],
): string | null {
  let lowest: { net: string; ohm: number } | null = null;
  const seen = new Set<string>();
  for (const r of readings.toReversed()) {
    if (r.quantity !== 'ohm' || typeof r.value !== 'number') continue;
    const net = probeOfReading(r, board, netlist)?.red;
    if (net === undefined || !nets.includes(net) || seen.has(net)) continue;
    seen.add(net);
    const low = r.good === null ? r.value < LOW_OHM : compareReading(r.value, r.good, 'ohm') === 'low';
    if (low && (lowest === null || r.value < lowest.ohm)) lowest = { net, ohm: r.value };
  }
  return lowest?.net ?? null;
}

/** The pad that a rail is fed from: its regulator's or plug's, else its coil's or bead's. */
export function feedOf(
  netlist: Netlist | null,
  places: readonly Place[],
  nameOf: (p: Place) => string,
): Place | undefined {
  for (const classes of [
    ['power', 'conn'],
    ['coil', 'ferrite', 'fuse'],
  ]) {
    const feeds = netlist?.parts.filter((p) => classes.includes(classOf(p))).map((p) => p.ref) ?? [];
    const found = places.find((p) => feeds.includes(nameOf(p).split('.')[0]));
    if (found) return found;
  }
  return undefined;
}
