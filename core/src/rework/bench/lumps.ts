/** The lumped side of a plan, and how lumps are tied to the mesh. Figures per docs/physics/parts. */
import type { Composition } from '../../alloys/index.ts';
import { boxOnBoard, type PlacedPart, toBoard } from '../../board/index.ts';
import type { Limit } from './limitOf.ts';
import type { Metal } from './wetting.ts';
import { type PackageModel, type Rect, type Terminal } from '../../packages/index.ts';
import { type BoardMesh, type HeatLink, type HeatNode, overlapOnMesh } from '../../thermal/index.ts';

const AIR_CONDUCTIVITY = 0.035;
/** What lies flat still does not touch all over, mm. */
const LEAST_GAP_MM = 0.02;

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
  /** What a cover leaves of it, and a label on it. */
  cover?: number;
  label?: number;
  /** On the other side of the board, where no tool blows. */
  far?: true;
}

/** What a joint is made of: its own solder, and what came into it, by volume of its own. */
export interface JointMetal {
  alloy: Composition;
  own_mm3: number;
  with: readonly { alloy: Composition; ratio: number }[];
}

export interface JointLump {
  node: number;
  terminal: Terminal;
  x: number;
  y: number;
  /** Columns under its land. */
  columns: number[];
  surface: Metal;
  metal: JointMetal;
  /** Number of its link to the body. */
  lead: number;
  /** A clip holds its lead. */
  clipped?: true;
}

/** A tip of an iron: its node and, per joint, the number of the link. */
export interface Tip {
  node: number;
  contact: number[];
}

interface NeighbourLumps {
  part: PlacedPart;
  limit: Limit;
  /** Segments of its body; none where it takes the temperature of the board below it. */
  nodes: number[];
  distance_mm: number;
  /** On the other side of the board. */
  far: boolean;
}

export interface Lumps {
  nodes: HeatNode[];
  links: HeatLink[];
  exposed: Exposed[];
  body: number;
  joints: JointLump[];
  neighbours: NeighbourLumps[];
  /** Tips of irons, phase by phase. */
  tips: Tip[][];
  /** Joints of a row that a bead along it would tie together: number of the link, mm between them. */
  gaps: { link: number; pitch_mm: number; joints: readonly [number, number] }[];
  /** Glue on the target: number of its link to the body. */
  glue: number[];
  /** Columns shaded from the jet by a body, and what of it the target does. */
  shaded: Map<number, number>;
  ownShade: Map<number, number>;
  /** What covers leave of the jet on open board, by column. */
  covered: Map<number, number>;
}

export type Box = ReturnType<typeof boxOnBoard>;

/** Links a node to the cells of a slab under a box, `conductance` giving W/K of each; returns the columns. */
export function linkToBoard(
  lumps: Lumps,
  mesh: BoardMesh,
  a: number,
  box: Box,
  conductance: (area: number, column: number) => number,
  slab = 0,
): number[] {
  const columns: number[] = [];
  overlapOnMesh(mesh, box, (column, area) => {
    columns.push(column);
    lumps.links.push({ a, cell: column + slab * mesh.columns, G: conductance(area, column) });
  });
  return columns;
}

/** A gap, of air or what fills it (W/(m·K)), between a body and the foil. */
export const throughGap =
  (gap_mm: number, fill = AIR_CONDUCTIVITY) =>
  (area: number) =>
    (area * fill * 1000) / Math.max(gap_mm, LEAST_GAP_MM);

export function shade(lumps: Lumps, mesh: BoardMesh, box: Box): void {
  const { grid } = mesh;
  overlapOnMesh(mesh, box, (column, area) => {
    const full = grid.dx[column % grid.stride] * grid.dy[Math.floor(column / grid.stride)];
    lumps.shaded.set(column, Math.min(1, (lumps.shaded.get(column) ?? 0) + area / full));
  });
}

/** The faces of a body, or of a piece of one, that air meets. */
export function exposedBody(node: number, part: PlacedPart, pkg: PackageModel, rect: Rect): Exposed {
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

/** The body's rectangle in the part's own frame. */
