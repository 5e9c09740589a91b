/**
 * The circuit round a fault as data: parts with pins on named nets, what a probe can reach, what feeds it.
 * Kinds, fields and models are those of `circuit.solve` and `diagnose.rank`.
 */
import { z } from 'zod';
import { DIODE_MODELS } from './junction.ts';

const name = z.string().trim().min(1).max(80);
const net = name;
const ohms = z.number().min(1e-6).max(1e15);
const volts = z.number().min(-1e5).max(1e5);
const amps = z.number().min(-1e4).max(1e4);

const diodeModel = z.enum(Object.keys(DIODE_MODELS) as [keyof typeof DIODE_MODELS, ...(keyof typeof DIODE_MODELS)[]]);

/** Pin names are strings; numbers in a file are taken as such. */
const pinName = z.union([z.string().trim().min(1).max(20), z.int().transform(String)]);
const pins = z.record(z.string().trim().min(1).max(20), net);

const common = {
  ref: z.string().trim().min(1).max(40),
  pins,
  /** Class for priors (see `diagnosis/priors`); without it the kind decides. */
  cls: z.string().trim().max(40).optional(),
  /** What it is, in words. */
  what: z.string().max(200).optional(),
  /** Part of the board model that it stands for. */
  partId: z.string().max(60).optional(),
};

const limits = { ilim: z.number().positive().max(1e4), rout: ohms };
const uvlo = { vuv: volts.default(0), iq: z.number().min(0).max(100).default(0) };
const blockPins = {
  /** Role (VIN, OUT, EN …) → pin of the IC; without it the pin of that name. */
  pins: z.record(z.string().trim().min(1).max(20), pinName).optional(),
};
const converter = {
  ...blockPins,
  ...uvlo,
  ven: volts.default(1),
  vref: volts,
  dmax: z.number().min(0).max(0.999),
  a: z.number().positive().max(1e7),
};
const blockSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('ldo'), ...blockPins, ...uvlo, vset: volts, vdo: volts.default(0.2), ...limits }),
  z.strictObject({ type: z.literal('buck'), ...converter, ...limits }),
  z.strictObject({ type: z.literal('boost'), ...converter, vovp: volts.default(1e4), rout: ohms }),
  z.strictObject({
    type: z.literal('opamp'),
    ...blockPins,
    a: z.number().positive().max(1e9),
    vmin: volts.default(0),
    ...limits,
  }),
  z.strictObject({
    type: z.literal('buf'),
    ...blockPins,
    vth: volts,
    inv: z.boolean().default(false),
    vmin: volts.default(0),
    ...limits,
  }),
]);
export type Block = z.infer<typeof blockSchema>;

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A block may say `kind` for `type`, and its roles beside its figures instead of under `pins`. */
const block = z.preprocess((value) => {
  if (!isRecord(value)) return value;
  const { kind, type = kind, pins, ...rest } = value;
  const roles = Object.entries(rest).filter(([, v]) => typeof v === 'string');
  const figures = Object.fromEntries(Object.entries(rest).filter(([, v]) => typeof v !== 'string'));
  const named = { ...(isRecord(pins) ? pins : {}), ...Object.fromEntries(roles) };
  return { type, ...figures, ...(Object.keys(named).length ? { pins: named } : {}) };
}, blockSchema);

const resistive = { ...common, r: ohms };

export const circuitPartSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('R'), ...common, value: ohms }),
  z.strictObject({ kind: z.literal('F'), ...resistive }),
  z.strictObject({ kind: z.literal('FB'), ...resistive }),
  z.strictObject({ kind: z.literal('L'), ...resistive, value: z.number().positive().optional() }),
  z.strictObject({ kind: z.literal('RLY'), ...resistive }),
  z.strictObject({
    kind: z.literal('C'),
    ...common,
    /** F. */
    value: z.number().min(0).max(100).optional(),
    leak: ohms.default(1e10),
  }),
  z.strictObject({ kind: z.literal('D'), ...common, model: diodeModel.default('si') }),
  z.strictObject({
    kind: z.literal('Z'),
    ...common,
    bv: z.number().positive().max(5000),
    model: diodeModel.default('tvs'),
  }),
  z.strictObject({ kind: z.literal('ZB'), ...common, bv: z.number().positive().max(5000) }),
  z.strictObject({
    kind: z.literal('M'),
    ...common,
    type: z.enum(['N', 'P']),
    vto: volts,
    kp: z.number().positive().max(1e5),
    lambda: z.number().min(0).max(1).default(0.01),
  }),
  z.strictObject({
    kind: z.literal('Q'),
    ...common,
    type: z.preprocess((t) => (t === 'NPN' ? 'N' : t === 'PNP' ? 'P' : t), z.enum(['N', 'P'])),
    is: z.number().positive().max(1).default(1e-14),
    bf: z.number().positive().max(1e5).default(150),
    br: z.number().positive().max(1e5).default(4),
  }),
  z.strictObject({
    kind: z.literal('IC'),
    ...common,
    /** Diodes between its own pins: anode, cathode, model (`esd` without one). */
    esd: z
      .array(
        z.union([
          z.tuple([pinName, pinName, diodeModel]),
          z.tuple([pinName, pinName]).transform(([a, k]): [string, string, 'esd'] => [a, k, 'esd']),
        ]),
      )
      .max(400)
      .default([]),
    /** Resistors between its own pins: asleep, awake (Ω). */
    res: z
      .array(z.union([z.tuple([pinName, pinName, ohms, ohms]), z.tuple([pinName, pinName, ohms])]))
      .max(400)
      .default([]),
    blocks: z.array(block).max(20).default([]),
    /** Pins that its supply comes in at. */
    rail: z.union([pinName.transform((p) => [p]), z.array(pinName).max(20)]).optional(),
    /** Pairs of pins that stand side by side: solder may bridge them. */
    adjacent: z
      .array(z.tuple([pinName, pinName]))
      .max(400)
      .default([]),
  }),
  z.strictObject({ kind: z.literal('J'), ...common }),
]);
export type CircuitPart = z.infer<typeof circuitPartSchema>;
export type PartOf<K extends CircuitPart['kind']> = Extract<CircuitPart, { kind: K }>;

/** The first of these keys that is there takes the name `to`. */
const renamed = (value: unknown, to: string, from: string[]): unknown => {
  if (!isRecord(value) || to in value) return value;
  const key = from.find((k) => k in value);
  if (key === undefined) return value;
  const { [key]: taken, ...rest } = value;
  return { ...rest, [to]: taken };
};

/** Bench supply: voltage v behind a current limit, at net p. */
const sourceSchema = z.strictObject({
  p: net,
  v: volts,
  ilim: z.number().positive().max(1e4),
  rout: ohms.default(0.02),
  label: z.string().max(80).optional(),
});
export type Source = z.infer<typeof sourceSchema>;
const source = z.preprocess((value) => renamed(value, 'p', ['net']), sourceSchema);

/** What hangs on a powered net: a resistor or a constant current from p to n (ground without it). */
const loadSchema = z.union([
  z.strictObject({ p: net, n: net.optional(), r: ohms, label: z.string().max(80).optional() }),
  z.strictObject({ p: net, n: net.optional(), i: amps, label: z.string().max(80).optional() }),
]);
export type Load = z.infer<typeof loadSchema>;
/** Also `[p, n, r]`. */
const load = z.preprocess((value) => {
  if (Array.isArray(value)) return { p: value[0], n: value[1], r: value[2] };
  return renamed(renamed(renamed(value, 'p', ['net', 'a']), 'n', ['b']), 'r', ['value']);
}, loadSchema);

const supply = { sources: z.array(source).max(20).default([]), loads: z.array(load).max(100).default([]) };

/** Pins that every kind must have, in the order of its default pair. */
export const KIND_PINS: Record<CircuitPart['kind'], readonly string[]> = {
  R: ['1', '2'],
  F: ['1', '2'],
  FB: ['1', '2'],
  L: ['1', '2'],
  RLY: ['1', '2'],
  C: ['1', '2'],
  D: ['A', 'K'],
  Z: ['A', 'K'],
  ZB: ['1', '2'],
  M: ['D', 'G', 'S'],
  Q: ['C', 'B', 'E'],
  IC: [],
  J: [],
};

/** The circuit, or what was asked of it, does not hang together; the message is a sentence for the user. */
export class NetlistError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'NetlistError';
  }
}

/** Most a circuit may hold; a board's whole netlist is not a circuit round a fault. */
const MAX_PARTS = 400;

/** The pin called so, or the part's pin on the net called so. */
export function pinOf(part: { pins: Record<string, string> }, name: string): string | undefined {
  if (name in part.pins) return name;
  return Object.keys(part.pins).find((pin) => part.pins[pin] === name);
}

export const netlistSchema = z
  .strictObject({
    ground: net,
    /** Nets a probe can reach; without it all of them. */
    tp: z.array(net).max(400).optional(),
    /** Pairs of nets worth a reading across. */
    pairs: z
      .array(z.tuple([net, net]))
      .max(200)
      .default([]),
    /** Nets of connectors whose pin may crack. */
    jopen: z.array(net).max(100).default([]),
    /** Net that exists in the model only → the physical net it belongs to. */
    alias: z.record(net, net).default({}),
    parts: z.array(circuitPartSchema).min(1, 'put a part in').max(MAX_PARTS),
    power: z.strictObject({ ...supply, states: z.record(name, z.strictObject(supply)).default({}) }).optional(),
  })
  .superRefine((n, ctx) => {
    const say = (path: (string | number)[], message: string) => ctx.addIssue({ code: 'custom', path, message });
    const nets = new Set([n.ground]);
    const refs = new Set<string>();
    n.parts.forEach((part, i) => {
      if (refs.has(part.ref)) say(['parts', i, 'ref'], `${part.ref} is there twice`);
      refs.add(part.ref);
      const missing = KIND_PINS[part.kind].filter((pin) => !(pin in part.pins));
      if (missing.length) say(['parts', i, 'pins'], `${part.ref} (${part.kind}) needs pin ${missing.join(' and ')}`);
      for (const net of Object.values(part.pins)) nets.add(net);
      if (part.kind === 'IC') {
        const own = [...part.esd.flatMap(([a, k]) => [a, k]), ...part.res.flatMap(([a, b]) => [a, b])];
        const unknown = [...own, ...(part.rail ?? []), ...part.adjacent.flat()].find((pin) => !pinOf(part, pin));
        if (unknown !== undefined) say(['parts', i], `${part.ref} has no pin ${unknown}`);
      }
    });
    const known = (net: string, path: (string | number)[]) => {
      if (!nets.has(net)) say(path, `no part is connected to the net ${net}`);
    };
    if (!n.parts.some((p) => Object.values(p.pins).includes(n.ground)))
      say(['ground'], `no part is connected to ${n.ground}`);
    n.tp?.forEach((net, i) => known(net, ['tp', i]));
    n.pairs.forEach(([a, b], i) => {
      known(a, ['pairs', i, 0]);
      known(b, ['pairs', i, 1]);
    });
    const supplies: [typeof n.power | undefined, (string | number)[]][] = [
      [n.power, ['power']],
      ...Object.entries(n.power?.states ?? {}).map(([state, s]): [typeof n.power, (string | number)[]] => [
        { ...s, states: {} },
        ['power', 'states', state],
      ]),
    ];
    for (const [s, path] of supplies) {
      s?.sources.forEach((source, i) => known(source.p, [...path, 'sources', i, 'p']));
      s?.loads.forEach((load, i) => {
        known(load.p, [...path, 'loads', i, 'p']);
        if (load.n) known(load.n, [...path, 'loads', i, 'n']);
      });
    }
  });
export type Netlist = z.infer<typeof netlistSchema>;

/** Change of one part against the healthy circuit. */
export const faultSchema = z.strictObject({
  ref: z.string().trim().min(1).max(40),
  mode: z.enum(['open', 'short', 'leaky', 'bridge', 'drift', 'dead', 'asleep', 'missing', 'reversed', 'breakdown']),
  /** `open`: which pin leaves its net (the first without it). */
  pin: pinName.optional(),
  /** `short`, `leaky`, `bridge`, `breakdown`: between which two pins of the part (a bridge may name two nets instead). */
  pins: z.tuple([pinName, pinName]).optional(),
  /** Ω of the short, leak or bridge. */
  r: ohms.optional(),
  /** `drift`: factor on the value; of an IC on what its regulators hold. */
  factor: z.number().positive().max(1e6).optional(),
  /** `breakdown`: volts from which it conducts, either way. */
  v: z.number().positive().max(1e5).optional(),
});
export type Fault = z.infer<typeof faultSchema>;

const netsKnown = new WeakMap<Netlist, string[]>();

/** Names of all nets but ground, in the order of their first appearance. A netlist is never changed in place. */
export function netsOf(netlist: Netlist): string[] {
  const known = netsKnown.get(netlist);
  if (known) return known;
  const nets = new Set<string>();
  for (const part of netlist.parts) for (const net of Object.values(part.pins)) nets.add(net);
  nets.delete(netlist.ground);
  const list = [...nets];
  netsKnown.set(netlist, list);
  return list;
}

/** The model's name of a net that may be given by its physical name. */
export function modelNet(netlist: Netlist, net: string): string {
  if (net === '' || net === netlist.ground || netsOf(netlist).includes(net)) return net;
  return Object.keys(netlist.alias).find((model) => netlist.alias[model] === net) ?? net;
}

/** States in which the circuit can be powered: those named, or `on` when there are sources without any. */
export function statesOf(netlist: Netlist): string[] {
  const named = Object.keys(netlist.power?.states ?? {});
  return named.length === 0 && netlist.power?.sources.length ? ['on'] : named;
}
