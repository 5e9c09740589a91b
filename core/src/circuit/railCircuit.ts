/**
 * The circuit of a rail out of a board's nets: what stands on it, the way its current comes (coil, ferrite, fuse, shunt), what feeds it and by
 * which pins, what divides it down. Roles are guessed from who is joined to what, and are there to be corrected.
 */
import { type BoardModel, classOfPart, isGroundNet, type PartClass, type PlacedPart, voltsOf } from '../board/index.ts';
import { CONVERTER, LINEAR } from './becomes.ts';
import { circuitPartFrom, groundOf, withinNets } from './fromBoard.ts';
import { netlistSchema, netsOf, type Block, type CircuitPart, type Netlist, type PartOf } from './netlist.ts';

/** Parts that carry a rail's current on. */
const SERIES = new Set<PartClass>(['coil', 'ferrite', 'fuse', 'shunt']);
/** A net with more pins than this is a rail of its own; what hangs on it is another circuit. */
const SMALL_NET_PINS = 6;
/** Series parts between the rail and what feeds it, at most. */
const HOPS = 3;
/** What a circuit round a fault holds without becoming the board. */
const MOST_PARTS = 150;
/** Volts of a feed that does not say: a bench supply's usual. */
const FEED_V = 12;
const FEED_A = 1;
/** A regulator's reference where its divider does not say. */
const REFERENCE_V = 0.8;

/** A board by its nets. */
class Nets {
  private readonly byNet = new Map<string, PlacedPart[]>();
  readonly board: Pick<BoardModel, 'parts'>;
  constructor(board: Pick<BoardModel, 'parts'>) {
    this.board = board;
    for (const part of board.parts)
      for (const net of new Set(Object.values(part.nets ?? {})))
        if (!isGroundNet(net)) this.byNet.set(net, [...(this.byNet.get(net) ?? []), part]);
  }
  on(net: string): readonly PlacedPart[] {
    return this.byNet.get(net) ?? [];
  }
  /** Nets of a part, ground left out. */
  of(part: PlacedPart): string[] {
    return [...new Set(Object.values(part.nets ?? {}))].filter((net) => !isGroundNet(net));
  }
  isSmall(net: string): boolean {
    return this.on(net).length <= SMALL_NET_PINS;
  }
}

/** A net that is called by fewer volts than another is fed by it, not the other way round. */
function isLower(net: string, than: string): boolean {
  const [a, b] = [voltsOf(net), voltsOf(than)];
  return a !== null && b !== null && a < b;
}

/** Nets from the rail against its current: through series parts, and how they are joined. */
function upstream(nets: Nets, rail: string): { nets: string[]; pairs: [string, string][]; coils: Set<string> } {
  const found = [rail];
  const pairs: [string, string][] = [];
  /** Nets at the far side of a coil. */
  const coils = new Set<string>();
  let front = [rail];
  for (let hop = 0; hop < HOPS; hop++) {
    const next: string[] = [];
    for (const net of front)
      for (const part of nets.on(net).filter((p) => SERIES.has(classOfPart(p))))
        for (const other of nets.of(part)) {
          if (found.includes(other) || isLower(other, rail)) continue;
          found.push(other);
          pairs.push([other, net]);
          if (classOfPart(part) === 'coil') coils.add(other);
          // another rail is where this one may come from; what it feeds besides is not asked
          if (nets.isSmall(other)) next.push(other);
        }
    front = next;
  }
  return { nets: found, pairs, coils };
}

const hasPlug = (part: PlacedPart) => classOfPart(part) === 'conn';
const isIc = (part: PlacedPart) => ['power', 'load', 'esd'].includes(classOfPart(part));

/** How much an IC on a rail looks like what feeds it; 2 and more is taken for it. */
function feeds(nets: Nets, part: PlacedPart, rail: string): number {
  const others = nets.of(part).filter((net) => net !== rail);
  const higher = others.some((net) => isLower(rail, net));
  const called = /regulator|converter|switcher|ldo|step-down/i.test(`${part.what ?? ''} ${part.value ?? ''}`);
  return (higher ? 2 : 0) + (called && others.length > 0 ? 2 : 0) + (others.length > 0 && others.length <= 3 ? 1 : 0);
}

/** Part that feeds the rail: the IC at the far side of its coil, else the one on it that looks most like it. */
function feederOf(nets: Nets, rail: string, coils: ReadonlySet<string>): { part: PlacedPart; out: string } | null {
  for (const net of coils) {
    const part = nets.on(net).find(isIc);
    if (part) return { part, out: net };
  }
  const ics = nets.on(rail).filter(isIc);
  const [part] = ics.toSorted((a, b) => feeds(nets, b, rail) - feeds(nets, a, rail));
  return part && feeds(nets, part, rail) >= 2 ? { part, out: rail } : null;
}

/** The net among an IC's that its power comes in at: named as a supply, else the one with most on it. */
function inputOf(nets: Nets, part: PlacedPart, not: readonly string[]): string | null {
  const others = nets.of(part).filter((net) => !not.includes(net) && !isLower(net, not[0]));
  const supplies = others.filter((net) => voltsOf(net) !== null || /^v(in|bat|cc|dd|bus|sys|m|pp)/i.test(net));
  const pool = supplies.length > 0 ? supplies : others;
  return pool.toSorted((a, b) => nets.on(b).length - nets.on(a).length)[0] ?? null;
}

/** Ω of the divider from the rail to a net and from there to ground; null where there is none. */
function dividerAt(parts: readonly CircuitPart[], rail: string, net: string, ground: string): [number, number] | null {
  const between = (a: string, b: string) =>
    parts.find(
      (p): p is PartOf<'R'> => p.kind === 'R' && Object.values(p.pins).includes(a) && Object.values(p.pins).includes(b),
    );
  const [upper, lower] = [between(rail, net), between(net, ground)];
  return upper && lower ? [upper.value, lower.value] : null;
}

/** The pin of a part on a net. */
const pinOn = (part: CircuitPart, net: string): string | undefined =>
  Object.keys(part.pins).find((pin) => part.pins[pin] === net);

/** The IC as what feeds the rail, or as it was where its pins do not say how. */
function asFeeder(
  ic: PartOf<'IC'>,
  {
    rail,
    out,
    input,
    ground,
    parts,
  }: { rail: string; out: string; input: string; ground: string; parts: readonly CircuitPart[] },
): PartOf<'IC'> {
  const [vin, sw, gnd] = [pinOn(ic, input), pinOn(ic, out), pinOn(ic, ground)];
  if (!vin || !sw || !gnd) return ic;
  const volts = voltsOf(rail);
  const feedback = Object.entries(ic.pins).find(([, net]) => dividerAt(parts, rail, net, ground));
  const divider = feedback && dividerAt(parts, rail, feedback[1], ground);
  const block: Block =
    out !== rail && feedback && divider
      ? {
          ...{ type: 'buck', pins: { VIN: vin, SW: sw, FB: feedback[0], GND: gnd }, ...CONVERTER, ilim: 3 },
          vref: volts === null ? REFERENCE_V : (volts * divider[1]) / (divider[0] + divider[1]),
        }
      : { type: 'ldo', pins: { VIN: vin, OUT: sw, GND: gnd }, ...LINEAR, vset: volts ?? 3.3 };
  return {
    ...ic,
    cls: 'power',
    rail: [vin],
    // a feeder takes little itself; body diodes of its output stage
    res: [[vin, gnd, 180e3, 12e3]],
    esd: [
      [gnd, vin, 'esd'],
      [gnd, sw, 'body'],
      [sw, vin, 'body'],
      ...(feedback ? [[gnd, feedback[0], 'esdup'] as [string, string, 'esdup']] : []),
    ],
    blocks: [block],
  };
}

/**
 * The circuit of a rail; the board's parts keep their names. Throws nothing: a net that the board does not have gives a circuit of nothing but
 * ground.
 */
export function circuitOfRail(board: Pick<BoardModel, 'parts'>, rail: string): Netlist {
  const ground = groundOf(board);
  const nets = new Nets(board);
  const way = upstream(nets, rail);
  const feeder = feederOf(nets, rail, way.coils);
  const input = feeder && inputOf(nets, feeder.part, [rail, feeder.out]);
  // the feed's own way in, to its plug
  const feed = input === null ? { nets: [] as string[], pairs: [] } : upstream(nets, input);
  const kept = new Set([ground, ...way.nets, ...feed.nets]);
  // what divides the rail down, pulls up or filters: small nets one resistor away, and those of the feeder
  const near = [...nets.on(rail).filter((p) => classOfPart(p) === 'res'), ...(feeder ? [feeder.part] : [])];
  for (const part of near) for (const net of nets.of(part)) if (nets.isSmall(net)) kept.add(net);
  const all = new Set<PlacedPart>(nets.on(rail));
  for (const net of kept)
    for (const part of nets.on(net)) {
      // of the feed: what carries, clamps and filters it, none of its other loads
      const feeds = part === feeder?.part || hasPlug(part) || (!isIc(part) && nets.of(part).every((n) => kept.has(n)));
      if (feed.nets.includes(net) ? feeds : nets.isSmall(net)) all.add(part);
    }
  const placed = [...all].slice(0, MOST_PARTS);
  const plain = placed.map((p) => circuitPartFrom(p, ground));
  const parts = plain
    .map((part) => withinNets(part, kept))
    // what stands on the rail is in, wherever its other end goes
    .filter((part) => {
      const own = Object.values(part.pins);
      return own.includes(rail) || own.every((net) => kept.has(net));
    })
    .map((part) => {
      const isFeeder = feeder && part.partId === feeder.part.partId;
      return isFeeder && input !== null && part.kind === 'IC'
        ? asFeeder(part, { rail, out: feeder.out, input, ground, parts: plain })
        : part;
    });
  const entered = feed.nets.filter((net) => nets.on(net).some(hasPlug));
  const source = entered.at(-1) ?? input ?? rail;
  const grounded = parts.some((p) => Object.values(p.pins).includes(ground));
  const made = netlistSchema.parse({
    ground,
    parts: grounded ? parts : [...parts, { ref: '·', kind: 'J', pins: { 1: ground } }],
  });
  const known = netsOf(made);
  return netlistSchema.parse({
    ...made,
    tp: known.filter((net) => nets.on(net).length > 0),
    jopen: entered.filter((net) => known.includes(net)),
    pairs: [...way.pairs, ...feed.pairs].filter((pair) => pair.every((net) => known.includes(net))),
    power: known.includes(source)
      ? {
          states: {
            awake: { sources: [{ p: source, v: voltsOf(source) ?? (input === null ? 3.3 : FEED_V), ilim: FEED_A }] },
          },
        }
      : undefined,
  });
}
