/**
 * Two parts that go together: what a surge, a coil or a punched-through switch takes along. Weighed unasked beside the single faults, since life
 * brings them together more often than chance would. Weights are shares of how often the part goes alone (bench judgement).
 */
import { type CircuitPart, classOf, type Fault, type Netlist, type PartOf } from '../circuit/index.ts';
import { WEIGHTS, EXCHANGED_WEIGHT, type Weights } from './priors.ts';

/** Of the clamps that go short, so many take the fuse before them along; of the switches, so many their diode or the pin that drives them. */
const SHARE = { surge: 0.5, flyback: 0.3, driver: 0.2 };
/** Ω up to which a resistor between a pin and a gate or base keeps them together. */
const DRIVES_THROUGH_OHM = 10_000;

export interface UsualPair {
  faults: [Fault, Fault];
  where: string;
  weight: number;
}

const weightsOf = (part: CircuitPart): Weights => WEIGHTS[classOf(part)];
const netsOf = (part: CircuitPart) => Object.values(part.pins);
const isSwitch = (part: CircuitPart): part is PartOf<'M'> | PartOf<'Q'> => part.kind === 'M' || part.kind === 'Q';

/** Net of the pin that a switch is driven at, and the nets that reach it through a resistor. */
function drivenAt(netlist: Netlist, part: PartOf<'M'> | PartOf<'Q'>): Set<string> {
  const own = part.kind === 'M' ? part.pins.G : part.pins.B;
  // a resistor to the switch's other pins or to ground only holds it off
  const others = new Set([netlist.ground, ...netsOf(part).filter((net) => net !== own)]);
  const nets = new Set([own]);
  for (const r of netlist.parts)
    if (r.kind === 'R' && r.value <= DRIVES_THROUGH_OHM && netsOf(r).includes(own))
      for (const net of netsOf(r)) if (!others.has(net)) nets.add(net);
  return nets;
}

export function usualPairs(netlist: Netlist, junction_ohm: number, pin_ohm: number): UsualPair[] {
  const { parts, ground } = netlist;
  const list: UsualPair[] = [];
  const clamps = parts.filter((p) => p.kind === 'Z' || p.kind === 'ZB');
  for (const fuse of parts.filter((p) => p.kind === 'F'))
    for (const clamp of clamps)
      if (netsOf(clamp).includes(ground) && netsOf(clamp).some((net) => net !== ground && netsOf(fuse).includes(net)))
        list.push({
          faults: [
            { ref: clamp.ref, mode: 'short', r: junction_ohm },
            { ref: fuse.ref, mode: 'open' },
          ],
          where: `${clamp.ref} short, ${fuse.ref} open`,
          weight: SHARE.surge * (weightsOf(clamp).short ?? 0),
        });
  for (const sw of parts.filter(isSwitch)) {
    const ends: [string, string] = sw.kind === 'M' ? ['D', 'S'] : ['C', 'E'];
    const short: Fault = { ref: sw.ref, mode: 'short', pins: ends, r: junction_ohm };
    const alone = weightsOf(sw).short ?? 0;
    const [out] = ends.map((end) => sw.pins[end]);
    for (const coil of parts.filter((p) => p.kind === 'RLY' || p.kind === 'L'))
      for (const diode of parts.filter((p) => p.kind === 'D'))
        if (netsOf(coil).includes(out) && netsOf(diode).every((net) => netsOf(coil).includes(net)))
          list.push({
            faults: [{ ref: diode.ref, mode: 'short', r: junction_ohm }, short],
            where: `${diode.ref} and ${sw.ref} short`,
            weight: SHARE.flyback * alone,
          });
    const driven = drivenAt(netlist, sw);
    for (const ic of parts.filter((p) => p.kind === 'IC'))
      for (const [pin, net] of Object.entries(ic.pins)) {
        const earth = Object.keys(ic.pins).find((p) => ic.pins[p] === ground);
        if (!driven.has(net) || earth === undefined) continue;
        list.push({
          faults: [short, { ref: ic.ref, mode: 'short', pins: [pin, earth], r: pin_ohm }],
          where: `${sw.ref} short, ${ic.ref} pin ${pin}`,
          weight: SHARE.driver * alone,
        });
      }
  }
  return list;
}

/** Resistors closer in value than this read alike in each other's place. */
const ALIKE = 1.3;
const MOST_EXCHANGED = 60;

/** Two resistors on a common net in each other's place, as happens when a board was worked on. */
export function exchangedPairs({ parts, ground }: Netlist): UsualPair[] {
  const resistors = parts.filter((p): p is PartOf<'R'> => p.kind === 'R');
  const meet = (a: CircuitPart, b: CircuitPart) => netsOf(a).some((net) => net !== ground && netsOf(b).includes(net));
  return resistors
    .flatMap((a, i) =>
      resistors.slice(i + 1).flatMap((b): UsualPair[] => {
        const factor = b.value / a.value;
        if (Math.max(factor, 1 / factor) < ALIKE || !meet(a, b)) return [];
        const faults: UsualPair['faults'] = [
          { ref: a.ref, mode: 'drift', factor },
          { ref: b.ref, mode: 'drift', factor: 1 / factor },
        ];
        return [{ faults, where: 'in each other’s place', weight: EXCHANGED_WEIGHT }];
      }),
    )
    .slice(0, MOST_EXCHANGED);
}
