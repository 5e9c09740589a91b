/** The single faults of a circuit, each with its weight before anything was measured. */
import { FAULT_OHMS, IC_FAULT_OHMS } from '../circuit/network.ts';
import { pinOf, type CircuitPart, type Fault, type Netlist, type PartOf } from '../circuit/netlist.ts';
import { usualPairs } from './pairs.ts';
import {
  BRIDGE_WEIGHT,
  classOf,
  CLASSES,
  eventFactor,
  IC_SHOWS,
  JOINT_WEIGHT,
  MISSING_WEIGHT,
  type BoardEvent,
  type PartClass,
  type Weights,
} from './priors.ts';

export interface Hypothesis {
  ref: string;
  /** As in the form of faults; `joint` is a cracked solder joint. */
  mode: Fault['mode'] | 'joint';
  /** Which pins, in words; empty when the part says enough. */
  where: string;
  /** What to change in the circuit; none: the circuit reads as a healthy one. */
  faults: Fault[];
  /** Weight before any evidence, relative. */
  weight: number;
  /** How far r may be off, as a spread of ln r; 0 without an r. */
  vague: number;
  /** Several places fail at once, each with ohms of its own: the chance that one of them was spared. */
  several?: { spared: number };
}

/** Ω of a shorted junction; silicon melts less clean than a ceramic cracks. */
const JUNCTION_SHORT_OHM = 2;
/** What is left of a winding's ohms where some of its turns are shorted: 0.3 to 0.9 of them. */
const TURNS_FACTOR = 0.55;
/** A winding of less reads alike with and without. */
const LEAST_WINDING_OHM = 1;
/** A film on a contact makes ohms of its milliohms. */
const FILM_FACTOR = 100;
/** Chance that a pin was spared where several of a chip went low together. */
const SPARED = 0.4;
/** Pins of a chip that leak, beside those that are shorted or open. */
const LEAKS = 0.4;
/** Spread of ln r by mode: a short may be milliohms or ohms. */
const VAGUE: Partial<Record<Fault['mode'], number>> = { short: 0.8, leaky: 0.7, drift: 0.3, bridge: 0.8 };

/** Every single fault of the circuit. `events`: what happened to the board. */
export function hypothesesOf(netlist: Netlist, events: readonly BoardEvent[] = []): Hypothesis[] {
  const list: Hypothesis[] = [];
  for (const part of netlist.parts) {
    const cls = classOf(part);
    const weights: Weights = CLASSES[cls].weights;
    const factor = (way: Parameters<typeof eventFactor>[2]) =>
      events.reduce((f, event) => f * eventFactor(event, cls, way), 1);
    const add = (
      mode: Hypothesis['mode'],
      weight: number,
      way: Parameters<typeof eventFactor>[2],
      faults: Fault[],
      where = '',
      several?: Hypothesis['several'],
    ) => {
      if (weight <= 0) return;
      const vague = mode === 'joint' || faults.length === 0 ? 0 : (VAGUE[mode] ?? 0);
      list.push({
        ...{ ref: part.ref, mode, where, faults, weight: weight * factor(way), vague },
        ...(several ? { several } : {}),
      });
    };
    const { ref } = part;
    if (part.kind === 'IC') {
      addIc(netlist, part, weights, add);
    } else if (part.kind === 'J') {
      addBridges(part, weights, add);
      const nets = netlist.jopen.filter((net) => Object.values(part.pins).includes(net));
      for (const net of nets) {
        const pin = pinOf(part, net) ?? net;
        add('open', weights.open ?? 0, 'open', [{ ref, mode: 'open', pin }], `pin ${pin}`);
      }
    } else {
      addPlain(part, cls, weights, add);
    }
    if (events.includes('rework') && part.kind !== 'J')
      add('missing', MISSING_WEIGHT, 'missing', [{ ref, mode: 'missing' }]);
  }
  for (const { faults, where, weight } of usualPairs(netlist, JUNCTION_SHORT_OHM, IC_FAULT_OHMS.pin))
    list.push({
      ref: faults.map((f) => f.ref).join(' + '),
      ...{ mode: 'short', where, faults, weight, vague: VAGUE.short ?? 0, several: { spared: 0 } },
    });
  return list;
}

const JUNCTIONS = new Set<CircuitPart['kind']>(['D', 'Z', 'ZB', 'Q']);

type Add = (
  mode: Hypothesis['mode'],
  weight: number,
  way: Parameters<typeof eventFactor>[2],
  faults: Fault[],
  where?: string,
  several?: Hypothesis['several'],
) => void;

/** Liquid, a bent contact or a sliver between neighbours of a plug, as its pins are numbered. */
function addBridges(part: PartOf<'J'>, weights: Weights, add: Add): void {
  const pins = Object.keys(part.pins).sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
  const pairs = pins.slice(1).map((pin, i): [string, string] => [pins[i], pin]);
  for (const [a, b] of pairs)
    if (part.pins[a] !== part.pins[b])
      add(
        'bridge',
        (weights.bridge ?? 0) / pairs.length,
        'bridge',
        [{ ref: part.ref, mode: 'bridge', pins: [a, b], r: FAULT_OHMS.bridge }],
        `${a}–${b}`,
      );
}

function addPlain(part: Exclude<CircuitPart, { kind: 'IC' | 'J' }>, cls: PartClass, weights: Weights, add: Add): void {
  const { ref } = part;
  const short = (way: 'short' | 'gs' | 'gd' | 'be', pins: [string, string] | undefined, where: string) =>
    add(
      'short',
      weights[way] ?? 0,
      way,
      [
        {
          ref,
          mode: 'short',
          r: JUNCTIONS.has(part.kind) ? JUNCTION_SHORT_OHM : FAULT_OHMS.short,
          ...(pins ? { pins } : {}),
        },
      ],
      where,
    );
  if (part.kind === 'M') {
    short('short', ['D', 'S'], 'D–S');
    short('gs', ['G', 'S'], 'G–S');
    short('gd', ['G', 'D'], 'G–D');
    // punched through: all three together
    const through: Fault[] = [
      { ref, mode: 'short', pins: ['D', 'S'], r: JUNCTION_SHORT_OHM },
      { ref, mode: 'short', pins: ['G', 'S'], r: JUNCTION_SHORT_OHM },
    ];
    add('short', weights.through ?? 0, 'short', through, 'D–G–S', { spared: 0 });
    for (const pin of ['D', 'G']) add('open', (weights.open ?? 0) / 2, 'open', [{ ref, mode: 'open', pin }], pin);
    for (const pin of ['D', 'G', 'S'])
      add('joint', JOINT_WEIGHT / 3, 'joint', [{ ref, mode: 'open', pin }], `joint ${pin}`);
    return;
  }
  if (part.kind === 'Q') {
    short('short', ['C', 'E'], 'C–E');
    short('be', ['B', 'E'], 'B–E');
    for (const pin of ['C', 'B']) add('open', (weights.open ?? 0) / 2, 'open', [{ ref, mode: 'open', pin }], pin);
    for (const pin of ['C', 'B', 'E'])
      add('joint', JOINT_WEIGHT / 3, 'joint', [{ ref, mode: 'open', pin }], `joint ${pin}`);
    return;
  }
  short('short', undefined, '');
  add('leaky', weights.leaky ?? 0, 'leaky', [{ ref, mode: 'leaky', r: FAULT_OHMS.leaky }]);
  const open: Fault[] = [{ ref, mode: 'open' }];
  add('open', weights.open ?? 0, 'open', open);
  add(
    'drift',
    weights.up ?? 0,
    'up',
    [{ ref, mode: 'drift', factor: cls === 'contact' ? FILM_FACTOR : 2.5 }],
    'too high',
  );
  add('drift', weights.down ?? 0, 'down', [{ ref, mode: 'drift', factor: 0.4 }], 'too low');
  if ((part.kind === 'RLY' || part.kind === 'L') && part.r >= LEAST_WINDING_OHM)
    add('drift', weights.turns ?? 0, 'turns', [{ ref, mode: 'drift', factor: TURNS_FACTOR }], 'turns shorted');
  add('joint', JOINT_WEIGHT, 'joint', open, 'joint');
}

/**
 * ICs convict, they do not acquit: most of their ways to fail show at a pin, the rest at none, and that
 * rest keeps the weight it had however many normal values are read.
 */
function addIc(netlist: Netlist, part: PartOf<'IC'>, weights: Weights, add: Add): void {
  const { ref } = part;
  const { ground } = netlist;
  const pins = Object.keys(part.pins);
  const rails = [...new Set((part.rail ?? []).map((r) => pinOf(part, r)).filter((p) => p !== undefined))];
  const earth = pins.find((pin) => part.pins[pin] === ground);
  const shown = (weight: number | undefined) => (weight ?? 0) * IC_SHOWS;
  for (const rail of rails) {
    if (earth === undefined) break;
    const pair: [string, string] = [rail, earth];
    const share = 1 / rails.length;
    const where = `pin ${rail}`;
    add(
      'short',
      shown(weights.short) * share,
      'short',
      [{ ref, mode: 'short', pins: pair, r: IC_FAULT_OHMS.short }],
      where,
    );
    add(
      'leaky',
      shown(weights.leaky) * share,
      'leaky',
      [{ ref, mode: 'leaky', pins: pair, r: IC_FAULT_OHMS.leaky }],
      where,
    );
  }
  const lines = pins.filter((pin) => part.pins[pin] !== ground && !rails.includes(pin));
  if (earth !== undefined && lines.length > 1) {
    // the side of a chip that looks outward goes as a whole, or with its supply: each pin as bad as it happens to be
    const low = (pin: string, r: number): Fault => ({ ref, mode: 'short', pins: [pin, earth], r });
    const all = lines.map((pin) => low(pin, IC_FAULT_OHMS.pin));
    add('short', shown(weights.several), 'pins', all, 'several pins', { spared: SPARED });
    if (rails.length > 0)
      add(
        'short',
        shown(weights.several) / 2,
        'pins',
        [...rails.map((rail) => low(rail, IC_FAULT_OHMS.short)), ...all],
        'supply and pins',
        { spared: SPARED },
      );
  }
  // a pin fails short more often than open
  for (const pin of lines) {
    const each = shown(weights.pins) / lines.length;
    if (earth !== undefined)
      add(
        'short',
        0.7 * each,
        'pins',
        [{ ref, mode: 'short', pins: [pin, earth], r: IC_FAULT_OHMS.pin }],
        `pin ${pin}`,
      );
    if (earth !== undefined)
      add(
        'leaky',
        LEAKS * each,
        'leaky',
        [{ ref, mode: 'leaky', pins: [pin, earth], r: FAULT_OHMS.leaky }],
        `pin ${pin} leaks`,
      );
    add('open', 0.3 * each, 'pins', [{ ref, mode: 'open', pin }], `pin ${pin}`);
  }
  for (const pin of pins)
    add('joint', JOINT_WEIGHT / pins.length, 'joint', [{ ref, mode: 'open', pin }], `joint ${pin}`);
  const total = Object.values(weights).reduce((sum, w) => sum + w, 0);
  if (part.blocks.length) add('dead', shown(weights.dead), 'dead', [{ ref, mode: 'dead' }], 'silent');
  // what no pin will ever show
  const hidden = total - shown(total) + (part.blocks.length ? 0 : shown(weights.dead));
  add('dead', hidden, 'dead', [], 'inside');
  for (const [a, b] of part.adjacent) {
    const pair = [pinOf(part, a), pinOf(part, b)];
    if (pair[0] === undefined || pair[1] === undefined || part.pins[pair[0]] === part.pins[pair[1]]) continue;
    add(
      'bridge',
      BRIDGE_WEIGHT,
      'bridge',
      [{ ref, mode: 'bridge', pins: [pair[0], pair[1]], r: FAULT_OHMS.bridge }],
      `${pair[0]}–${pair[1]}`,
    );
  }
}

/** True when a hypothesis changes no DC reading by construction (an open capacitor). */
export function isBlind(netlist: Netlist, h: Hypothesis): boolean {
  if (h.faults.length === 0) return true;
  const part = netlist.parts.find((p) => p.ref === h.ref);
  return part?.kind === 'C' && h.faults.every((f) => f.mode === 'open' || f.mode === 'missing' || f.mode === 'drift');
}
