/** The faults of a circuit, each with its weight before anything was measured. */
import {
  assemble,
  blockPins,
  type CircuitPart,
  classOf,
  type Fault,
  FAULT_OHMS,
  IC_FAULT_OHMS,
  type Netlist,
  netsOf,
  NetworkSolver,
  type PartOf,
  pinOf,
  statesOf,
} from '../circuit/index.ts';
import { few } from '../ground/index.ts';
import { exchangedPairs, usualPairs } from './pairs.ts';
import {
  ACROSS,
  BRIDGE_WEIGHT,
  WEIGHTS,
  eventFactor,
  IC_SHOWS,
  JOINT_WEIGHT,
  MISSING_WEIGHT,
  NONE,
  OUTSIDE,
  REVERSED_WEIGHT,
  WRONG_VALUE_WEIGHT,
  type BoardEvent,
  type FailureWay,
  type Weights,
} from './priors.ts';
import type { PartClass } from '../board/index.ts';

/**
 * One fault at one point of its range: a leak of unknown ohms is several of these that differ in their ohms alone (same `ref`, `mode` and
 * `where`), and so is a value that drifted.
 */
export interface Hypothesis {
  /** The part, two of them as "A + B", or `NONE` for something that is not in the circuit. */
  ref: string;
  /** As in the form of faults; `joint` is a cracked solder joint or a broken track to it. */
  mode: Fault['mode'] | 'joint';
  /** Which pins, in words; empty when the part says enough. */
  where: string;
  /** What to change in the circuit; none: the circuit reads as a healthy one. */
  faults: Fault[];
  /** Weight before any evidence, relative. */
  weight: number;
  /** How far r may be off, as a spread of ln r; 0 without an r. */
  vague: number;
  /**
   * What it moves is known to be moved, not how far: several places with ohms of their own, volts of a breakdown. `spared`: the chance
   * that one of the places was not hit; `by`: how far volts stray, on the scale of `evidence` (as far as ohms do without it).
   */
  loose?: { spared: number; by?: number };
}

/** Parts of the board on a net of the circuit that the circuit does not hold. */
export interface Beside {
  net: string;
  parts: readonly { ref: string; cls: PartClass }[];
}

/** Where ohms (or a factor) may lie: places, each with the spread of ln round it. */
interface Range {
  at: readonly number[];
  vague: number;
}

/** Ω of shorts by what is shorted: a cracked ceramic, a molten junction, a punched-through switch, silicon of a chip. */
const SHORTS = {
  plain: { at: [FAULT_OHMS.short * 2], vague: 0.8 },
  junction: { at: [0.5], vague: 0.8 },
  switch: { at: [0.5], vague: 1 },
  chip: { at: [0.7, 8], vague: 0.8 },
} as const satisfies Record<string, Range>;
/** Ω of a leak: three decades, each as likely. */
const LEAK: Range = { at: [30, 300, 3000], vague: 0.7 };
const BRIDGE: Range = { at: [FAULT_OHMS.bridge], vague: 0.8 };
/** Factor on a value that has drifted; on what a regulator holds; on a value that is another one. */
const HIGHER: Range = { at: [1.35, 2.5, 8], vague: 0.3 };
const LOWER: Range = { at: [0.72, 0.4], vague: 0.3 };
const HELD = { up: [1.15, 1.4, 1.9], down: [0.85, 0.6, 0.35] };
const HELD_STRAY = 0.15;
const ANOTHER: Range = { at: [0.01, 0.1, 10, 100], vague: 0.3 };
/** What is left of a winding's ohms where some of its turns are shorted: 0.3 to 0.9 of them. */
const TURNS: Range = { at: [0.55], vague: 0.3 };
/** A winding of less reads alike with and without. */
const LEAST_WINDING_OHM = 1;
/** A film on a contact makes ohms of its milliohms. */
const FILM: Range = { at: [100], vague: 0.3 };
/** Chance that a pin was spared where several of a chip went low together. */
const SPARED = 0.4;
/** Share of silent chips that take no more current under power than without. */
const ASLEEP = 0.5;
/** Share of a chip's pins that leak, beside those that are shorted or open. */
const LEAKS = 0.4;
/** A part that breaks down does so at about this share of the volts that it stands at; below this many volts there are none. */
const BREAKS_AT = 0.7;
const BREAKS_STRAY = 0.5;
const LEAST_BREAKDOWN_V = 1.5;

/** One thing that may have happened to a part. */
interface Way {
  mode: Hypothesis['mode'];
  weight: number;
  /** What events and counts know it as. */
  way: FailureWay;
  where?: string;
  /** Without one there is one place. */
  range?: Range;
  faults: (at: number) => Fault[];
  loose?: Hypothesis['loose'];
}

type Add = (way: Way) => void;

const nothing = (): Fault[] => [];

/** Every fault of the circuit. `events`: what happened to the board; `beside`: what stands on its nets and is not in it. */
export function hypothesesOf(
  netlist: Netlist,
  events: readonly BoardEvent[] = [],
  beside: readonly Beside[] = [],
): Hypothesis[] {
  const list: Hypothesis[] = [];
  const volts = highestVolts(netlist);
  for (const part of netlist.parts) {
    const cls = classOf(part);
    const add: Add = ({ mode, weight, way, where = '', range, faults, loose }) => {
      if (weight <= 0) return;
      const factor = events.reduce((f, event) => f * eventFactor(event, cls, way), 1);
      const places = range?.at ?? [1];
      for (const at of places)
        list.push({
          ...{ ref: part.ref, mode, where, faults: faults(at), weight: (weight * factor) / places.length },
          ...{ vague: range?.vague ?? 0, ...(loose ? { loose } : {}) },
        });
    };
    if (part.kind === 'IC') addIc(netlist, part, add);
    else if (part.kind === 'J') addPlug(netlist, part, add);
    else addPlain(part, cls, add);
    addBreakdown(part, cls, volts, add);
    if (events.includes('rework')) addReworked(part, add);
  }
  for (const { faults, where, weight } of usualPairs(netlist, SHORTS.junction.at[0], IC_FAULT_OHMS.pin))
    list.push({
      ref: faults.map((f) => f.ref).join(' + '),
      ...{ mode: 'short', where, faults, weight, vague: 0, loose: { spared: 0 } },
    });
  for (const { faults, where, weight } of events.includes('rework') ? exchangedPairs(netlist) : [])
    list.push({ ref: faults.map((f) => f.ref).join(' + '), mode: 'drift', where, faults, weight, vague: 0 });
  return [...list, ...outside(netlist, beside)];
}

const isSwitch = (part: CircuitPart) => part.kind === 'M' || part.kind === 'Q';
const JUNCTIONS = new Set<CircuitPart['kind']>(['D', 'Z', 'ZB']);

/** A short between two pins of a part, or between its two ends. */
function shorted(part: CircuitPart, pins?: [string, string]): Pick<Way, 'mode' | 'range' | 'faults'> {
  const kind = isSwitch(part) ? 'switch' : JUNCTIONS.has(part.kind) ? 'junction' : 'plain';
  const range = SHORTS[part.kind === 'IC' ? 'chip' : kind];
  return { mode: 'short', range, faults: (r) => [{ ref: part.ref, mode: 'short', r, ...(pins ? { pins } : {}) }] };
}

const leaking = ({ ref }: CircuitPart, pins?: [string, string]): Pick<Way, 'mode' | 'range' | 'faults'> => ({
  ...{ mode: 'leaky', range: LEAK },
  faults: (r) => [{ ref, mode: 'leaky', r, ...(pins ? { pins } : {}) }],
});

const changed = ({ ref }: CircuitPart, range: Range): Pick<Way, 'mode' | 'range' | 'faults'> => ({
  ...{ mode: 'drift', range },
  faults: (factor) => [{ ref, mode: 'drift', factor }],
});

/** A cracked joint, or the track to it, per pin. */
function addJoints({ ref }: CircuitPart, pins: readonly string[], add: Add): void {
  for (const pin of pins)
    add({
      ...{ mode: 'joint', weight: JOINT_WEIGHT / pins.length, way: 'joint', where: `joint ${pin}` },
      faults: () => [{ ref, mode: 'open', pin }],
    });
}

function addPlug(netlist: Netlist, part: PartOf<'J'>, add: Add): void {
  const { ref } = part;
  const weights: Weights = WEIGHTS.conn;
  // liquid, a bent contact or a sliver between neighbours, as its pins are numbered
  const pins = Object.keys(part.pins).sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
  const pairs = pins.slice(1).map((pin, i): [string, string] => [pins[i], pin]);
  for (const [a, b] of pairs)
    if (part.pins[a] !== part.pins[b])
      add({
        ...{
          mode: 'bridge',
          weight: (weights.bridge ?? 0) / pairs.length,
          way: 'bridge',
          where: `${a}–${b}`,
          range: BRIDGE,
        },
        faults: (r) => [{ ref, mode: 'bridge', pins: [a, b], r }],
      });
  for (const net of netlist.jopen.filter((net) => Object.values(part.pins).includes(net))) {
    const pin = pinOf(part, net) ?? net;
    add({
      ...{ mode: 'open', weight: weights.open ?? 0, way: 'open', where: `pin ${pin}` },
      faults: () => [{ ref, mode: 'open', pin }],
    });
  }
}

function addPlain(part: Exclude<CircuitPart, { kind: 'IC' | 'J' }>, cls: PartClass, add: Add): void {
  const weights: Weights = WEIGHTS[cls];
  const { ref } = part;
  const open = (pin: string, weight: number) =>
    add({ mode: 'open', weight, way: 'open', where: pin, faults: () => [{ ref, mode: 'open', pin }] });
  if (part.kind === 'M') {
    add({ ...shorted(part, ['D', 'S']), weight: weights.short ?? 0, way: 'short', where: 'D–S' });
    add({ ...shorted(part, ['G', 'S']), weight: weights.gs ?? 0, way: 'gs', where: 'G–S' });
    add({ ...shorted(part, ['G', 'D']), weight: weights.gd ?? 0, way: 'gd', where: 'G–D' });
    const r = SHORTS.switch.at[0];
    add({
      ...{ mode: 'short', weight: weights.through ?? 0, way: 'short', where: 'D–G–S', loose: { spared: 0 } },
      faults: () => [
        { ref, mode: 'short', pins: ['D', 'S'], r },
        { ref, mode: 'short', pins: ['G', 'S'], r },
      ],
    });
    for (const pin of ['D', 'G']) open(pin, (weights.open ?? 0) / 2);
    addJoints(part, ['D', 'G', 'S'], add);
    return;
  }
  if (part.kind === 'Q') {
    add({ ...shorted(part, ['C', 'E']), weight: weights.short ?? 0, way: 'short', where: 'C–E' });
    add({ ...shorted(part, ['B', 'E']), weight: weights.be ?? 0, way: 'be', where: 'B–E' });
    for (const pin of ['C', 'B']) open(pin, (weights.open ?? 0) / 2);
    addJoints(part, ['C', 'B', 'E'], add);
    return;
  }
  add({ ...shorted(part), weight: weights.short ?? 0, way: 'short' });
  add({ ...leaking(part), weight: weights.leaky ?? 0, way: 'leaky' });
  const opened = (): Fault[] => [{ ref, mode: 'open' }];
  add({ mode: 'open', weight: weights.open ?? 0, way: 'open', faults: opened });
  const higher = cls === 'contact' ? FILM : HIGHER;
  add({ ...changed(part, higher), weight: weights.up ?? 0, way: 'up', where: 'too high' });
  add({ ...changed(part, LOWER), weight: weights.down ?? 0, way: 'down', where: 'too low' });
  if ((part.kind === 'RLY' || part.kind === 'L') && part.r >= LEAST_WINDING_OHM)
    add({ ...changed(part, TURNS), weight: weights.turns ?? 0, way: 'turns', where: 'turns shorted' });
  add({ mode: 'joint', weight: JOINT_WEIGHT, way: 'joint', where: 'joint', faults: opened });
}

/** What hands that were there before leave behind: nothing, another value, the wrong way round. */
function addReworked(part: CircuitPart, add: Add): void {
  const { ref } = part;
  if (part.kind !== 'J')
    add({ mode: 'missing', weight: MISSING_WEIGHT, way: 'missing', faults: () => [{ ref, mode: 'missing' }] });
  if (part.kind === 'R')
    add({ ...changed(part, ANOTHER), weight: WRONG_VALUE_WEIGHT, way: 'missing', where: 'another value' });
  if (part.kind === 'D' || part.kind === 'Z')
    add({ mode: 'reversed', weight: REVERSED_WEIGHT, way: 'missing', faults: () => [{ ref, mode: 'reversed' }] });
}

/** Well to a meter, and conducting once its voltage comes. */
function addBreakdown(part: CircuitPart, cls: PartClass, volts: ReadonlyMap<string, number>, add: Add): void {
  const weights: Weights = WEIGHTS[cls];
  const at = (pin: string | undefined) => Math.abs((pin !== undefined && volts.get(part.pins[pin])) || 0);
  const pins = part.kind === 'IC' ? (part.rail ?? []) : Object.keys(part.pins);
  const highest = Math.max(0, ...pins.map(at));
  if (highest < LEAST_BREAKDOWN_V) return;
  add({
    ...{
      mode: 'breakdown',
      weight: weights.under ?? 0,
      way: 'under',
      where: 'under voltage',
      loose: { spared: 0, by: BREAKS_STRAY },
    },
    faults: () => [{ ref: part.ref, mode: 'breakdown', v: BREAKS_AT * highest }],
  });
}

/**
 * ICs convict, they do not acquit: most of their ways to fail show at a pin, the rest at none, and that
 * rest keeps the weight it had however many normal values are read.
 */
function addIc(netlist: Netlist, part: PartOf<'IC'>, add: Add): void {
  const weights: Weights = WEIGHTS[classOf(part)];
  const { ref } = part;
  const { ground } = netlist;
  const pins = Object.keys(part.pins);
  const rails = [...new Set((part.rail ?? []).map((r) => pinOf(part, r)).filter((p) => p !== undefined))];
  const earth = pins.find((pin) => part.pins[pin] === ground);
  const shown = (weight: number | undefined) => (weight ?? 0) * IC_SHOWS;
  const lines = pins.filter((pin) => part.pins[pin] !== ground && !rails.includes(pin));
  if (earth !== undefined) {
    for (const rail of rails) {
      const share = 1 / rails.length;
      const where = `pin ${rail}`;
      add({ ...shorted(part, [rail, earth]), weight: shown(weights.short) * share, way: 'short', where });
      add({ ...leaking(part, [rail, earth]), weight: shown(weights.leaky) * share, way: 'leaky', where });
    }
    if (lines.length > 1) {
      // the side of a chip that looks outward goes as a whole, or with its supply: each pin as bad as it happens to be
      const low = (pin: string, r: number): Fault => ({ ref, mode: 'short', pins: [pin, earth], r });
      const all = lines.map((pin) => low(pin, IC_FAULT_OHMS.pin));
      const several = { mode: 'short', way: 'pins', loose: { spared: SPARED } } as const;
      add({ ...several, weight: shown(weights.several), where: 'several pins', faults: () => all });
      if (rails.length > 0)
        add({
          ...{ ...several, weight: shown(weights.several) / 2, where: 'supply and pins' },
          faults: () => [...rails.map((rail) => low(rail, IC_FAULT_OHMS.short)), ...all],
        });
    }
  }
  // a pin fails short more often than open
  for (const pin of lines) {
    const each = shown(weights.pins) / lines.length;
    if (earth !== undefined) {
      add({ ...shorted(part, [pin, earth]), weight: 0.7 * each, way: 'pins', where: `pin ${pin}` });
      add({ ...leaking(part, [pin, earth]), weight: LEAKS * each, way: 'leaky', where: `pin ${pin} leaks` });
    }
    add({
      ...{ mode: 'open', weight: 0.3 * each, way: 'pins', where: `pin ${pin}` },
      faults: () => [{ ref, mode: 'open', pin }],
    });
  }
  addJoints(part, pins, add);
  addBlocks(part, weights, add);
  const total = Object.values(weights).reduce((sum, w) => sum + w, 0);
  // dead, or without what starts it (clock, reset, enable): it takes what it takes without power
  const takes = part.res.some(([, , off, on = off]) => on !== off);
  const asleep = takes ? ASLEEP * shown(weights.dead) : 0;
  add({
    mode: 'asleep',
    weight: asleep,
    way: 'dead',
    where: 'does not start',
    faults: () => [{ ref, mode: 'asleep' }],
  });
  const silent = part.blocks.length > 0 ? shown(weights.dead) - asleep : 0;
  add({ mode: 'dead', weight: silent, way: 'dead', where: 'silent', faults: () => [{ ref, mode: 'dead' }] });
  // what no pin will ever show
  const hidden = total - shown(total) + (silent > 0 ? 0 : shown(weights.dead) - asleep);
  add({ mode: 'dead', weight: hidden, way: 'dead', where: 'inside', faults: nothing });
  for (const [a, b] of part.adjacent) {
    const pair = [pinOf(part, a), pinOf(part, b)];
    if (pair[0] === undefined || pair[1] === undefined || part.pins[pair[0]] === part.pins[pair[1]]) continue;
    const between: [string, string] = [pair[0], pair[1]];
    add({
      ...{ mode: 'bridge', weight: BRIDGE_WEIGHT, way: 'bridge', where: between.join('–'), range: BRIDGE },
      faults: (r) => [{ ref, mode: 'bridge', pins: between, r }],
    });
  }
}

/** Regulators that hold another voltage or pass their input through; output stages that fail like switches, to their supply. */
function addBlocks(part: PartOf<'IC'>, weights: Weights, add: Add): void {
  const { ref } = part;
  const share = 1 / Math.max(1, part.blocks.length);
  for (const block of part.blocks) {
    const [supply, second, , , fifth] = blockPins(part, block);
    const output = { ldo: second, buck: second, boost: null, opamp: fifth, buf: blockPins(part, block)[3] }[block.type];
    const regulates = block.type === 'ldo' || block.type === 'buck' || block.type === 'boost';
    if (regulates)
      for (const way of ['up', 'down'] as const)
        add({
          ...{
            mode: 'drift',
            weight: (weights.wrong ?? 0) * share * 0.5,
            way: 'wrong',
            range: { at: HELD[way], vague: 0 },
          },
          ...{ where: way === 'up' ? 'output too high' : 'output too low', loose: { spared: 0, by: HELD_STRAY } },
          faults: (factor) => [{ ref, mode: 'drift', factor }],
        });
    if (supply === null || output === null || part.pins[supply] === part.pins[output]) continue;
    add({
      ...shorted(part, [output, supply]),
      ...{ weight: (weights.through ?? 0) * share, way: 'short', where: `${output}–${supply}` },
    });
  }
}

/**
 * Something that the circuit does not hold, shorted or leaking between a net and ground, or across a pair of nets: what the board says stands
 * there, else what may.
 */
function outside(netlist: Netlist, beside: readonly Beside[]): Hypothesis[] {
  const { ground, alias, pairs } = netlist;
  const known = new Map(beside.map(({ net, parts }) => [net, parts]));
  const nets = netsOf(netlist).filter((net) => !(net in alias));
  const places = [
    ...nets.map((net) => ({ nets: [net, ground] as const, there: known.get(net), name: net })),
    ...pairs.map(([a, b]) => {
      const [atA, atB] = [known.get(a), known.get(b)];
      const both = atA && atB?.filter(({ ref }) => atA.some((p) => p.ref === ref));
      return { nets: [a, b] as const, there: both, name: `${a} and ${b}` };
    }),
  ];
  return places.flatMap(({ nets: [a, b], there, name }) => {
    const holder = netlist.parts.find((p) => Object.values(p.pins).includes(a));
    if (!holder) return [];
    const weight = (way: 'short' | 'leaky'): number => {
      if (!there) return (b === ground ? OUTSIDE : ACROSS)[way];
      return there.reduce((sum, { cls }) => sum + ((WEIGHTS[cls] as Weights)[way] ?? 0), 0);
    };
    const where = there?.length ? `${few(there.map((p) => p.ref))} on ${name}` : `on ${name}`;
    const at = (mode: 'short' | 'leaky', { at: ohms, vague }: Range) =>
      ohms.map((r): Hypothesis => ({
        ...{ ref: NONE, mode, where, weight: weight(mode) / ohms.length, vague },
        faults: [{ ref: holder.ref, mode: 'bridge', pins: [a, b], r }],
      }));
    return [...at('short', SHORTS.plain), ...at('leaky', LEAK)].filter((h) => h.weight > 0);
  });
}

/** Highest voltage of every net of the healthy circuit in any state, V; none where nothing feeds it. */
function highestVolts(netlist: Netlist): Map<string, number> {
  const volts = new Map<string, number>();
  for (const state of statesOf(netlist)) {
    const network = assemble(netlist, [], state);
    const { v, converged } = new NetworkSolver(network).solve();
    if (!converged) continue;
    for (const net of netsOf(netlist)) {
      const node = network.node(net);
      if (node !== undefined) volts.set(net, Math.max(volts.get(net) ?? 0, v[node]));
    }
  }
  return volts;
}

/** True when a hypothesis changes no DC reading by construction (an open capacitor). */
export function isBlind(netlist: Netlist, h: Hypothesis): boolean {
  if (h.faults.length === 0) return true;
  const part = netlist.parts.find((p) => p.ref === h.ref);
  return part?.kind === 'C' && h.faults.every((f) => f.mode === 'open' || f.mode === 'missing' || f.mode === 'drift');
}
