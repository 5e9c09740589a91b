/** Parts of a circuit guessed from parts of the board: kind by reference, values as written, pins by net. */
import { type BoardModel, classOfPart, isGroundNet, type PlacedPart } from '../board/index.ts';
import { packageById } from '../packages/index.ts';
import { parseReading } from '../ground/index.ts';
import { netlistSchema, netsOf, type CircuitPart, type Netlist } from './netlist.ts';
import type { Template } from './templates.ts';

type Raw = Record<string, unknown>;

/** A value as written on a drawing, in base units: "4.7 µF 100 V" → 4.7e-6; null when there is none. */
export function writtenValue(text: string | undefined): number | null {
  const first = /^\s*([-+.,\d]+)\s*([pnuµmkKMG]?)/.exec(text ?? '');
  if (!first) return null;
  const value = parseReading(first[1] + first[2]);
  return typeof value === 'number' && value > 0 ? value : null;
}

/** What a crystal is to a meter: the capacitance between its electrodes, F. */
const CRYSTAL_F = 5e-12;
/** A contact is drawn open, as a switch nobody presses. */
const OPEN_CONTACT_OHM = 1e9;

const OHMS_BY_KIND = { L: 0.1, FB: 0.2, F: 0.05, RLY: 300 } as const;

/** Nets of a part by terminal; ones that the board does not name get names of their own. */
function netsOfPart(part: PlacedPart, ground: string): Map<string, string> {
  const { terminals } = packageById(part.package);
  return new Map(
    terminals.map((t) => {
      const net = part.nets?.[t.id];
      return [t.id, net === undefined ? `${part.ref ?? part.partId}.${t.id}` : isGroundNet(net) ? ground : net];
    }),
  );
}

/** The part of a circuit that a board part most likely is. Ground nets become `ground`. */
export function circuitPartFrom(part: PlacedPart, ground: string): CircuitPart {
  const nets = netsOfPart(part, ground);
  const [first, second] = [...nets.values()];
  const ref = part.ref ?? part.partId;
  const cls = classOfPart(part);
  const base = { ref, partId: part.partId, cls, ...(part.what ? { what: part.what } : {}) };
  const value = writtenValue(part.value);
  const two = { 1: first, 2: second ?? ground };
  const make = (raw: Raw): CircuitPart => netlistSchema.parse({ ground, parts: [raw, GROUNDED(ground)] }).parts[0];
  switch (cls) {
    case 'mlcc':
    case 'mlccbig':
    case 'elko':
    case 'tant':
    case 'film':
      return make({ ...base, kind: 'C', pins: two, ...(value === null ? {} : { value }) });
    case 'crystal':
      // with four lands the other two are its case
      return make({ ...base, kind: 'C', pins: { 1: first, 2: nets.get('3') ?? second ?? ground }, value: CRYSTAL_F });
    case 'contact':
      return make({ ...base, kind: 'R', pins: two, value: OPEN_CONTACT_OHM });
    case 'res':
    case 'pres':
    case 'shunt':
      if (/^R/i.test(ref)) return make({ ...base, kind: 'R', pins: two, value: value ?? 10e3 });
      return make({ ...base, kind: 'J', pins: Object.fromEntries(nets) });
    case 'coil':
      return make({ ...base, kind: 'L', pins: two, r: OHMS_BY_KIND.L, ...(value === null ? {} : { value }) });
    case 'ferrite':
      return make({ ...base, kind: 'FB', pins: two, r: OHMS_BY_KIND.FB });
    case 'fuse':
      return make({ ...base, kind: 'F', pins: two, r: OHMS_BY_KIND.F });
    case 'relay':
      return make({ ...base, kind: 'RLY', pins: two, r: OHMS_BY_KIND.RLY });
    case 'tvs':
      return make({ ...base, kind: 'ZB', pins: two, bv: value ?? 24 });
    case 'diode':
    case 'schottky':
    case 'led': {
      const model = { diode: 'si', schottky: 'sch', led: 'led' }[cls];
      return make({
        ...base,
        kind: 'D',
        pins: { A: nets.get('A') ?? first, K: nets.get('K') ?? second ?? ground },
        model,
      });
    }
    case 'mosfet': {
      const [g, d, s] = [
        nets.get('1'),
        nets.get('TAB') ?? nets.get('3'),
        nets.get('TAB') ? nets.get('3') : nets.get('2'),
      ];
      return make({
        ...base,
        kind: 'M',
        type: 'N',
        vto: 2.5,
        kp: 10,
        pins: { D: d ?? `${ref}.D`, G: g ?? `${ref}.G`, S: s ?? ground },
      });
    }
    case 'bjt':
      return make({
        ...base,
        kind: 'Q',
        type: 'N',
        pins: { B: nets.get('1') ?? `${ref}.B`, E: nets.get('2') ?? ground, C: nets.get('3') ?? `${ref}.C` },
      });
    case 'power':
    case 'load':
    case 'esd':
      return make({ ...base, kind: 'IC', ...icOf(part, ground) });
    case 'conn':
      return make({ ...base, kind: 'J', pins: Object.fromEntries(nets) });
  }
}

/** Keeps a lone part's netlist whole while it is read. */
const GROUNDED = (ground: string): Raw => ({ ref: '·', kind: 'J', pins: { 1: ground } });

const SUPPLY = /^(v(cc|dd|in|bat|bus|s)|\+?\d+v\d*|[0-9.]+\s*v)/i;

/**
 * Pins with nets only; protection diodes from ground to each, and to the rail; a typical resistance of its
 * supply, asleep and awake.
 */
function icOf(part: PlacedPart, ground: string): Raw {
  const pins: Record<string, string> = {};
  for (const [terminal, net] of Object.entries(part.nets ?? {})) pins[terminal] = isGroundNet(net) ? ground : net;
  let earth = Object.keys(pins).find((pin) => pins[pin] === ground);
  if (earth === undefined) {
    earth = 'GND';
    pins[earth] = ground;
  }
  const rail = Object.keys(pins).find((pin) => SUPPLY.test(pins[pin]));
  const lines = Object.keys(pins).filter((pin) => pin !== rail && pins[pin] !== ground);
  return {
    pins,
    ...(rail === undefined ? {} : { rail: [rail] }),
    esd: [
      ...(rail === undefined ? [] : [[earth, rail, 'esd']]),
      ...lines.flatMap((pin) => [[earth, pin, 'esd'], ...(rail === undefined ? [] : [[pin, rail, 'esdup']])]),
    ],
    res: rail === undefined ? [] : [[rail, earth, 5000, 200]],
    adjacent: lines.slice(1).map((pin, i) => [lines[i], pin]),
  };
}

/** A chip or a plug with only the pins that a circuit has nets for, as the rest of it is another matter; other parts as they are. */
export function withinNets(part: CircuitPart, nets: ReadonlySet<string>): CircuitPart {
  if (part.kind !== 'IC' && part.kind !== 'J') return part;
  const pins = Object.fromEntries(Object.entries(part.pins).filter(([, net]) => nets.has(net)));
  if (part.kind === 'J') return { ...part, pins };
  const has = (pin: string) => pin in pins;
  return {
    ...part,
    pins,
    esd: part.esd.filter(([a, k]) => has(a) && has(k)),
    res: part.res.filter(([a, b]) => has(a) && has(b)),
    adjacent: part.adjacent.filter(([a, b]) => has(a) && has(b)),
    ...(part.rail ? { rail: part.rail.filter(has) } : {}),
  };
}

/** Ground of a board: the name most of its parts use, "GND" without any. */
export function groundOf(board: Pick<BoardModel, 'parts'>): string {
  const count = new Map<string, number>();
  for (const part of board.parts)
    for (const net of Object.values(part.nets ?? {})) if (isGroundNet(net)) count.set(net, (count.get(net) ?? 0) + 1);
  return [...count].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 'GND';
}

/** A reference that is free: R1 → R1, or the next number. */
export function freeRef(netlist: Netlist | null, wanted: string): string {
  const taken = new Set(netlist?.parts.map((p) => p.ref));
  if (!taken.has(wanted)) return wanted;
  const letters = wanted.replace(/\d+$/, '') || 'X';
  for (let n = 1; ; n++) if (!taken.has(`${letters}${n}`)) return `${letters}${n}`;
}

/** A template put beside what is there: references that are taken move on, the supply is kept where there is none. */
export function withTemplate(netlist: Netlist | null, template: Template): Netlist {
  if (!netlist) return template.netlist;
  let grown = netlist;
  for (const part of template.netlist.parts) {
    const pins = Object.fromEntries(
      Object.entries(part.pins).map(([pin, net]) => [pin, net === template.netlist.ground ? netlist.ground : net]),
    );
    grown = { ...grown, parts: [...grown.parts, { ...part, pins, ref: freeRef(grown, part.ref) }] };
  }
  const { tp, pairs, jopen, alias, power } = template.netlist;
  return netlistSchema.parse({
    ...grown,
    ...(netlist.tp && tp ? { tp: [...new Set([...netlist.tp, ...tp])] } : {}),
    pairs: [...netlist.pairs, ...pairs],
    jopen: [...new Set([...netlist.jopen, ...jopen])],
    alias: { ...netlist.alias, ...alias },
    ...(netlist.power ? {} : power ? { power } : {}),
  });
}

/** A netlist without what names nets that are there no more (points, pairs, supplies). */
export function tidied(netlist: Netlist): Netlist {
  const nets = new Set([netlist.ground, ...netsOf({ ...netlist })]);
  const supply = <T extends { p: string }>(list: T[]) => list.filter((x) => nets.has(x.p));
  const { power } = netlist;
  return {
    ...netlist,
    ...(netlist.tp ? { tp: netlist.tp.filter((n) => nets.has(n)) } : {}),
    pairs: netlist.pairs.filter(([a, b]) => nets.has(a) && nets.has(b)),
    jopen: netlist.jopen.filter((n) => nets.has(n)),
    ...(power
      ? {
          power: {
            sources: supply(power.sources),
            loads: supply(power.loads),
            states: Object.fromEntries(
              Object.entries(power.states).map(([name, s]) => [
                name,
                { sources: supply(s.sources), loads: supply(s.loads) },
              ]),
            ),
          },
        }
      : {}),
  };
}
