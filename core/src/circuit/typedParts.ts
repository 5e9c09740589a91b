/**
 * Parts of a circuit as they are typed, one a line: a name, its nets, a figure. `C7 3V3 GND 10u`, `Q1 12V GATE GND` (as KIND_PINS has their order),
 * `U1 VIN=12V SW=SW FB=FB GND buck 0.8`, `J2 5V GND`; a supply is `feed 12V 12 1`, a load in ohms
 * `load 3V3 40`.
 */
import { PART_CLASSES, type PartClass } from '../board/index.ts';
import { parseReading } from '../ground/index.ts';
import { asClass, BLOCK_FIGURE, BLOCK_NAMES, worksAs } from './becomes.ts';
import { netlistSchema, type Block, type CircuitPart, type Load, type Netlist, type Source } from './netlist.ts';

/** What did not make sense in a line, as a sentence. */
export class TypedPartsError extends Error {
  constructor(line: number, message: string) {
    super(`Line ${line}: ${message}`);
    this.name = 'TypedPartsError';
  }
}

const CLASS_OF: Record<string, PartClass> = {
  ...{
    C: 'mlcc',
    R: 'res',
    L: 'coil',
    FB: 'ferrite',
    F: 'fuse',
    K: 'relay',
    D: 'diode',
    Q: 'mosfet',
    M: 'mosfet',
    T: 'bjt',
  },
  ...{ U: 'load', IC: 'load', J: 'conn', X: 'conn', Y: 'crystal', S: 'contact', SW: 'contact' },
};
const isBlock = (word: string): word is Block['type'] => word in BLOCK_NAMES;
const isClass = (word: string): word is PartClass => word in PART_CLASSES;
/** The figure of a kind that a number at the end stands for. */
const FIGURE: Partial<Record<CircuitPart['kind'], string>> = {
  R: 'value',
  C: 'value',
  L: 'r',
  FB: 'r',
  F: 'r',
  RLY: 'r',
  ZB: 'bv',
  Z: 'bv',
};

/** Parts, supplies and loads of typed lines. Throws `TypedPartsError`. */
export function typedParts(text: string, ground: string): { parts: CircuitPart[]; sources: Source[]; loads: Load[] } {
  const parts: CircuitPart[] = [];
  const sources: Source[] = [];
  const loads: Load[] = [];
  text.split('\n').forEach((raw, i) => {
    const words = raw
      .trim()
      .split(/[\s,;]+/)
      .filter(Boolean);
    if (words.length === 0) return;
    const fail = (message: string): never => {
      throw new TypedPartsError(i + 1, message);
    };
    const [ref, ...rest] = words;
    if (ref.toLowerCase() === 'feed') {
      const [p = '', volts = '', amps = '1'] = rest;
      const [v, ilim] = [parseReading(volts), parseReading(amps)];
      if (!p || typeof v !== 'number' || typeof ilim !== 'number' || ilim <= 0)
        return fail('feed, a net, volts, amperes: feed 12V 12 1');
      sources.push({ p, v, ilim, rout: 0.02 });
      return;
    }
    if (ref.toLowerCase() === 'load') {
      const [p = '', ohms = ''] = rest;
      const r = parseReading(ohms);
      if (!p || typeof r !== 'number' || r <= 0) return fail('load, a net, ohms: load 3V3 40');
      loads.push({ p, r });
      return;
    }
    const letters = /^[A-Za-z]+/.exec(ref)?.[0].toUpperCase() ?? '';
    const typedClass = rest.find(isClass);
    const cls = typedClass ?? CLASS_OF[letters];
    if (cls === undefined) return fail(`${ref}: begin with a name such as C7, R1, U2 or J1`);
    const block = rest.find(isBlock);
    const nets = rest.filter((w) => w !== typedClass && w !== block);
    const last = nets.at(-1);
    const number = last === undefined || last.includes('=') ? null : parseReading(last);
    const kinds = asClass({ kind: 'J', ref, pins: { 1: ground } }, cls, ground).kind;
    const least = kinds === 'IC' || kinds === 'J' ? 1 : kinds === 'M' || kinds === 'Q' ? 3 : 2;
    const hasFigure =
      typeof number === 'number' && nets.length > least && (block !== undefined || FIGURE[kinds] !== undefined);
    const named = hasFigure ? nets.slice(0, -1) : nets;
    if (named.length < least) return fail(`${ref}: ${least} nets at least`);
    const pins = Object.fromEntries(
      named.map((word, n): [string, string] => {
        const [pin, net] = word.includes('=') ? word.split('=', 2) : [kinds === 'IC' ? word : String(n + 1), word];
        return [pin || String(n + 1), net || word];
      }),
    );
    let part = asClass({ kind: 'J', ref, pins }, cls, ground);
    if (part.kind === 'IC' && !Object.values(part.pins).includes(ground))
      part = { ...part, pins: { ...part.pins, GND: ground } };
    const key = FIGURE[part.kind];
    if (hasFigure && key !== undefined) part = { ...part, [key]: number } as CircuitPart;
    if (block) {
      const made = part.kind === 'IC' ? worksAs(part, block) : null;
      if (!made) return fail(`${ref}: ${BLOCK_NAMES[block]} needs more pins, such as VIN=12V OUT=3V3 GND`);
      const [first] = made.blocks;
      part = hasFigure ? { ...made, blocks: [{ ...first, [BLOCK_FIGURE[block].key]: number } as Block] } : made;
    }
    parts.push(part);
  });
  return { parts, sources, loads };
}

/** A circuit with the typed lines in it; a name that is there already is replaced. Throws `TypedPartsError` or a Zod error's sentences. */
export function withTyped(netlist: Netlist | null, text: string, ground: string): Netlist {
  const { parts, sources, loads } = typedParts(text, netlist?.ground ?? ground);
  const fresh = new Map(parts.map((p) => [p.ref, p]));
  const kept = (netlist?.parts ?? []).filter((p) => !fresh.has(p.ref));
  const power = netlist?.power ?? { sources: [], loads: [], states: {} };
  const [state = 'awake'] = Object.keys(power.states);
  const own = power.states[state] ?? { sources: [], loads: [] };
  const others = <T extends { p: string }>(list: readonly T[], by: readonly { p: string }[]) =>
    list.filter((x) => !by.some((b) => b.p === x.p));
  const fed = {
    sources: [...others(own.sources, sources), ...sources],
    loads: [...others(own.loads, loads), ...loads],
  };
  const given = sources.length + loads.length > 0;
  const powered = given ? { power: { ...power, states: { ...power.states, [state]: fed } } } : {};
  const checked = netlistSchema.safeParse({
    ...(netlist ?? { ground }),
    parts: [...kept, ...fresh.values()],
    ...powered,
  });
  if (!checked.success) throw new Error(checked.error.issues.map((i) => i.message).join('; '));
  return checked.data;
}
