/** From the form of `heat.field` to a heat system: grid, boundary, sources, nodes, links, start field. */
import type { z } from 'zod';
import { CalcInputError } from '../ground/index.ts';
import type { boardSchema, edgeSchema, HeatFieldInput } from './fieldForm.ts';
import { FormulaError, parseFormula } from './formula.ts';
import { cellAt, cellEdges, emptyGrid, overlapRectangle, type BoardGrid } from './grid.ts';
import type { HeatLink, HeatNode } from './heatNodes.ts';

export const refuse = (field: string, message: string) => new CalcInputError([{ field, message }]);

export interface Switched {
  on: number;
  off: number;
}
export const switched = (s: { t_on?: number; t_off?: number }): Switched => ({
  on: s.t_on ?? 0,
  off: s.t_off ?? Infinity,
});
export const isOn = (s: Switched, t: number) => t >= s.on && t < s.off;

/** The uniform grid of the form. */
export function gridOf(board: z.infer<typeof boardSchema>): BoardGrid {
  const grid = emptyGrid(
    new Float64Array(board.nx).fill(board.lx / board.nx),
    new Float64Array(board.ny).fill(board.ly / board.ny),
    Float64Array.from(board.layers, (l) => l.dz),
  );
  const plane = grid.stride * board.ny;
  for (const [l, layer] of board.layers.entries())
    for (const key of ['kx', 'ky', 'kz', 'rhoc'] as const) grid[key].fill(layer[key], l * plane, (l + 1) * plane);
  return grid;
}

/** Face exchange of every cell: conductance (W/K) and conductance × surroundings (W). */
export function boundaryOf(grid: BoardGrid, input: HeatFieldInput) {
  const { top, bottom, edges } = input.boundary ?? {};
  const conductance = new Float64Array(grid.rhoc.length);
  const constant = new Float64Array(grid.rhoc.length);
  const [nx, ny, nl] = [grid.dx.length, grid.dy.length, grid.dz.length];
  const plane = grid.stride * ny;
  const add = (c: number, area: number, e: z.infer<typeof edgeSchema>, half: number) => {
    if (e.h === 0) return;
    const U = area / (1 / e.h + (e.contact_R ?? 0) + (e.surface_half_cell ? half : 0));
    conductance[c] += U;
    constant[c] += U * e.Tinf;
  };
  const ex = cellEdges(grid.dx);
  const ey = cellEdges(grid.dy);
  for (const [face, layer] of [
    [top, 0],
    [bottom, nl - 1],
  ] as const) {
    if (!face) continue;
    const half = (c: number) => grid.dz[layer] / (2 * grid.kz[c]);
    const covered = new Float64Array(plane);
    for (const patch of face.patches ?? [])
      overlapRectangle(grid, ex, ey, patch, (column, area) => {
        const c = column + layer * plane;
        covered[column] += area;
        add(c, area, { ...patch, surface_half_cell: face.surface_half_cell }, half(c));
      });
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) {
        const column = j * grid.stride + i;
        const rest = grid.dx[i] * grid.dy[j] - covered[column];
        if (rest > 0) add(column + layer * plane, rest, face, half(column + layer * plane));
      }
  }
  if (edges)
    for (let l = 0; l < nl; l++)
      for (let j = 0; j < ny; j++)
        for (let i = 0; i < nx; i++) {
          const c = (l * ny + j) * grid.stride + i;
          const sides = (i === 0 ? 1 : 0) + (i === nx - 1 ? 1 : 0);
          const ends = (j === 0 ? 1 : 0) + (j === ny - 1 ? 1 : 0);
          if (sides) add(c, sides * grid.dy[j] * grid.dz[l], edges, grid.dx[i] / (2 * grid.kx[c]));
          if (ends) add(c, ends * grid.dx[i] * grid.dz[l], edges, grid.dy[j] / (2 * grid.ky[c]));
        }
  return { conductance, constant };
}

export interface CellSource extends Switched {
  cells: { c: number; watts: number }[];
}

function columnShares(grid: BoardGrid, x: number, y: number): { c: number; share: number }[] {
  const column = cellAt(cellEdges(grid.dy), y) * grid.stride + cellAt(cellEdges(grid.dx), x);
  const plane = grid.stride * grid.dy.length;
  const weights = Array.from(grid.dz, (dz, l) => dz * grid.rhoc[column + l * plane]);
  const total = weights.reduce((a, b) => a + b, 0);
  return weights.map((w, l) => ({ c: column + l * plane, share: w / total }));
}

/** A disc's share of every cell from 16 × 16 sample points, scaled to the disc's exact area inside the board. */
function discSource(grid: BoardGrid, s: { flux: number; disc: { x: number; y: number; r: number }; layer: number }) {
  const { x, y, r } = s.disc;
  const cells: { c: number; watts: number }[] = [];
  const plane = grid.stride * grid.dy.length;
  const ex = cellEdges(grid.dx);
  const ey = cellEdges(grid.dy);
  const inside = x - r >= 0 && y - r >= 0 && x + r <= ex[ex.length - 1] && y + r <= ey[ey.length - 1];
  let area = 0;
  overlapRectangle(grid, ex, ey, { x0: x - r, x1: x + r, y0: y - r, y1: y + r }, (column) => {
    const [i, j] = [column % grid.stride, Math.floor(column / grid.stride)];
    let hits = 0;
    for (let n = 0; n < 256; n++) {
      const px = ex[i] + ((n % 16) + 0.5) * (grid.dx[i] / 16);
      const py = ey[j] + (Math.floor(n / 16) + 0.5) * (grid.dy[j] / 16);
      if ((px - x) ** 2 + (py - y) ** 2 <= r * r) hits++;
    }
    if (hits === 0) return;
    const part = (hits / 256) * grid.dx[i] * grid.dy[j];
    area += part;
    cells.push({ c: column + s.layer * plane, watts: part * s.flux });
  });
  if (cells.length === 0) {
    const c = columnShares(grid, x, y)[0].c + s.layer * plane;
    return [{ c, watts: s.flux * Math.PI * r * r }];
  }
  const scale = inside ? (Math.PI * r * r) / area : 1;
  return cells.map(({ c, watts }) => ({ c, watts: watts * scale }));
}

export function sourcesOf(grid: BoardGrid, input: HeatFieldInput): CellSource[] {
  return input.sources.map((s, i) => {
    if (s.flux !== undefined && s.disc && s.layer !== undefined) {
      if (s.layer >= grid.dz.length)
        throw refuse(`sources.${i}.layer`, `the board has layers 0 to ${grid.dz.length - 1}`);
      return { ...switched(s), cells: discSource(grid, { flux: s.flux, disc: s.disc, layer: s.layer }) };
    }
    const watts = s.P ?? 0;
    const shares = columnShares(grid, s.x ?? 0, s.y ?? 0);
    return { ...switched(s), cells: shares.map(({ c, share }) => ({ c, watts: watts * share })) };
  });
}

export function nodesOf(input: HeatFieldInput): HeatNode[] {
  return input.nodes.map((n) => {
    if (n.type === 'fixed') return { type: 'fixed', id: n.id, T0: n.T };
    const common = { id: n.id, T0: n.T0 ?? input.initial, hA: n.hA, Tinf: n.Tinf };
    if (n.type === 'iron') return { ...common, type: 'iron', C: n.C, Pmax: n.Pmax, Tset: n.Tset, gain: n.gain };
    if (n.type === 'joint') {
      const { Ts, Tl, cs, cl, L } = n.alloy;
      return {
        ...common,
        type: 'joint',
        enthalpy: {
          Ts,
          Tl,
          Cs: cs * n.V + n.C_add,
          Cl: cl * n.V + n.C_add,
          latent: L * n.V + n.C_add * (Tl - Ts),
        },
      };
    }
    const radiation = n.eps && n.area_rad ? { epsA: n.eps * n.area_rad, Tsur: n.Tsur ?? n.Tinf } : undefined;
    return { ...common, type: 'body', C: n.C, radiation };
  });
}

export function linksOf(input: HeatFieldInput, grid: BoardGrid | undefined): HeatLink[] {
  const index = new Map(input.nodes.map((n, i) => [n.id, i]));
  const find = (id: string, field: string) => {
    const i = index.get(id);
    if (i === undefined) throw refuse(field, `no node is called "${id}"`);
    return i;
  };
  return input.links.flatMap((l, n): HeatLink[] => {
    const a = find(l.a, `links.${n}.a`);
    if (!l.region) {
      const node = find(l.b ?? '', `links.${n}.b`);
      if (node === a) throw refuse(`links.${n}.b`, 'must be another node than a');
      return [{ a, node, G: l.G ?? 0 }];
    }
    if (!grid) throw refuse(`links.${n}.region`, 'needs a board');
    const layer = l.layer ?? 0;
    if (layer >= grid.dz.length) throw refuse(`links.${n}.layer`, `the board has layers 0 to ${grid.dz.length - 1}`);
    const plane = grid.stride * grid.dy.length;
    const out: HeatLink[] = [];
    overlapRectangle(grid, cellEdges(grid.dx), cellEdges(grid.dy), l.region, (column, area) =>
      out.push({ a, cell: column + layer * plane, G: area * (l.G_per_area ?? 0) }),
    );
    if (out.length === 0) throw refuse(`links.${n}.region`, 'covers no part of the board');
    return out;
  });
}

export function initialField(grid: BoardGrid, input: HeatFieldInput): number | Float64Array {
  if (!input.initial_field && !input.initial_energy) return input.initial;
  const T = new Float64Array(grid.rhoc.length).fill(input.initial);
  const plane = grid.stride * grid.dy.length;
  if (input.initial_field && input.board) {
    const { lx, ly } = input.board;
    let formula;
    try {
      formula = parseFormula(input.initial_field, ['x', 'y', 'lx', 'ly']);
    } catch (e) {
      if (e instanceof FormulaError) throw refuse('initial_field', e.message);
      throw e;
    }
    const [ex, ey] = [cellEdges(grid.dx), cellEdges(grid.dy)];
    for (let j = 0; j < grid.dy.length; j++)
      for (let i = 0; i < grid.dx.length; i++) {
        const x = (ex[i] + ex[i + 1]) / 2;
        const y = (ey[j] + ey[j + 1]) / 2;
        const value = formula({ x, y, lx, ly });
        if (!Number.isFinite(value)) throw refuse('initial_field', `is not a number at x = ${x}, y = ${y}`);
        for (let l = 0; l < grid.dz.length; l++) T[j * grid.stride + i + l * plane] = value;
      }
  }
  if (input.initial_energy) {
    const { x, y, J } = input.initial_energy;
    const shares = columnShares(grid, x, y);
    const column = shares[0].c;
    const area = grid.dx[column % grid.stride] * grid.dy[Math.floor(column / grid.stride)];
    for (const [l, { c, share }] of shares.entries()) T[c] += (J * share) / (grid.rhoc[c] * area * grid.dz[l]);
  }
  return T;
}
