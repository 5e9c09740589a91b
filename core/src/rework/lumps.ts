/**
 * The lumped side of a plan: target body and joints, neighbours in segments, the iron; their links to
 * each other and to the mesh. Figures per docs/physics/parts.
 */
import { boxOnBoard, solderedTerminals, toBoard, type BoardModel, type PlacedPart } from '../board/index.ts';
import { NEIGHBOUR_LIMITS, type NeighbourLimit } from '../materials/limits.ts';
import { LOW_MELT_MIX, SOLDER_ALLOYS } from '../materials/solder.ts';
import { packageById, type PackageModel, type Terminal, type TerminalKind } from '../packages/index.ts';
import { overlapOnMesh, type BoardMesh } from '../thermal/boardMesh.ts';
import type { HeatLink, HeatNode } from '../thermal/heatNodes.ts';
import type { JointEnthalpy } from '../thermal/enthalpy.ts';
import type { PlanInput } from './method.ts';

/** Conductance joint to land, W/(m²·K). */
const JOINT_TO_LAND = 2e5;
const AIR_CONDUCTIVITY = 0.035;
/** Neighbours further than this are only board, mm; delicate ones (plastics, cells, films) count from further off. */
const NEIGHBOUR_REACH = 12;
const DELICATE_REACH = 25;
const DELICATE_BELOW_C = 232;
/** Lands of neighbours below this size (m²) are linked to the cell at their centre alone. */
const SMALL_LAND = 1.2e-6;
/** Long bodies are cut into pieces of about this length, so that the near end is seen. */
const SEGMENT = 5;
/** Plastic and mould along a body, W/(m·K). */
const BODY_CONDUCTIVITY = 0.4;
/** Molten bead along a row: solder conductivity × a bead of 1 mm², W·m/K. */
const BEAD_CONDUCTION = 30 * 1e-6;

/** A lump that the air meets: where it is and what it exposes. */
export interface Exposed {
  node: number;
  /** Centre on the board, mm, and height above it. */
  x: number;
  y: number;
  height: number;
  /** Upward face and side faces, m². */
  top: number;
  sides: number;
  /** Half extents of the upward face, mm, for averaging. */
  half: [number, number];
  /** Factor on the local heat transfer (joints stand in rougher flow). */
  factor: number;
}

interface NeighbourLumps {
  part: PlacedPart;
  limit: NeighbourLimit;
  nodes: number[];
  distance_mm: number;
}

export interface Lumps {
  nodes: HeatNode[];
  links: HeatLink[];
  exposed: Exposed[];
  body: number;
  joints: { node: number; terminal: Terminal; x: number; y: number; columns: number[] }[];
  neighbours: NeighbourLumps[];
  /** The iron's node and, per joint, the index of its link. */
  iron?: { node: number; contact: number[] };
  /** Columns shaded from the jet by a body. */
  shaded: Map<number, number>;
}

/** Share of a joint's land that the jet sees. */
const OPEN_TO_AIR: Record<TerminalKind, number> = {
  gull: 1,
  leg: 1,
  chip: 0.7,
  flex: 0.7,
  castellation: 0.6,
  can: 0.6,
  jlead: 0.5,
  pin: 0.5,
  leadless: 0.25,
  tab: 0.15,
  ball: 0,
  pad: 0,
};

/** Enthalpy of one joint with what is mixed into it. */
function jointEnthalpy(board: BoardModel, t: Terminal, method: PlanInput['method']): JointEnthalpy {
  const own = SOLDER_ALLOYS.get(board.jointAlloy);
  if (!own) throw new Error(`No solder "${board.jointAlloy}"; known: ${[...SOLDER_ALLOYS.keys()].join(', ')}`);
  const low = method.kind === 'low-melt';
  const alloy = low ? LOW_MELT_MIX : own;
  const volume = t.volume_mm3 * 1e-9 * (low ? 1 + method.bead_ratio : 1);
  const [Ts, Tl] = [alloy.Ts.value, alloy.Tl.value];
  return {
    Ts,
    Tl,
    Cs: alloy.cs.value * volume + t.C_add_J_K,
    Cl: alloy.cl.value * volume + t.C_add_J_K,
    latent: alloy.latent.value * volume + t.C_add_J_K * (Tl - Ts),
  };
}

export function buildLumps(input: PlanInput, mesh: BoardMesh, target: PlacedPart): Lumps {
  const { board, ambient_C: T0, method } = input;
  const lumps: Lumps = { nodes: [], links: [], exposed: [], body: 0, joints: [], neighbours: [], shaded: new Map() };
  const pkg = packageById(target.package);
  addTarget(lumps, input, mesh, target, pkg);
  if (method.kind === 'low-melt') addIron(lumps, method, T0);
  for (const part of board.parts) {
    if (part.partId === target.partId || part.side !== target.side) continue;
    const distance = gapBetween(target, part);
    const limit = limitOf(part);
    if (distance > (limit.limit.value < DELICATE_BELOW_C ? DELICATE_REACH : NEIGHBOUR_REACH)) continue;
    addNeighbour(lumps, mesh, part, limit, distance, T0);
  }
  mergeLinks(lumps);
  return lumps;
}

/**
 * One link per node and cell: gap and lands of a neighbour add up; on the target's lands the joint
 * alone counts, the air gap beside it is nothing.
 */
function mergeLinks(lumps: Lumps): void {
  const landed = new Set(lumps.joints.flatMap((j) => j.columns));
  const seen = new Map<string, HeatLink>();
  const kept: HeatLink[] = [];
  const renumbered = new Map<number, number>();
  for (const [i, link] of lumps.links.entries()) {
    if ('cell' in link) {
      if (link.a === lumps.body && landed.has(link.cell)) continue;
      const key = `${link.a}:${link.cell}`;
      const first = seen.get(key);
      if (first) {
        first.G += link.G;
        continue;
      }
      seen.set(key, link);
    }
    renumbered.set(i, kept.push(link) - 1);
  }
  lumps.links = kept;
  if (lumps.iron) lumps.iron.contact = lumps.iron.contact.map((i) => renumbered.get(i) as number);
}

/** Links a node to the cells under a box with `perArea` W/(m²·K); returns the columns. */
function linkToBoard(
  lumps: Lumps,
  mesh: BoardMesh,
  a: number,
  box: ReturnType<typeof boxOnBoard>,
  conductance: (area: number, column: number) => number,
): number[] {
  const columns: number[] = [];
  overlapOnMesh(mesh, box, (column, area) => {
    columns.push(column);
    lumps.links.push({ a, cell: column, G: conductance(area, column) });
  });
  return columns;
}

/** Air gap in series with half of the top slab. */
const throughGap = (mesh: BoardMesh, gap_mm: number) => (area: number, column: number) =>
  area / (gap_mm / 1000 / AIR_CONDUCTIVITY + mesh.grid.dz[0] / (2 * mesh.grid.kz[column]));

function shade(lumps: Lumps, mesh: BoardMesh, box: ReturnType<typeof boxOnBoard>): void {
  const { grid } = mesh;
  overlapOnMesh(mesh, box, (column, area) => {
    const full = grid.dx[column % grid.stride] * grid.dy[Math.floor(column / grid.stride)];
    lumps.shaded.set(column, Math.min(1, (lumps.shaded.get(column) ?? 0) + area / full));
  });
}

function addTarget(lumps: Lumps, input: PlanInput, mesh: BoardMesh, part: PlacedPart, pkg: PackageModel): void {
  const { ambient_C: T0, method, board } = input;
  const bodyRect = { x: 0, y: 0, w: pkg.body.l, h: pkg.body.w };
  const bodyBox = boxOnBoard(part, bodyRect);
  lumps.body = lumps.nodes.push({ id: part.partId, type: 'body', C: pkg.C_J_K, T0 }) - 1;
  lumps.exposed.push(exposedBody(lumps.body, part, pkg, bodyRect));
  linkToBoard(lumps, mesh, lumps.body, bodyBox, throughGap(mesh, pkg.body.gap));
  shade(lumps, mesh, bodyBox);
  for (const t of solderedTerminals(part)) {
    const node =
      lumps.nodes.push({
        id: `${part.partId}/${t.id}`,
        type: 'joint',
        enthalpy: jointEnthalpy(board, t, method),
        T0,
      }) - 1;
    const columns = linkToBoard(lumps, mesh, node, boxOnBoard(part, t.land), (area) => JOINT_TO_LAND * area);
    lumps.links.push({ a: node, node: lumps.body, G: t.G_W_K });
    if (t.kind === 'tab') shade(lumps, mesh, boxOnBoard(part, t.land));
    const [x, y] = toBoard(part, t.land.x, t.land.y);
    lumps.joints.push({ node, terminal: t, x, y, columns });
    const open = OPEN_TO_AIR[t.kind];
    if (open > 0)
      lumps.exposed.push({
        node,
        x,
        y,
        height: 0,
        top: t.land.w * t.land.h * 1e-6 * open,
        sides: 0,
        half: [0, 0],
        factor: 1.5,
      });
  }
}

function exposedBody(
  node: number,
  part: PlacedPart,
  pkg: PackageModel,
  rect: { x: number; y: number; w: number; h: number },
): Exposed {
  const [x, y] = toBoard(part, rect.x, rect.y);
  const box = boxOnBoard(part, rect);
  const fill = pkg.shape === 'round' ? Math.PI / 4 : 1;
  return {
    node,
    x,
    y,
    height: pkg.body.h,
    top: rect.w * rect.h * 1e-6 * fill,
    sides: 2 * (rect.w + rect.h) * pkg.body.h * 1e-6 * fill,
    half: [(box.x1 - box.x0) / 2, (box.y1 - box.y0) / 2],
    factor: 1,
  };
}

function addIron(lumps: Lumps, method: Extract<PlanInput['method'], { kind: 'low-melt' }>, T0: number): void {
  const node =
    lumps.nodes.push({
      id: 'iron',
      type: 'iron',
      C: 1.2,
      Pmax: method.power_W,
      Tset: method.set_C,
      gain: 5,
      T0: method.set_C,
      hA: 0.02,
      Tinf: T0,
    }) - 1;
  lumps.iron = { node, contact: lumps.joints.map((j) => lumps.links.push({ a: node, node: j.node, G: 0 }) - 1) };
  // the bead joins the joints of a row
  for (let n = 1; n < lumps.joints.length; n++) {
    const [a, b] = [lumps.joints[n - 1], lumps.joints[n]];
    const pitch = Math.hypot(a.x - b.x, a.y - b.y);
    if (pitch <= 1.5) lumps.links.push({ a: a.node, node: b.node, G: BEAD_CONDUCTION / (pitch / 1000) });
  }
}

/** What a part stands: its own limit row, else its package's. */
function limitOf(part: PlacedPart): NeighbourLimit {
  const id = part.limit ?? packageById(part.package).limit;
  const limit = NEIGHBOUR_LIMITS.get(id);
  if (!limit) throw new Error(`No limit "${id}"; known: ${[...NEIGHBOUR_LIMITS.keys()].join(', ')}`);
  return limit;
}

/** Shortest distance between the two bodies' boxes, mm. */
function gapBetween(a: PlacedPart, b: PlacedPart): number {
  const box = (p: PlacedPart) => {
    const { body } = packageById(p.package);
    return boxOnBoard(p, { x: 0, y: 0, w: body.l, h: body.w });
  };
  const [p, q] = [box(a), box(b)];
  const dx = Math.max(0, p.x0 - q.x1, q.x0 - p.x1);
  const dy = Math.max(0, p.y0 - q.y1, q.y0 - p.y1);
  return Math.hypot(dx, dy);
}

function addNeighbour(
  lumps: Lumps,
  mesh: BoardMesh,
  part: PlacedPart,
  limit: NeighbourLimit,
  distance_mm: number,
  T0: number,
): void {
  const pkg = packageById(part.package);
  const { l, w } = pkg.body;
  const along = l >= w ? 'x' : 'y';
  const count = Math.max(1, Math.round(Math.max(l, w) / SEGMENT));
  const nodes: number[] = [];
  const rects: { x: number; y: number; w: number; h: number }[] = [];
  for (let n = 0; n < count; n++) {
    const at = ((n + 0.5) / count - 0.5) * Math.max(l, w);
    const rect = along === 'x' ? { x: at, y: 0, w: l / count, h: w } : { x: 0, y: at, w: l, h: w / count };
    const node = lumps.nodes.push({ id: `${part.partId}:${n}`, type: 'body', C: pkg.C_J_K / count, T0 }) - 1;
    nodes.push(node);
    rects.push(rect);
    lumps.exposed.push(exposedBody(node, part, pkg, rect));
    linkToBoard(lumps, mesh, node, boxOnBoard(part, rect), throughGap(mesh, pkg.body.gap));
    if (n > 0) {
      const section = Math.min(l, w) * pkg.body.h * 1e-6;
      const length = Math.max(l, w) / count / 1000;
      lumps.links.push({ a: node, node: nodes[n - 1], G: (BODY_CONDUCTIVITY * section) / length });
    }
  }
  shade(lumps, mesh, boxOnBoard(part, { x: 0, y: 0, w: l, h: w }));
  for (const t of solderedTerminals(part)) {
    const nearest = rects.reduce(
      (best, r, i) =>
        Math.hypot(r.x - t.land.x, r.y - t.land.y) < Math.hypot(rects[best].x - t.land.x, rects[best].y - t.land.y)
          ? i
          : best,
      0,
    );
    const land = t.land.w * t.land.h * 1e-6;
    const total = 1 / (1 / t.G_W_K + 1 / (JOINT_TO_LAND * land));
    const [x, y] = toBoard(part, t.land.x, t.land.y);
    // a small land of a neighbour is one cell's business
    const box =
      land < SMALL_LAND ? { x0: x - 1e-3, x1: x + 1e-3, y0: y - 1e-3, y1: y + 1e-3 } : boxOnBoard(part, t.land);
    const covered = land < SMALL_LAND ? 4e-12 : land;
    linkToBoard(lumps, mesh, nodes[nearest], box, (area) => (total * area) / covered);
  }
  lumps.neighbours.push({ part, limit, nodes, distance_mm });
}
