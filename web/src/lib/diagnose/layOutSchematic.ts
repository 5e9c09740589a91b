/** Places the boxes of a circuit and routes its wires: ELK's layered layout, in a worker of its own that is loaded when it is first needed. */
import type { ElkNode } from 'elkjs/lib/elk-api';
import type { Netlist } from '@orthos/core/circuit';
import { schematicGraph, type SchematicNode } from '@orthos/core/scene';
import workerUrl from 'elkjs/lib/elk-worker.min.js?url';

export interface DrawnNode extends SchematicNode {
  x: number;
  y: number;
}
interface DrawnWire {
  net: string;
  points: [number, number][];
}
export interface Drawing {
  w: number;
  h: number;
  nodes: DrawnNode[];
  wires: DrawnWire[];
}

const portId = (ref: string, pin: string) => `${ref}\u0001${pin}`;

/** Room round a box for its flags and names. */
const roomFor = (n: SchematicNode) => {
  if (n.hanging) return { left: 10, right: 44, top: 18, bottom: 18 };
  const flagged = (side: string) => n.ports.some((p) => p.side === side && p.flag === 'net');
  const below = n.ports.some((p) => p.side === 'SOUTH');
  return { left: flagged('WEST') ? 46 : 12, right: flagged('EAST') ? 46 : 12, top: 20, bottom: below ? 22 : 14 };
};

export async function layOutSchematic(netlist: Netlist): Promise<Drawing> {
  const { default: Elk } = await import('elkjs/lib/elk-api.js');
  const graph = schematicGraph(netlist);
  const wanted: ElkNode = {
    id: 'circuit',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'RIGHT',
      'elk.edgeRouting': 'ORTHOGONAL',
      'elk.layered.spacing.nodeNodeBetweenLayers': '28',
      'elk.spacing.nodeNode': '14',
      'elk.spacing.componentComponent': '24',
      'elk.aspectRatio': '1.5',
      'elk.padding': '[top=8,left=8,bottom=8,right=8]',
    },
    children: graph.nodes.map((n) => {
      const room = roomFor(n);
      return {
        id: n.ref,
        width: n.w + room.left + room.right,
        height: n.h + room.top + room.bottom,
        layoutOptions: { 'elk.portConstraints': 'FIXED_POS' },
        ports: n.ports.map((p) => ({
          id: portId(n.ref, p.pin),
          width: 0,
          height: 0,
          // ports lie on the rim of the box with its margin, drawn out from the symbol
          x: p.side === 'WEST' ? 0 : p.side === 'EAST' ? n.w + room.left + room.right : p.x + room.left,
          y: p.side === 'NORTH' ? 0 : p.side === 'SOUTH' ? n.h + room.top + room.bottom : p.y + room.top,
          layoutOptions: { 'elk.port.side': p.side },
        })),
      };
    }),
    edges: graph.wires.map((w, i) => ({
      id: `w${i}`,
      sources: [portId(w.from.ref, w.from.pin)],
      targets: [portId(w.to.ref, w.to.pin)],
    })),
  };
  const elk = new Elk({ workerUrl });
  const laid = await elk.layout(wanted).finally(() => elk.terminateWorker());
  const at = new Map((laid.children ?? []).map((c) => [c.id, c]));
  const nodes = graph.nodes.map((n): DrawnNode => {
    const c = at.get(n.ref);
    const room = roomFor(n);
    return { ...n, x: (c?.x ?? 0) + room.left, y: (c?.y ?? 0) + room.top };
  });
  const wires = (laid.edges ?? []).map((edge, i): DrawnWire => {
    const [section] = edge.sections ?? [];
    const points: [number, number][] = section
      ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint].map((p) => [p.x, p.y])
      : [];
    return { net: graph.wires[i].net, points };
  });
  // from the symbol to the rim where the wires begin
  const wired = new Set(graph.wires.flatMap((w) => [portId(w.from.ref, w.from.pin), portId(w.to.ref, w.to.pin)]));
  for (const n of nodes) {
    const room = roomFor(n);
    for (const p of n.ports) {
      if (!wired.has(portId(n.ref, p.pin))) continue;
      const [x, y] = [n.x + p.x, n.y + p.y];
      const out: [number, number] =
        p.side === 'WEST'
          ? [x - room.left, y]
          : p.side === 'EAST'
            ? [x + room.right, y]
            : p.side === 'NORTH'
              ? [x, y - room.top]
              : [x, y + room.bottom];
      wires.push({ net: p.net, points: [[x, y], out] });
    }
  }
  return { w: laid.width ?? 0, h: laid.height ?? 0, nodes, wires };
}
