/** What tends to fail along with a part: what sits on its small nets, as driver, gate resistor, shunt or twin do. */
import type { Netlist } from '../circuit/index.ts';

/** A net with more pins than this is a rail: everything hangs on it, nothing follows from that. */
const SMALL_NET_PINS = 6;

export function companionsOf(netlist: Netlist, ref: string): string[] {
  const pins = new Map<string, number>();
  for (const part of netlist.parts) for (const net of Object.values(part.pins)) pins.set(net, (pins.get(net) ?? 0) + 1);
  const culprit = netlist.parts.find((p) => p.ref === ref);
  const small = new Set(
    Object.values(culprit?.pins ?? {}).filter((n) => n !== netlist.ground && (pins.get(n) ?? 0) <= SMALL_NET_PINS),
  );
  return netlist.parts.flatMap((p) =>
    p.ref !== ref && Object.values(p.pins).some((n) => small.has(n)) ? [p.ref] : [],
  );
}
