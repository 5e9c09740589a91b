/** Parts round the target, and those on the other side that take heat from it. */
import { bodyRect, boxOnBoard, gapBetween, type PlacedPart, solderedTerminals, toBoard } from '../../board/index.ts';
import { rate } from '../../materials/index.ts';
import { packageById, type Terminal } from '../../packages/index.ts';
import type { BoardMesh } from '../../thermal/index.ts';
import { limitOf, type Limit } from './limitOf.ts';
import { exposedBody, linkToBoard, shade, throughGap, type Lumps } from './lumps.ts';
import type { ReworkCase } from './caseForm.ts';
import { JOINT_TO_LAND } from './target.ts';

/** Neighbours further than this are only board, mm; delicate ones, which are hurt where solder is still solid, count from further off. */
const REACH = 12;
const DELICATE_REACH = 25;
const SOLID_C = 205;
/** What holds less heat than this on the other side changes nothing, J/K. */
const FAR_LEAST = 0.03;
/** Lands of neighbours below this size (m²) are linked to the cell at their centre alone. */
const SMALL_LAND = 1.2e-6;
/** Long bodies are cut into pieces of about this length, so that the near end is seen. */
const SEGMENT = 5;
/** Plastic and mould along a body, W/(m·K). */
const BODY_CONDUCTIVITY = 0.4;

/** Parts on either side that take heat from the target, as lumps; light ones on the other side only take the board's temperature. */
export function addNeighbours(lumps: Lumps, input: ReworkCase, mesh: BoardMesh, target: PlacedPart) {
  for (const part of input.board.parts) {
    if (part.partId === target.partId || input.absent?.includes(part.partId)) continue;
    const distance_mm = gapBetween(target, part);
    const limit = limitOf(part, input);
    if (distance_mm > reachOf(limit)) continue;
    const far = part.side !== target.side;
    const light = far && packageById(part.package).C_J_K < FAR_LEAST;
    const nodes = light ? [] : addBody(lumps, mesh, part, input.ambient_C, far ? mesh.grid.dz.length - 1 : 0);
    if (!far) shade(lumps, mesh, boxOnBoard(part, bodyRect(part)));
    lumps.neighbours.push({ part, limit, nodes, distance_mm, far });
  }
}

function reachOf({ law }: Limit): number {
  return rate(law, SOLID_C) > 0 ? DELICATE_REACH : REACH;
}

/** A body in segments, linked to the slab it stands on through its gap and its joints; returns the segments' nodes. */
export function addBody(lumps: Lumps, mesh: BoardMesh, part: PlacedPart, T0: number, slab: number): number[] {
  const pkg = packageById(part.package);
  const { l, w } = pkg.body;
  const count = Math.max(1, Math.round(Math.max(l, w) / SEGMENT));
  const nodes: number[] = [];
  const rects: { x: number; y: number; w: number; h: number }[] = [];
  for (let n = 0; n < count; n++) {
    const at = ((n + 0.5) / count - 0.5) * Math.max(l, w);
    const rect = l >= w ? { x: at, y: 0, w: l / count, h: w } : { x: 0, y: at, w: l, h: w / count };
    const node = lumps.nodes.push({ id: `${part.partId}:${n}`, type: 'body', C: pkg.C_J_K / count, T0 }) - 1;
    nodes.push(node);
    rects.push(rect);
    lumps.exposed.push({ ...exposedBody(node, part, pkg, rect), ...(slab > 0 ? { far: true as const } : {}) });
    linkToBoard(lumps, mesh, node, boxOnBoard(part, rect), throughGap(pkg.body.gap), slab);
    if (n === 0) continue;
    const section = Math.min(l, w) * pkg.body.h * 1e-6;
    const length = Math.max(l, w) / count / 1000;
    lumps.links.push({ a: node, node: nodes[n - 1], G: (BODY_CONDUCTIVITY * section) / length });
  }
  for (const t of solderedTerminals(part)) {
    const away = (r: { x: number; y: number }) => Math.hypot(r.x - t.land.x, r.y - t.land.y);
    const nearest = rects.reduce((best, r, i) => (away(r) < away(rects[best]) ? i : best), 0);
    linkLand(lumps, mesh, part, t, nodes[nearest], slab);
  }
  return nodes;
}

/** A small land of a neighbour is one cell's business. */
function linkLand(lumps: Lumps, mesh: BoardMesh, part: PlacedPart, t: Terminal, node: number, slab: number): void {
  const land = t.land.w * t.land.h * 1e-6;
  const total = 1 / (1 / t.G_W_K + 1 / (JOINT_TO_LAND * land));
  const small = land < SMALL_LAND;
  const [x, y] = toBoard(part, t.land.x, t.land.y);
  const box = small ? { x0: x - 1e-3, x1: x + 1e-3, y0: y - 1e-3, y1: y + 1e-3 } : boxOnBoard(part, t.land);
  const whole = small ? 4e-12 : land;
  linkToBoard(lumps, mesh, node, box, (area) => (total * area) / whole, slab);
}
