/** What millivolts along a rail say of the parts on it: whoever pulls it down stands where the drop ends. */
import { modelNet, type Netlist, pinOf } from '../circuit/index.ts';
import type { Hypothesis } from './hypotheses.ts';
import { NONE } from './priors.ts';

/** A rail's parts with their shares from `locateShort`, all of them weighing alike there. */
export interface OnRail {
  net: string;
  places: readonly { ref: string; p: number }[];
  /** Whether the copper is as drawn; else tracks were assumed from pad to pad. */
  drawn: boolean;
}

/** Chance that the place computed is astray: vias and planes that the drawing lacks, tracks that were only assumed. */
const ASTRAY = { drawn: 0.05, assumed: 0.25 };

/** What `share` of millivolts alone is worth among `count` parts, as well as the copper is known. */
export function worthOnRail(share: number, count: number, drawn: boolean): number {
  const astray = drawn ? ASTRAY.drawn : ASTRAY.assumed;
  return (1 - astray) * share + astray / Math.max(1, count);
}

const CONDUCTS = new Set<Hypothesis['mode']>(['short', 'leaky', 'bridge']);

/** How much likelier than before a fault is by what was read along rails; 1 for what pulls none of them down, and for parts without a place there. */
export function placeFactor(netlist: Netlist, h: Hypothesis, rails: readonly OnRail[]): number {
  if (rails.length === 0 || !CONDUCTS.has(h.mode)) return 1;
  const inCircuit = new Set(netlist.parts.map((p) => p.ref));
  return rails.reduce((factor, rail) => {
    const shares = h.faults.flatMap(({ ref, pins }) => {
      const part = netlist.parts.find((p) => p.ref === ref);
      if (!part) return [];
      const nets = (pins ?? Object.keys(part.pins)).map((pin) => part.pins[pinOf(part, pin) ?? ''] ?? pin);
      if (!nets.some((net) => modelNet(netlist, net) === modelNet(netlist, rail.net))) return [];
      // something outside the circuit is whatever stands on the rail and is not in it
      const own =
        h.ref === NONE ? rail.places.filter((p) => !inCircuit.has(p.ref)) : rail.places.filter((p) => p.ref === ref);
      return own.map((p) => p.p);
    });
    if (shares.length === 0) return factor;
    const count = rail.places.length;
    return factor * count * worthOnRail(Math.max(...shares), count, rail.drawn);
  }, 1);
}
