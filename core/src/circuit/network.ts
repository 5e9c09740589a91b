/** A netlist, a fault or several, and a state of power become one network of conductances, junctions and devices. */
import { blockDevice, blockPins, bipolar, mosfet, restingPath, type Device } from './devices.ts';
import { DIODE_MODELS, EDGE, type JunctionModel } from './junction.ts';
import {
  KIND_PINS,
  NetlistError,
  netsOf,
  pinOf,
  statesOf,
  type Block,
  type CircuitPart,
  type Fault,
  type Load,
  type Netlist,
  type Source,
} from './netlist.ts';

/** Nodes are numbered from 0; ground is `size`. */
export interface Network {
  size: number;
  /** Node of a net; undefined for one that is not there. */
  node(net: string): number | undefined;
  conductors: { a: number; b: number; g: number }[];
  /** Current from node a through the source to node b, A. */
  currents: { a: number; b: number; i: number }[];
  /** Junction a → k behind a voltage: v = v(a) − v(k) − bv. */
  junctions: { a: number; k: number; bv: number; model: JunctionModel }[];
  devices: { device: Device; nodes: number[] }[];
  /** Where each supply's current can be read: through rout from o to p. */
  supplies: { net: string; o: number; p: number; rout: number; v: number }[];
  /** Index of the conductor that a fault has put in or changed, for how readings follow its ohms; null without one. */
  faulty: number | null;
}

/** Ohms of a fault that does not say. */
export const FAULT_OHMS = { short: 0.5, leaky: 300, bridge: 0.1 } as const;
/** Ohms of an IC's short or leaking rail, and of a pin shorted to ground. */
export const IC_FAULT_OHMS = { short: 3, leaky: 60, pin: 12 } as const;
/** V from which a part conducts that breaks down and does not say where. */
const BREAKDOWN_V = 5;

function faultOhms(part: CircuitPart, { mode, r }: Fault): number {
  if (r !== undefined) return r;
  if (part.kind === 'IC' && (mode === 'short' || mode === 'leaky')) return IC_FAULT_OHMS[mode];
  return mode === 'leaky' || mode === 'bridge' ? FAULT_OHMS[mode] : FAULT_OHMS.short;
}

/** The two pins of a part that a short lies between when the fault does not say. */
function defaultPair(part: CircuitPart, ground: string): [string, string] {
  if (part.kind === 'M') return ['D', 'S'];
  if (part.kind === 'Q') return ['C', 'E'];
  if (part.kind === 'IC') {
    const pins = Object.keys(part.pins);
    const rail = part.rail?.map((r) => pinOf(part, r)).find((r) => r !== undefined) ?? pins[0];
    const earth = pins.find((pin) => part.pins[pin] === ground && pin !== rail);
    return [rail, earth ?? pins.find((pin) => pin !== rail) ?? rail];
  }
  const [a, b] = KIND_PINS[part.kind].length ? KIND_PINS[part.kind] : Object.keys(part.pins);
  return [a, b ?? a];
}

/** Sources and loads in a state; throws for a state that is not there. */
function supplyOf(netlist: Netlist, state: string): { sources: Source[]; loads: Load[] } {
  if (!statesOf(netlist).includes(state))
    throw new NetlistError(`no state ${state}; known: ${statesOf(netlist).join(', ') || 'none'}`);
  const own = netlist.power?.states[state];
  return {
    sources: [...(netlist.power?.sources ?? []), ...(own?.sources ?? [])],
    loads: [...(netlist.power?.loads ?? []), ...(own?.loads ?? [])],
  };
}

/** A regulator that holds `factor` times what it should; other blocks hold nothing. */
function holding(block: Block, factor: number): Block {
  if (block.type === 'ldo') return { ...block, vset: block.vset * factor };
  return block.type === 'buck' || block.type === 'boost' ? { ...block, vref: block.vref * factor } : block;
}

const TWO_ENDS = new Set<CircuitPart['kind']>(['R', 'F', 'FB', 'L', 'RLY', 'C', 'D', 'Z', 'ZB']);

/** The network with these faults; `state` null is the board without power. */
export function assemble(netlist: Netlist, faults: readonly Fault[], state: string | null): Network {
  const index = new Map<string, number>();
  for (const net of netsOf(netlist)) index.set(net, index.size);
  const network: Network = {
    size: 0,
    node: (net) => (net === netlist.ground ? network.size : index.get(net)),
    conductors: [],
    currents: [],
    junctions: [],
    devices: [],
    supplies: [],
    faulty: null,
  };
  // ground is known by −1 until all nodes are counted
  const at = (net: string): number => {
    if (net === netlist.ground) return -1;
    const known = index.get(net);
    if (known !== undefined) return known;
    index.set(net, index.size);
    return index.size - 1;
  };

  // nodes of the healthy circuit come first, so that its voltages serve as a start for a faulty one
  const supply = state === null ? { sources: [], loads: [] } : supplyOf(netlist, state);
  supply.sources.forEach((_, n) => at(`supply ${n}`));

  const parts = new Map(netlist.parts.map((p) => [p.ref, p]));
  const opened = new Set<string>();
  const unplugged = new Set<string>();
  const dead = new Set<string>();
  const asleep = new Set<string>();
  const factors = new Map<string, number>();
  const reversed = new Set<string>();
  const bridges: { part: CircuitPart; pins: [string, string]; r: number }[] = [];
  const breakdowns: { part: CircuitPart; pins: [string, string]; bv: number }[] = [];
  for (const fault of faults) {
    const part = parts.get(fault.ref);
    if (!part) throw new NetlistError(`no part ${fault.ref} in the circuit`);
    const pin = (name: string) => {
      const found = pinOf(part, name);
      if (found === undefined) throw new NetlistError(`${part.ref} has no pin ${name}`);
      return found;
    };
    switch (fault.mode) {
      case 'open': {
        const which = fault.pin === undefined ? Object.keys(part.pins)[0] : pin(fault.pin);
        if (part.kind === 'J') unplugged.add(part.pins[which]);
        else opened.add(`${part.ref}.${which}`);
        break;
      }
      case 'missing':
        for (const p of Object.keys(part.pins)) opened.add(`${part.ref}.${p}`);
        break;
      case 'drift':
        factors.set(part.ref, fault.factor ?? 2);
        break;
      case 'dead':
        dead.add(part.ref);
        break;
      case 'asleep':
        dead.add(part.ref);
        asleep.add(part.ref);
        break;
      case 'reversed':
        reversed.add(part.ref);
        break;
      case 'breakdown':
        breakdowns.push({ part, pins: fault.pins ?? defaultPair(part, netlist.ground), bv: fault.v ?? BREAKDOWN_V });
        break;
      case 'short':
      case 'leaky':
      case 'bridge':
        bridges.push({
          part,
          pins: fault.pins ?? defaultPair(part, netlist.ground),
          r: faultOhms(part, fault),
        });
    }
  }

  const place = (part: CircuitPart, pin: string): number =>
    at(opened.size > 0 && opened.has(`${part.ref}.${pin}`) ? `${part.ref}.${pin}` : part.pins[pin]);
  /** A part with two ends, one of them in the air, might as well not be there. */
  const leftOut = (part: CircuitPart): boolean =>
    opened.size > 0 && TWO_ENDS.has(part.kind) && KIND_PINS[part.kind].some((pin) => opened.has(`${part.ref}.${pin}`));
  const resistor = (a: number, b: number, r: number) => network.conductors.push({ a, b, g: 1 / Math.max(r, 1e-6) });
  const mark = () => (network.faulty = network.conductors.length - 1);
  const powered = state !== null;

  for (const part of netlist.parts) {
    if (leftOut(part)) continue;
    const turned: Record<string, string> = reversed.has(part.ref) ? { A: 'K', K: 'A' } : {};
    const end = (pin: string) => place(part, turned[pin] ?? pin);
    const factor = factors.get(part.ref) ?? 1;
    switch (part.kind) {
      case 'R':
        resistor(end('1'), end('2'), part.value * factor);
        if (factor !== 1) mark();
        break;
      case 'F':
      case 'FB':
      case 'L':
      case 'RLY':
        resistor(end('1'), end('2'), part.r * factor);
        if (factor !== 1) mark();
        break;
      case 'C':
        resistor(end('1'), end('2'), part.leak);
        break;
      case 'D':
        network.junctions.push({ a: end('A'), k: end('K'), bv: 0, model: DIODE_MODELS[part.model] });
        break;
      case 'Z':
        network.junctions.push({ a: end('A'), k: end('K'), bv: 0, model: DIODE_MODELS[part.model] });
        network.junctions.push({ a: end('K'), k: end('A'), bv: part.bv * factor, model: DIODE_MODELS.tvs });
        break;
      case 'ZB':
        network.junctions.push({ a: end('1'), k: end('2'), bv: part.bv * factor, model: DIODE_MODELS.tvs });
        network.junctions.push({ a: end('2'), k: end('1'), bv: part.bv * factor, model: DIODE_MODELS.tvs });
        break;
      case 'M': {
        const [d, g, s] = [end('D'), end('G'), end('S')];
        network.devices.push({ device: mosfet(part), nodes: [d, g, s] });
        const [a, k] = part.type === 'N' ? [s, d] : [d, s];
        network.junctions.push({ a, k, bv: 0, model: DIODE_MODELS.body });
        resistor(g, s, 1e9);
        break;
      }
      case 'Q':
        network.devices.push({ device: bipolar(part), nodes: [end('C'), end('B'), end('E')] });
        break;
      case 'IC': {
        const own = (name: string) => end(pinOf(part, name) ?? name);
        for (const [a, k, model] of part.esd)
          network.junctions.push({ a: own(a), k: own(k), bv: 0, model: DIODE_MODELS[model] });
        for (const [a, b, off, on = off] of part.res)
          resistor(own(a), own(b), powered && !asleep.has(part.ref) ? on : off);
        for (const block of part.blocks) {
          const pins = blockPins(part, block);
          if (powered && !dead.has(part.ref)) {
            const nodes = pins.map((pin) => (pin === null ? -1 : end(pin)));
            network.devices.push({
              device: blockDevice(
                factor === 1 ? block : holding(block, factor),
                pins.map((pin) => pin !== null),
              ),
              nodes,
            });
          } else {
            const path = restingPath(block);
            if (path !== null) resistor(end(pins[1] ?? ''), end(pins[2] ?? ''), path);
          }
        }
        break;
      }
      case 'J':
        break;
    }
  }
  const between = (part: CircuitPart, pins: [string, string]) =>
    pins.map((name) => {
      const pin = pinOf(part, name);
      if (pin !== undefined) return place(part, pin);
      if (name === netlist.ground || index.has(name)) return at(name);
      throw new NetlistError(`${part.ref} has no pin ${name} and there is no net ${name}`);
    });
  for (const { part, pins, r } of bridges) {
    const [a, b] = between(part, pins);
    resistor(a, b, r);
    mark();
  }
  for (const { part, pins, bv } of breakdowns) {
    const [a, b] = between(part, pins);
    for (const [from, to] of [
      [a, b],
      [b, a],
    ])
      network.junctions.push({ a: from, k: to, bv, model: DIODE_MODELS.tvs });
  }
  {
    const { sources, loads } = supply;
    sources.forEach((source, n) => {
      const [o, p] = [at(`supply ${n}`), at(source.p)];
      network.currents.push({ a: -1, b: o, i: source.ilim });
      network.junctions.push({ a: o, k: -1, bv: source.v, model: EDGE });
      if (unplugged.has(source.p)) return;
      resistor(o, p, source.rout);
      network.supplies.push({ net: source.p, o, p, rout: Math.max(source.rout, 1e-6), v: source.v });
    });
    for (const load of loads) {
      if (unplugged.has(load.p)) continue;
      const [p, n] = [at(load.p), at(load.n ?? netlist.ground)];
      if ('r' in load) resistor(p, n, load.r);
      else network.currents.push({ a: p, b: n, i: load.i });
    }
  }

  network.size = index.size;
  const earth = (node: number) => (node === -1 ? network.size : node);
  for (const list of [network.conductors, network.currents])
    for (const e of list) [e.a, e.b] = [earth(e.a), earth(e.b)];
  for (const j of network.junctions) [j.a, j.k] = [earth(j.a), earth(j.k)];
  for (const d of network.devices) d.nodes = d.nodes.map(earth);
  return network;
}

/** A fault that only changes the conductance between two nodes of the healthy network. */
export interface Change {
  a: number;
  b: number;
  /** S added; negative for what is taken away. */
  dg: number;
  /** S of the conductor that the fault's ohms stand for. */
  g: number;
}

/** The fault as a change of one conductance of the healthy network; null when it is more than that. */
export function asChange(netlist: Netlist, fault: Fault, network: Network): Change | null {
  const part = netlist.parts.find((p) => p.ref === fault.ref);
  if (!part) return null;
  const nodeAt = (name: string) => network.node(part.pins[pinOf(part, name) ?? ''] ?? name);
  const between = (pins: readonly string[], dg: number, g: number): Change | null => {
    const [a, b] = pins.map(nodeAt);
    return a === undefined || b === undefined ? null : { a, b, dg, g };
  };
  if (fault.mode === 'short' || fault.mode === 'leaky' || fault.mode === 'bridge') {
    const g = 1 / Math.max(faultOhms(part, fault), 1e-6);
    return between(fault.pins ?? defaultPair(part, netlist.ground), g, g);
  }
  const own = part.kind === 'R' ? part.value : 'r' in part ? part.r : part.kind === 'C' ? part.leak : null;
  if (own === null) return null;
  const g = 1 / Math.max(own, 1e-6);
  if (fault.mode === 'open' || fault.mode === 'missing') return between(['1', '2'], -g, 0);
  if (fault.mode === 'drift' && part.kind !== 'C') {
    const now = 1 / Math.max(own * (fault.factor ?? 2), 1e-6);
    return between(['1', '2'], now - g, now);
  }
  return null;
}
