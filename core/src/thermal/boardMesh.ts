/**
 * From a board model to a tensor grid for planning: fine near the target, growing to the rim, four
 * slabs through the thickness, copper and vias from the model. Here millimetres become metres and,
 * for work on the bottom, layers are flipped so that layer 0 is the working side.
 */
import { boardBounds, type BoardModel, boxOnBoard, type PlacedPart } from '../board/index.ts';
import { coverageReader } from '../copper/index.ts';
import { packageById } from '../packages/index.ts';
import { COPPER, LAMINATE, planeEfficiency } from '../materials/index.ts';
import { cellEdges, emptyGrid, overlapRectangle, type BoardGrid } from './grid.ts';

/** Larger boards are cut off this far from the target, m. */
const REACH = 70e-3;
/** How far round the target the mesh stays fine, and how coarse it may become, m: air falls on much of the board, a tip's heat enters at the lands. */
const MESH_FOR = {
  air: { margin: 6e-3, coarsest: 2.5e-3, finest: 1 },
  tip: { margin: 1e-3, coarsest: 8e-3, finest: 0.5 },
} as const;
const GROWTH = 1.25;
/** Slabs from the working side down, as shares of the thickness; an outer one is never thinner than its foil. */
const SLABS = [0.125, 0.375, 0.375, 0.125];

export interface BoardMesh {
  grid: BoardGrid;
  /** Cell edges in board coordinates, m. */
  ex: Float64Array;
  ey: Float64Array;
  /** Position of the grid's corner on the board, m. */
  origin: { x: number; y: number };
  /** Which sides of the grid are cuts through the board, not its edge. */
  cut: { west: boolean; east: boolean; north: boolean; south: boolean };
  /** Columns that are board (inside the bounding box all are, unless the outline leaves them out). */
  columns: number;
}

/** Cell widths from `from` to `to` (m): `fine` inside [f0, f1], growing outwards to `coarsest`. */
export function gradedSpacing(
  from: number,
  to: number,
  f0: number,
  f1: number,
  fine: number,
  coarsest: number,
): number[] {
  const start = Math.max(from, f0);
  const end = Math.min(to, f1);
  const middle = Math.max(1, Math.round((end - start) / fine));
  const outwards = (length: number) => {
    if (length < fine * 0.25) return [];
    const sizes: number[] = [];
    let sum = 0;
    for (let d = fine; sum < length;) {
      d = Math.min(d * GROWTH, coarsest);
      sizes.push(d);
      sum += d;
    }
    return sizes.map((d) => (d * length) / sum);
  };
  const west = outwards(start - from);
  const east = outwards(to - end);
  // a sliver too thin for a cell of its own goes to the fine part
  const left = west.length ? start : from;
  const right = east.length ? end : to;
  return [...west.reverse(), ...new Array<number>(middle).fill((right - left) / middle), ...east];
}

/** Box round body and lands, m on the board. */
export function targetBox(part: PlacedPart) {
  const pkg = packageById(part.package);
  const rects = [{ x: 0, y: 0, w: pkg.body.l, h: pkg.body.w }, ...pkg.terminals.map((t) => t.land)];
  const boxes = rects.map((r) => boxOnBoard(part, r));
  return {
    x0: Math.min(...boxes.map((b) => b.x0)) / 1000,
    x1: Math.max(...boxes.map((b) => b.x1)) / 1000,
    y0: Math.min(...boxes.map((b) => b.y0)) / 1000,
    y1: Math.max(...boxes.map((b) => b.y1)) / 1000,
  };
}

/** The finest spacing a package asks for, m: half a pitch-ish, 0.5 mm at most. */
function wantedSpacing(part: PlacedPart): number {
  const lands = packageById(part.package).terminals.map((t) => Math.min(t.land.w, t.land.h));
  const narrowest = Math.min(...lands, 1);
  return narrowest < 0.35 ? 0.35e-3 : 0.5e-3;
}

/** Thickness of the four slabs, m, the working side first. */
function slabsOf(board: BoardModel, flipped: boolean): Float64Array {
  const thickness = board.thickness_mm / 1000;
  const foils = [board.stack[0], board.stack[board.stack.length - 1]].map((f) => f.foil_um * 1e-6);
  const [top, bottom] = foils.map((foil) => Math.min(0.4 * thickness, Math.max(SLABS[0] * thickness, foil)));
  const inner = (thickness - top - bottom) / 2;
  const slabs = [top, inner, inner, bottom];
  return Float64Array.from(flipped ? slabs.reverse() : slabs);
}

/** Laminate left of a slab at the least, where foils fill it. */
const MOSTLY_COPPER = 0.2;
/** Where the outermost inner layers lie, as a share of the thickness: 0.2 to 0.36 mm below the faces of 1.6 mm in usual builds. */
const PLANE_DEPTH = 0.18;

/** Where the foils of the slabs `dz` lie: in the faces of the outer ones; inside, where heat meets the first layer, or in the middle without one. */
function foilDepths(board: BoardModel, dz: Float64Array): Float64Array {
  const thickness = dz.reduce((a, b) => a + b, 0);
  const inside = (outer: number, slab: number) =>
    board.stack.length > 2 ? Math.max(outer, PLANE_DEPTH * thickness) : outer + slab / 2;
  return Float64Array.of(0, inside(dz[0], dz[1]), thickness - inside(dz[3], dz[2]), thickness);
}

/** Builds the mesh round `target` with at most `maxCells` cells, for heat from a kind of tool. */
export function meshBoard(
  board: BoardModel,
  target: PlacedPart,
  maxCells: number,
  tool: keyof typeof MESH_FOR = 'air',
): BoardMesh {
  const b = boardBounds(board);
  const box = targetBox(target);
  const { margin, coarsest, finest } = MESH_FOR[tool];
  const x0 = Math.max(b.x0 / 1000, box.x0 - REACH);
  const x1 = Math.min(b.x1 / 1000, box.x1 + REACH);
  const y0 = Math.max(b.y0 / 1000, box.y0 - REACH);
  const y1 = Math.min(b.y1 / 1000, box.y1 + REACH);
  let fine = finest * wantedSpacing(target);
  let dx: number[];
  let dy: number[];
  do {
    dx = gradedSpacing(x0, x1, box.x0 - margin, box.x1 + margin, fine, coarsest);
    dy = gradedSpacing(y0, y1, box.y0 - margin, box.y1 + margin, fine, coarsest);
    fine *= 1.06;
  } while (dx.length * dy.length * SLABS.length > maxCells && fine < 5e-3);
  return meshOf(board, { x0, y0, dx, dy }, target.side === 'bottom');
}

/** The whole board in even cells of about `cell_mm`, layer 0 on the side that is worked on. */
export function meshWhole(board: BoardModel, cell_mm: number, side: PlacedPart['side'] = 'top'): BoardMesh {
  const b = boardBounds(board);
  const even = (from: number, to: number) => {
    const n = Math.max(1, Math.round((to - from) / cell_mm));
    return new Array<number>(n).fill((to - from) / n / 1000);
  };
  const [dx, dy] = [even(b.x0, b.x1), even(b.y0, b.y1)];
  return meshOf(board, { x0: b.x0 / 1000, y0: b.y0 / 1000, dx, dy }, side === 'bottom');
}

/** Columns of these widths from a corner on, m, with what the board is made of there. */
function meshOf(
  board: BoardModel,
  { x0, y0, dx, dy }: { x0: number; y0: number; dx: readonly number[]; dy: readonly number[] },
  flipped: boolean,
): BoardMesh {
  const b = boardBounds(board);
  const dz = slabsOf(board, flipped);
  const grid: BoardGrid = {
    ...emptyGrid(Float64Array.from(dx), Float64Array.from(dy), dz),
    depth: foilDepths(board, dz),
  };
  const [ex, ey] = [cellEdges(grid.dx).map((v) => v + x0), cellEdges(grid.dy).map((v) => v + y0)];
  const mesh: BoardMesh = {
    grid,
    ex,
    ey,
    origin: { x: x0, y: y0 },
    cut: {
      west: x0 > b.x0 / 1000 + 1e-9,
      east: ex[dx.length] < b.x1 / 1000 - 1e-9,
      north: y0 > b.y0 / 1000 + 1e-9,
      south: ey[dy.length] < b.y1 / 1000 - 1e-9,
    },
    columns: grid.stride * grid.dy.length,
  };
  fillProperties(mesh, board, flipped);
  return mesh;
}

/** Overlap of a rectangle given in board millimetres with the mesh's columns, areas in m². */
export function overlapOnMesh(
  mesh: BoardMesh,
  box: { x0: number; x1: number; y0: number; y1: number },
  visit: (column: number, area: number) => void,
): void {
  const rect = { x0: box.x0 / 1000, x1: box.x1 / 1000, y0: box.y0 / 1000, y1: box.y1 / 1000 };
  if (rect.x1 <= mesh.ex[0] || rect.y1 <= mesh.ey[0]) return;
  if (rect.x0 >= mesh.ex[mesh.ex.length - 1] || rect.y0 >= mesh.ey[mesh.ey.length - 1]) return;
  overlapRectangle(mesh.grid, mesh.ex, mesh.ey, rect, visit);
}

/** Slab (0 … 3, top down) that carries copper layer `i` of `n`. */
function slabOf(i: number, n: number): number {
  if (i === 0) return 0;
  if (i === n - 1) return 3;
  return i < n / 2 ? 1 : 2;
}

/** Coverage of copper layer `i` before the patches: from its grid where there is one, else one figure. */
function coverageOnMesh(mesh: BoardMesh, board: BoardModel, i: number): Float64Array {
  const { grid, ex, ey, columns } = mesh;
  const measured = board.coverage?.find((g) => g.layer === i);
  if (!measured) return new Float64Array(columns).fill(board.stack[i].coverage);
  const coverage = new Float64Array(columns);
  const read = coverageReader(measured);
  for (let j = 0; j < grid.dy.length; j++)
    for (let c = 0; c < grid.dx.length; c++)
      coverage[j * grid.stride + c] = read(ex[c] * 1e3, ey[j] * 1e3, ex[c + 1] * 1e3, ey[j + 1] * 1e3);
  return coverage;
}

function fillProperties(mesh: BoardMesh, board: BoardModel, flipped: boolean): void {
  const { grid, columns } = mesh;
  const layers = board.stack.length;
  const area = new Float64Array(columns);
  for (let j = 0; j < grid.dy.length; j++)
    for (let i = 0; i < grid.dx.length; i++) area[j * grid.stride + i] = grid.dx[i] * grid.dy[j];
  const boxOf = (r: { x_mm: number; y_mm: number; w_mm: number; h_mm: number }) => ({
    x0: r.x_mm,
    x1: r.x_mm + r.w_mm,
    y0: r.y_mm,
    y1: r.y_mm + r.h_mm,
  });
  const vias = new Float64Array(columns);
  for (const v of board.vias) overlapOnMesh(mesh, boxOf(v), (c, a) => (vias[c] += (v.per_mm2 * 1e6 * a) / area[c]));
  const kxy = new Float64Array(grid.kx.length).fill(LAMINATE.kInPlane.value);
  const copperPart = new Float64Array(grid.kx.length);
  for (const [i, foil] of board.stack.entries()) {
    const coverage = coverageOnMesh(mesh, board, i);
    for (const p of board.copper)
      if (p.layer === i)
        overlapOnMesh(mesh, boxOf(p), (c, a) => (coverage[c] += (a / area[c]) * (p.coverage - coverage[c])));
    const slab = slabOf(i, layers);
    const l = flipped ? 3 - slab : slab;
    const share = (foil.foil_um * 1e-6) / grid.dz[l];
    for (let c = 0; c < columns; c++) {
      const k = c + l * columns;
      kxy[k] += (COPPER.k.value - LAMINATE.kInPlane.value) * share * planeEfficiency(coverage[c]);
      copperPart[k] += coverage[c] * share;
    }
  }
  for (let k = 0; k < kxy.length; k++) {
    grid.kx[k] = grid.ky[k] = kxy[k];
    const copper = Math.min(1, copperPart[k]);
    // foil takes its thickness off the laminate's way
    const laminate = LAMINATE.kThrough.value / Math.max(MOSTLY_COPPER, 1 - copper);
    grid.kz[k] = laminate + vias[k % columns] * COPPER.viaConductance.value;
    grid.rhoc[k] = (1 - copper) * LAMINATE.rhoc.value + copper * COPPER.rhoc.value;
  }
}

/** Heat that the board spreads sideways per kelvin at a column: Σ k·dz over the layers, W/K. */
export function sheetConductance(mesh: BoardMesh, column: number): number {
  let sum = 0;
  for (let l = 0; l < mesh.grid.dz.length; l++) sum += mesh.grid.kx[column + l * mesh.columns] * mesh.grid.dz[l];
  return sum;
}

/** The column that a place on the board, mm, lies in; beyond the mesh, the nearest. */
export function columnAt({ ex, ey, grid }: BoardMesh, x_mm: number, y_mm: number): number {
  const along = (edges: Float64Array, at_mm: number) => {
    const last = edges.length - 2;
    let i = 0;
    while (i < last && edges[i + 1] * 1000 <= at_mm) i++;
    return i;
  };
  return along(ey, y_mm) * grid.stride + along(ex, x_mm);
}
