/**
 * A circuit as a drawing to be laid out: boxes with ports at fixed places, wires between them. Ground, supplies
 * and nets with many pins get flags at the pins instead of wires, which keeps the sheet readable.
 */
import { type CircuitPart, type Netlist, pinOf } from '../circuit/index.ts';

type PortSide = 'WEST' | 'EAST' | 'NORTH' | 'SOUTH';

export interface SchematicPort {
  pin: string;
  net: string;
  /** Place on the box, drawing units (px at scale 1). */
  x: number;
  y: number;
  side: PortSide;
  /** Shown as a flag instead of wired; ground as its symbol. */
  flag: 'none' | 'net' | 'ground';
}

export interface SchematicNode {
  ref: string;
  kind: CircuitPart['kind'];
  /** A part with two ends, one of them on ground: drawn hanging from its net. */
  hanging: boolean;
  w: number;
  h: number;
  ports: SchematicPort[];
  /** Value or what it is, under the reference. */
  note: string;
}

interface SchematicWire {
  net: string;
  from: { ref: string; pin: string };
  to: { ref: string; pin: string };
}

export interface SchematicGraph {
  nodes: SchematicNode[];
  wires: SchematicWire[];
}

/** Nets with more pins than this are flags. */
const MOST_WIRED = 5;
const PITCH = 24;

const short = (value: number, unit: string): string => {
  const steps: [number, string][] = [
    [1e6, 'M'],
    [1e3, 'k'],
    [1, ''],
    [1e-3, 'm'],
    [1e-6, 'µ'],
    [1e-9, 'n'],
    [1e-12, 'p'],
  ];
  const [factor, prefix] = steps.find(([f]) => value >= f * 0.9995) ?? steps[steps.length - 1];
  return `${Number((value / factor).toPrecision(3))} ${prefix}${unit}`;
};

function noteOf(part: CircuitPart): string {
  switch (part.kind) {
    case 'R':
      return short(part.value, 'Ω');
    case 'C':
      return part.value ? short(part.value, 'F') : '';
    case 'L':
      return part.value ? short(part.value, 'H') : short(part.r, 'Ω');
    case 'F':
    case 'FB':
    case 'RLY':
      return short(part.r, 'Ω');
    case 'Z':
    case 'ZB':
      return `${part.bv} V`;
    default:
      return part.what ?? '';
  }
}

/** Boxes, ports and wires of a circuit, in the order of its parts. */
export function schematicGraph(netlist: Netlist): SchematicGraph {
  const { ground } = netlist;
  const count = new Map<string, number>();
  for (const part of netlist.parts)
    for (const net of Object.values(part.pins)) count.set(net, (count.get(net) ?? 0) + 1);
  const fed = new Set([
    ...(netlist.power?.sources ?? []).map((s) => s.p),
    ...Object.values(netlist.power?.states ?? {}).flatMap((s) => s.sources.map((q) => q.p)),
  ]);
  const flagOf = (net: string): SchematicPort['flag'] => {
    if (net === ground) return 'ground';
    const pins = count.get(net) ?? 0;
    return pins > MOST_WIRED || pins === 1 || (fed.has(net) && pins > 3) ? 'net' : 'none';
  };
  const nodes = netlist.parts.map((part): SchematicNode => {
    const port = (pin: string, x: number, y: number, side: PortSide): SchematicPort => ({
      pin,
      net: part.pins[pin],
      x,
      y,
      side,
      flag: flagOf(part.pins[pin]),
    });
    const base = { ref: part.ref, kind: part.kind, note: noteOf(part), hanging: false };
    const pins = Object.keys(part.pins);
    switch (part.kind) {
      case 'IC': {
        const rails = new Set((part.rail ?? []).map((r) => pinOf(part, r)));
        const lines = pins.filter((p) => part.pins[p] !== ground);
        const left = lines.filter((p, i) => rails.has(p) || i % 2 === 0);
        const right = lines.filter((p) => !left.includes(p));
        const earth = pins.filter((p) => part.pins[p] === ground);
        const h = Math.max(left.length, right.length, 1) * PITCH + 16;
        const w = 132;
        return {
          ...base,
          w,
          h,
          ports: [
            ...left.map((p, i) => port(p, 0, 20 + i * PITCH, 'WEST')),
            ...right.map((p, i) => port(p, w, 20 + i * PITCH, 'EAST')),
            ...earth.map((p, i) => port(p, 24 + i * 30, h, 'SOUTH')),
          ],
        };
      }
      case 'J': {
        const h = pins.length * PITCH + 4;
        return { ...base, w: 56, h, ports: pins.map((p, i) => port(p, 56, 14 + i * PITCH, 'EAST')) };
      }
      case 'M':
        return {
          ...base,
          w: 48,
          h: 56,
          ports: [port('G', 0, 28, 'WEST'), port('D', 34, 0, 'NORTH'), port('S', 34, 56, 'SOUTH')],
        };
      case 'Q':
        return {
          ...base,
          w: 48,
          h: 56,
          ports: [port('B', 0, 28, 'WEST'), port('C', 34, 0, 'NORTH'), port('E', 34, 56, 'SOUTH')],
        };
      default: {
        const [a, b] = pins;
        const hanging = part.pins[a] === ground || part.pins[b] === ground;
        if (!hanging) return { ...base, w: 64, h: 28, ports: [port(a, 0, 14, 'WEST'), port(b, 64, 14, 'EAST')] };
        const [top, low] = part.pins[b] === ground ? [a, b] : [b, a];
        return { ...base, hanging, w: 28, h: 60, ports: [port(top, 14, 0, 'NORTH'), port(low, 14, 60, 'SOUTH')] };
      }
    }
  });
  const wires: SchematicWire[] = [];
  const ends = new Map<string, { ref: string; pin: string }[]>();
  for (const node of nodes)
    for (const { net, pin, flag } of node.ports)
      if (flag === 'none') ends.set(net, [...(ends.get(net) ?? []), { ref: node.ref, pin }]);
  for (const [net, list] of ends) for (const to of list.slice(1)) wires.push({ net, from: list[0], to });
  return { nodes, wires };
}
