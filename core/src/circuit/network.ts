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
  type PartOf,
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

/** What faults do to a circuit, by part and pin. */
interface Damage {
  /** Pins in the air, as "U1.VIN". */
  opened: Set<string>;
  /** Nets that a plug does not feed. */
  unplugged: Set<string>;
  dead: Set<string>;
  asleep: Set<string>;
  reversed: Set<string>;
  factors: Map<string, number>;
  bridges: { part: CircuitPart; pins: [string, string]; r: number }[];
  breakdowns: { part: CircuitPart; pins: [string, string]; bv: number }[];
}

function damageOf({ parts, ground }: Netlist, faults: readonly Fault[]): Damage {
  const damage: Damage = {
    ...{ opened: new Set(), unplugged: new Set(), dead: new Set(), asleep: new Set(), reversed: new Set() },
    ...{ factors: new Map(), bridges: [], breakdowns: [] },
  };
  for (const fault of faults) {
    const part = parts.find((p) => p.ref === fault.ref);
    if (!part) throw new NetlistError(`no part ${fault.ref} in the circuit`);
    const { ref } = part;
    const pins = fault.pins ?? defaultPair(part, ground);
    switch (fault.mode) {
      case 'open': {
        const which = fault.pin === undefined ? Object.keys(part.pins)[0] : pinOf(part, fault.pin);
        if (which === undefined) throw new NetlistError(`${ref} has no pin ${fault.pin}`);
        if (part.kind === 'J') damage.unplugged.add(part.pins[which]);
        else damage.opened.add(`${ref}.${which}`);
        break;
      }
      case 'missing':
        for (const pin of Object.keys(part.pins)) damage.opened.add(`${ref}.${pin}`);
        break;
      case 'drift':
        damage.factors.set(ref, fault.factor ?? 2);
        break;
      case 'dead':
        damage.dead.add(ref);
        break;
      case 'asleep':
        damage.dead.add(ref);
        damage.asleep.add(ref);
        break;
      case 'reversed':
        damage.reversed.add(ref);
        break;
      case 'breakdown':
        damage.breakdowns.push({ part, pins, bv: fault.v ?? BREAKDOWN_V });
        break;
      case 'short':
      case 'leaky':
      case 'bridge':
        damage.bridges.push({ part, pins, r: faultOhms(part, fault) });
    }
  }
  return damage;
}

/** The network with these faults; `state` null is the board without power. */
export function assemble(netlist: Netlist, faults: readonly Fault[], state: string | null): Network {
  const supply = state === null ? { sources: [], loads: [] } : supplyOf(netlist, state);
  const assembly = new Assembly(netlist, damageOf(netlist, faults), state !== null);
  // nodes of the healthy circuit come first, so that its voltages serve as a start for a faulty one
  supply.sources.forEach((_, n) => assembly.at(`supply ${n}`));
  for (const part of netlist.parts) assembly.addPart(part);
  assembly.addDamage();
  supply.sources.forEach((source, n) => assembly.addSource(source, n));
  for (const load of supply.loads) assembly.addLoad(load);
  return assembly.finish();
}

/** A network in the making: nets become nodes, parts their conductances, junctions and devices. */
class Assembly {
  private readonly index = new Map<string, number>();
  private readonly network: Network;
  private readonly netlist: Netlist;
  private readonly damage: Damage;
  private readonly powered: boolean;

  constructor(netlist: Netlist, damage: Damage, powered: boolean) {
    [this.netlist, this.damage, this.powered] = [netlist, damage, powered];
    const { index } = this;
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
    this.network = network;
  }

  /** Node of a net, new ones behind those that are known. Ground is −1 until all nodes are counted. */
  at(net: string): number {
    if (net === this.netlist.ground) return -1;
    const known = this.index.get(net);
    if (known !== undefined) return known;
    this.index.set(net, this.index.size);
    return this.index.size - 1;
  }

  addPart(part: CircuitPart): void {
    if (this.isLeftOut(part)) return;
    const { network, damage } = this;
    const turned: Record<string, string> = damage.reversed.has(part.ref) ? { A: 'K', K: 'A' } : {};
    const end = (pin: string) => this.place(part, turned[pin] ?? pin);
    const junction = (a: string, k: string, model: JunctionModel, bv = 0) =>
      network.junctions.push({ a: end(a), k: end(k), bv, model });
    const factor = damage.factors.get(part.ref) ?? 1;
    switch (part.kind) {
      case 'R':
      case 'F':
      case 'FB':
      case 'L':
      case 'RLY':
        this.resistor(end('1'), end('2'), (part.kind === 'R' ? part.value : part.r) * factor);
        if (factor !== 1) this.markFaulty();
        break;
      case 'C':
        this.resistor(end('1'), end('2'), part.leak);
        break;
      case 'D':
        junction('A', 'K', DIODE_MODELS[part.model]);
        break;
      case 'Z':
        junction('A', 'K', DIODE_MODELS[part.model]);
        junction('K', 'A', DIODE_MODELS.tvs, part.bv * factor);
        break;
      case 'ZB':
        junction('1', '2', DIODE_MODELS.tvs, part.bv * factor);
        junction('2', '1', DIODE_MODELS.tvs, part.bv * factor);
        break;
      case 'M': {
        const [d, g, s] = [end('D'), end('G'), end('S')];
        network.devices.push({ device: mosfet(part), nodes: [d, g, s] });
        const [a, k] = part.type === 'N' ? [s, d] : [d, s];
        network.junctions.push({ a, k, bv: 0, model: DIODE_MODELS.body });
        this.resistor(g, s, 1e9);
        break;
      }
      case 'Q':
        network.devices.push({ device: bipolar(part), nodes: [end('C'), end('B'), end('E')] });
        break;
      case 'IC':
        this.addIc(part, end, factor);
        break;
      case 'J':
        break;
    }
  }

  private addIc(part: PartOf<'IC'>, end: (pin: string) => number, factor: number): void {
    const { network, damage, powered } = this;
    const own = (name: string) => end(pinOf(part, name) ?? name);
    for (const [a, k, model] of part.esd)
      network.junctions.push({ a: own(a), k: own(k), bv: 0, model: DIODE_MODELS[model] });
    const awake = powered && !damage.asleep.has(part.ref);
    for (const [a, b, off, on = off] of part.res) this.resistor(own(a), own(b), awake ? on : off);
    for (const block of part.blocks) {
      const pins = blockPins(part, block);
      if (powered && !damage.dead.has(part.ref)) {
        const works = factor === 1 ? block : holding(block, factor);
        const device = blockDevice(
          works,
          pins.map((pin) => pin !== null),
        );
        network.devices.push({ device, nodes: pins.map((pin) => (pin === null ? -1 : end(pin))) });
        continue;
      }
      const path = restingPath(block);
      if (path !== null) this.resistor(end(pins[1] ?? ''), end(pins[2] ?? ''), path);
    }
  }

  /** What conducts that should not. */
  addDamage(): void {
    for (const { part, pins, r } of this.damage.bridges) {
      const [a, b] = this.between(part, pins);
      this.resistor(a, b, r);
      this.markFaulty();
    }
    for (const { part, pins, bv } of this.damage.breakdowns) {
      const [a, b] = this.between(part, pins);
      this.network.junctions.push(
        { a, k: b, bv, model: DIODE_MODELS.tvs },
        { a: b, k: a, bv, model: DIODE_MODELS.tvs },
      );
    }
  }

  addSource(source: Source, n: number): void {
    const { network } = this;
    const [o, p] = [this.at(`supply ${n}`), this.at(source.p)];
    network.currents.push({ a: -1, b: o, i: source.ilim });
    network.junctions.push({ a: o, k: -1, bv: source.v, model: EDGE });
    if (this.damage.unplugged.has(source.p)) return;
    this.resistor(o, p, source.rout);
    network.supplies.push({ net: source.p, o, p, rout: Math.max(source.rout, 1e-6), v: source.v });
  }

  addLoad(load: Load): void {
    if (this.damage.unplugged.has(load.p)) return;
    const [p, n] = [this.at(load.p), this.at(load.n ?? this.netlist.ground)];
    if ('r' in load) this.resistor(p, n, load.r);
    else this.network.currents.push({ a: p, b: n, i: load.i });
  }

  /** All nodes are counted: ground gets its number, behind them. */
  finish(): Network {
    const { network } = this;
    network.size = this.index.size;
    const earth = (node: number) => (node === -1 ? network.size : node);
    for (const list of [network.conductors, network.currents])
      for (const e of list) [e.a, e.b] = [earth(e.a), earth(e.b)];
    for (const j of network.junctions) [j.a, j.k] = [earth(j.a), earth(j.k)];
    for (const d of network.devices) d.nodes = d.nodes.map(earth);
    return network;
  }

  private resistor(a: number, b: number, r: number): void {
    this.network.conductors.push({ a, b, g: 1 / Math.max(r, 1e-6) });
  }
  private markFaulty(): void {
    this.network.faulty = this.network.conductors.length - 1;
  }

  /** Node of a pin; one in the air has a node of its own. */
  private place(part: CircuitPart, pin: string): number {
    const { opened } = this.damage;
    return this.at(opened.size > 0 && opened.has(`${part.ref}.${pin}`) ? `${part.ref}.${pin}` : part.pins[pin]);
  }

  /** A part with two ends, one of them in the air, might as well not be there. */
  private isLeftOut(part: CircuitPart): boolean {
    const { opened } = this.damage;
    if (opened.size === 0 || !TWO_ENDS.has(part.kind)) return false;
    return KIND_PINS[part.kind].some((pin) => opened.has(`${part.ref}.${pin}`));
  }

  /** Nodes of two pins of a part, or of nets. */
  private between(part: CircuitPart, pins: [string, string]): number[] {
    return pins.map((name) => {
      const pin = pinOf(part, name);
      if (pin !== undefined) return this.place(part, pin);
      if (name === this.netlist.ground || this.index.has(name)) return this.at(name);
      throw new NetlistError(`${part.ref} has no pin ${name} and there is no net ${name}`);
    });
  }
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
