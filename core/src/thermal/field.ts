/**
 * `heat.field`: a heat case stated in plain numbers (uniform grid, boundaries, sources, lumped nodes,
 * links, probes), so that anybody can compare it with a textbook. Runs on the same `HeatRun` as plans.
 */
import { z } from 'zod';
import { CalcInputError, CancelledError, type CalcContext } from '../calc/defineCalc.ts';
import { cellAt, cellEdges, emptyGrid, overlapRectangle, type BoardGrid } from './grid.ts';
import { HeatRun, type HeatLink, type HeatNode } from './heatRun.ts';
import { FormulaError, parseFormula } from './formula.ts';

const number = z.number();
const positive = z.number().positive();
const notNegative = z.number().nonnegative();
const celsius = z.number().min(-273.15).max(1e5);

const exchange = { h: notNegative.max(1e9), Tinf: celsius.default(20), contact_R: notNegative.optional() };
const rectangle = { x0: number, x1: number, y0: number, y1: number };
const faceSchema = z.strictObject({
  ...exchange,
  surface_half_cell: z.boolean().optional(),
  patches: z
    .array(z.strictObject({ ...rectangle, ...exchange }))
    .max(200)
    .optional(),
});
const edgeSchema = faceSchema.omit({ patches: true });

const boardSchema = z.strictObject({
  lx: positive.max(10),
  ly: positive.max(10),
  nx: z.int().min(1).max(2000),
  ny: z.int().min(1).max(2000),
  layers: z
    .array(
      z.strictObject({
        dz: positive.max(1),
        kx: positive.max(1e5),
        ky: positive.max(1e5),
        kz: positive.max(1e5),
        rhoc: positive.max(1e9),
      }),
    )
    .min(1)
    .max(60),
});

const switching = { t_on: notNegative.optional(), t_off: notNegative.optional() };
const sourceSchema = z
  .strictObject({
    P: number.optional(),
    x: number.optional(),
    y: number.optional(),
    flux: number.optional(),
    disc: z.strictObject({ x: number, y: number, r: positive }).optional(),
    layer: z.int().nonnegative().optional(),
    ...switching,
  })
  .superRefine((s, ctx) => {
    const wanted = s.flux === undefined ? (['P', 'x', 'y'] as const) : (['disc', 'layer'] as const);
    for (const key of wanted)
      if (s[key] === undefined)
        ctx.addIssue({ code: 'custom', path: [key], message: 'is needed: P, x, y or flux, disc, layer' });
  });

const nodeCommon = {
  id: z.string().min(1).max(100),
  T0: celsius.optional(),
  hA: notNegative.default(0),
  Tinf: celsius.default(20),
  P: number.default(0),
  ...switching,
};
const nodeSchema = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('body'),
    ...nodeCommon,
    C: positive,
    eps: notNegative.max(1).optional(),
    area_rad: notNegative.optional(),
    Tsur: celsius.optional(),
  }),
  z.strictObject({ type: z.literal('fixed'), id: nodeCommon.id, T: celsius }),
  z.strictObject({
    type: z.literal('joint'),
    ...nodeCommon,
    V: positive,
    C_add: notNegative.default(0),
    alloy: z.strictObject({
      Ts: celsius,
      Tl: celsius,
      cs: positive,
      cl: positive,
      L: positive,
    }),
  }),
  z.strictObject({
    type: z.literal('iron'),
    ...nodeCommon,
    C: positive,
    Pmax: positive,
    Tset: celsius,
    T0: celsius,
    gain: positive.default(5),
  }),
]);

const linkSchema = z
  .strictObject({
    a: z.string(),
    b: z.string().optional(),
    G: notNegative.optional(),
    region: z.strictObject(rectangle).optional(),
    layer: z.int().nonnegative().optional(),
    G_per_area: notNegative.optional(),
  })
  .superRefine((l, ctx) => {
    const wanted = l.region === undefined ? (['b', 'G'] as const) : (['layer', 'G_per_area'] as const);
    for (const key of wanted)
      if (l[key] === undefined)
        ctx.addIssue({ code: 'custom', path: [key], message: 'is needed: b, G or region, layer, G_per_area' });
  });

const probeSchema = z
  .strictObject({
    name: z.string().max(200),
    t: notNegative.optional(),
    node: z.string().optional(),
    x: number.optional(),
    y: number.optional(),
    layer: z.union([z.int().nonnegative(), z.literal('mean')]).optional(),
    interpolate: z.boolean().optional(),
    what: z.enum(['stored_J', 'loss_W', 't_solidus', 't_liquidus']).optional(),
  })
  .superRefine((p, ctx) => {
    const need = (key: 't' | 'node' | 'x' | 'y' | 'layer') => {
      if (p[key] === undefined)
        ctx.addIssue({ code: 'custom', path: [key], message: 'is needed for this kind of probe' });
    };
    if (p.what === 't_solidus' || p.what === 't_liquidus') return need('node');
    need('t');
    if (p.what === undefined && p.node === undefined) (['x', 'y', 'layer'] as const).forEach(need);
  });

export const heatFieldInput = z.strictObject({
  initial: celsius.default(20),
  initial_field: z.string().optional(),
  initial_energy: z.strictObject({ x: number, y: number, J: number }).optional(),
  dt_start: positive.optional(),
  dt_max: positive.default(0.05),
  t_end: positive.max(1e6).optional(),
  board: boardSchema.optional(),
  boundary: z
    .strictObject({
      top: faceSchema.optional(),
      bottom: faceSchema.optional(),
      edges: edgeSchema.optional(),
    })
    .optional(),
  sources: z.array(sourceSchema).max(200).default([]),
  nodes: z.array(nodeSchema).max(500).default([]),
  links: z.array(linkSchema).max(2000).default([]),
  probes: z.array(probeSchema).min(1).max(5000),
});
export type HeatFieldInput = z.infer<typeof heatFieldInput>;

export const heatFieldOutput = z.strictObject({
  probes: z.array(z.strictObject({ name: z.string(), t: z.number().nullable(), value: z.number().nullable() })),
  energy: z.strictObject({ input_J: z.number(), stored_J: z.number(), lost_J: z.number() }),
  steps: z.number(),
  dt: z.number(),
});
type HeatFieldOutput = z.infer<typeof heatFieldOutput>;

const refuse = (field: string, message: string) => new CalcInputError([{ field, message }]);

interface Switched {
  on: number;
  off: number;
}
const switched = (s: { t_on?: number; t_off?: number }): Switched => ({
  on: s.t_on ?? 0,
  off: s.t_off ?? Infinity,
});
const isOn = (s: Switched, t: number) => t >= s.on && t < s.off;

/** The uniform grid of the form. */
function gridOf(board: z.infer<typeof boardSchema>): BoardGrid {
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
function boundaryOf(grid: BoardGrid, input: HeatFieldInput) {
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

interface CellSource extends Switched {
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

function sourcesOf(grid: BoardGrid, input: HeatFieldInput): CellSource[] {
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

function nodesOf(input: HeatFieldInput): HeatNode[] {
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

function linksOf(input: HeatFieldInput, grid: BoardGrid | undefined): HeatLink[] {
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

function initialField(grid: BoardGrid, input: HeatFieldInput): number | Float64Array {
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

/** Reads one probe at the current time. */
type Reader = (run: HeatRun) => number;

function readerOf(
  p: HeatFieldInput['probes'][number],
  field: string,
  input: HeatFieldInput,
  grid: BoardGrid | undefined,
): Reader {
  if (p.what === 'stored_J') return (run) => run.stored_J();
  if (p.node !== undefined) {
    const i = input.nodes.findIndex((n) => n.id === p.node);
    if (i < 0) throw refuse(`${field}.node`, `no node is called "${p.node}"`);
    return (run) => run.T[i];
  }
  if (!grid) throw refuse(field, 'needs a board or a node');
  const plane = grid.stride * grid.dy.length;
  const layer = p.layer ?? 0;
  if (layer !== 'mean' && layer >= grid.dz.length)
    throw refuse(`${field}.layer`, `the board has layers 0 to ${grid.dz.length - 1}, or "mean"`);
  const column = (run: HeatRun, k: number) => {
    const T = (run.kernel as NonNullable<HeatRun['kernel']>).T;
    if (layer !== 'mean') return T[k + layer * plane];
    let [sum, weight] = [0, 0];
    for (let l = 0; l < grid.dz.length; l++) {
      const w = grid.dz[l] * grid.rhoc[k + l * plane];
      sum += w * T[k + l * plane];
      weight += w;
    }
    return sum / weight;
  };
  const place = (d: Float64Array, x: number): [number, number, number] => {
    const edges = cellEdges(d);
    if (!p.interpolate) return [cellAt(edges, x), cellAt(edges, x), 0];
    const centre = (i: number) => (edges[i] + edges[i + 1]) / 2;
    let i = cellAt(edges, x);
    if (x < centre(i)) i--;
    const a = Math.max(0, Math.min(i, d.length - 1));
    const b = Math.max(0, Math.min(i + 1, d.length - 1));
    return [a, b, a === b ? 0 : (x - centre(a)) / (centre(b) - centre(a))];
  };
  const [i0, i1, u] = place(grid.dx, p.x ?? 0);
  const [j0, j1, v] = place(grid.dy, p.y ?? 0);
  const s = grid.stride;
  return (run) =>
    (1 - v) * ((1 - u) * column(run, j0 * s + i0) + u * column(run, j0 * s + i1)) +
    v * ((1 - u) * column(run, j1 * s + i0) + u * column(run, j1 * s + i1));
}

/** Largest step that keeps implicit Euler accurate for the bodies and joints of the case, s. */
function stepFor(input: HeatFieldInput, tEnd: number): number {
  let dt = input.dt_max;
  const conductance = new Map<string, number>();
  for (const l of input.links) {
    const area = l.region ? Math.abs((l.region.x1 - l.region.x0) * (l.region.y1 - l.region.y0)) : 1;
    const G = l.G ?? (l.G_per_area ?? 0) * area;
    conductance.set(l.a, (conductance.get(l.a) ?? 0) + G);
    if (l.b) conductance.set(l.b, (conductance.get(l.b) ?? 0) + G);
  }
  for (const n of input.nodes) {
    // a joint on a board follows its land at once; alone it sets the pace
    if (n.type === 'fixed' || (n.type === 'joint' && input.board)) continue;
    const C = n.type === 'joint' ? n.alloy.cs * n.V + n.C_add : n.C;
    const G = (conductance.get(n.id) ?? 0) + n.hA + (n.type === 'iron' ? n.gain : 0);
    if (G > 0) dt = Math.min(dt, Math.max(C / G / 100, dt / (input.board ? 20 : 200)));
  }
  const first = Math.min(...input.probes.map((p) => p.t || Infinity), tEnd);
  return Math.min(dt, first / 20, input.board ? Infinity : tEnd / 4000);
}

function endTime(input: HeatFieldInput): number {
  const tEnd = Math.max(input.t_end ?? 0, ...input.probes.map((p) => p.t ?? 0));
  if (tEnd <= 0) throw refuse('probes', 'at least one probe needs a time t > 0 (or give t_end, seconds)');
  return tEnd;
}

/** Cell-steps (plus node-steps) a case will take; the unit of the cost limits. */
export function heatFieldWork(input: HeatFieldInput): number {
  const tEnd = endTime(input);
  const b = input.board;
  const cells = b ? b.nx * b.ny * b.layers.length : 0;
  const steps = tEnd / stepFor(input, tEnd) + 100;
  return steps * (cells + 20 * input.nodes.length + 20 * input.links.length + 100);
}

/** Whether a probe's time is reached, with room for rounding. */
const isDue = (t: number, now: number) => t <= now * (1 + 1e-12) + 1e-12;

interface Melting {
  node: number;
  solidus: number | null;
  liquidus: number | null;
}

export async function runHeatField(input: HeatFieldInput, context: CalcContext): Promise<HeatFieldOutput> {
  const ids = new Set<string>();
  for (const [i, n] of input.nodes.entries()) {
    if (ids.has(n.id)) throw refuse(`nodes.${i}.id`, `"${n.id}" is used twice`);
    ids.add(n.id);
    if (n.type === 'joint' && n.alloy.Tl < n.alloy.Ts) throw refuse(`nodes.${i}.alloy.Tl`, 'must not be below Ts');
  }
  if (!input.board && input.nodes.length === 0) throw refuse('board', 'give a board or nodes');
  if (!input.board)
    for (const key of ['initial_field', 'initial_energy', 'boundary'] as const)
      if (input[key] !== undefined) throw refuse(key, 'needs a board');
  if (!input.board && input.sources.length > 0) throw refuse('sources', 'need a board');
  const tEnd = endTime(input);
  const grid = input.board && gridOf(input.board);
  const nodes = nodesOf(input);
  const run = new HeatRun(
    { grid, nodes, links: linksOf(input, grid) },
    grid ? initialField(grid, input) : input.initial,
  );
  const sources = grid ? sourcesOf(grid, input) : [];
  if (grid) {
    const { conductance, constant } = boundaryOf(grid, input);
    run.setBoundary(conductance, constant);
  }
  const nodeSwitch = input.nodes.map((n) => (n.type === 'fixed' ? switched({}) : switched(n)));
  const nodePower = input.nodes.map((n) => (n.type === 'fixed' ? 0 : n.P));
  const melting: Melting[] = nodes.flatMap((n, node) =>
    n.type === 'joint' ? [{ node, solidus: null, liquidus: null }] : [],
  );

  let lossAtLast = 0;
  const timed = input.probes.map((p, i) => {
    if (p.what === 't_solidus' || p.what === 't_liquidus') {
      const target = input.nodes.find((n) => n.id === p.node);
      if (target?.type !== 'joint') throw refuse(`probes.${i}.node`, 'must name a joint');
      return undefined;
    }
    const read = p.what === 'loss_W' ? () => lossAtLast : readerOf(p, `probes.${i}`, input, grid);
    return { t: p.t ?? 0, read, before: NaN, value: null as number | null };
  });
  const pending = timed.filter((p) => p !== undefined).sort((a, b) => a.t - b.t);
  // what is lost at the start, for probes at t = 0
  if (grid) lossAtLast = initialLoss(run, grid, input);
  for (const p of pending) if (p.t === 0) p.value = p.read(run);

  const switches = [...sources, ...nodeSwitch].flatMap((s) => [s.on, s.off]);
  const breaks = [...new Set([...switches.filter((t) => t > 0 && t < tEnd), tEnd])].sort((a, b) => a - b);
  const dtLong = stepFor(input, tEnd);
  let steps = 0;
  let at = 0;
  let queue = pending.filter((p) => p.t > 0);
  for (const stop of breaks) {
    let watts = 0;
    run.cellPower?.fill(0);
    for (const s of sources)
      if (isOn(s, at))
        for (const { c, watts: w } of s.cells) {
          if (run.cellPower) run.cellPower[c] += w;
          watts += w;
        }
    run.refreshSources();
    for (let i = 0; i < nodes.length; i++) run.power[i] = isOn(nodeSwitch[i], at) ? nodePower[i] : 0;
    for (const dt of stepsBetween(stop - at, dtLong, input.dt_start)) {
      const t0 = run.time;
      const lostBefore = run.lost_J;
      const before = melting.map((m) => run.H[m.node]);
      for (const p of queue) {
        if (!isDue(p.t, t0 + dt)) break;
        p.before = p.read(run);
      }
      run.step(dt);
      run.countInput(watts, dt);
      lossAtLast = (run.lost_J - lostBefore) / dt;
      steps++;
      for (const [i, m] of melting.entries()) noteMelting(m, nodes[m.node], before[i], run.H[m.node], t0, dt);
      while (queue.length > 0 && isDue(queue[0].t, run.time)) {
        const p = queue[0];
        const u = Math.min(1, Math.max(0, (p.t - t0) / dt));
        p.value = p.before + u * (p.read(run) - p.before);
        queue = queue.slice(1);
      }
      if (steps % 50 === 0) {
        if (context.signal?.aborted) throw new CancelledError();
        context.progress?.(run.time / tEnd);
        if (steps % 500 === 0) await context.breathe?.();
      }
    }
    run.time = at = stop;
    for (const p of queue.filter((q) => q.t <= stop)) p.value = p.read(run);
    queue = queue.filter((p) => p.t > stop);
  }
  return {
    probes: input.probes.map((p, i) => {
      const value = timed[i]
        ? timed[i].value
        : (melting.find((m) => input.nodes[m.node].id === p.node)?.[p.what === 't_solidus' ? 'solidus' : 'liquidus'] ??
          null);
      return { name: p.name, t: timed[i] ? timed[i].t : value, value };
    }),
    energy: { input_J: run.input_J, stored_J: run.stored_J(), lost_J: run.lost_J },
    steps,
    dt: dtLong,
  };
}

/** Heat loss at the start temperatures, W. */
function initialLoss(run: HeatRun, grid: BoardGrid, input: HeatFieldInput): number {
  const { conductance, constant } = boundaryOf(grid, input);
  const T = (run.kernel as NonNullable<HeatRun['kernel']>).T;
  let sum = 0;
  for (let c = 0; c < conductance.length; c++) sum += conductance[c] * T[c] - constant[c];
  for (let i = 0; i < run.nodes.length; i++) sum += run.hA[i] * (run.T[i] - run.Tinf[i]);
  return sum;
}

/** Steps of `dt` that fill `span`, begun with short ones: a start or a switch rings otherwise (theta = 1/2). */
function stepsBetween(span: number, dtLong: number, dtStart?: number): number[] {
  const out: number[] = [];
  let left = span;
  let dt = Math.min(dtStart ?? dtLong / 16, dtLong);
  while (dt < dtLong && left > 20 * dt) {
    for (let n = 0; n < 6; n++) out.push(dt);
    left -= 6 * dt;
    dt *= 2;
  }
  const n = Math.max(1, Math.ceil(left / dtLong - 1e-9));
  for (let i = 0; i < n; i++) out.push(left / n);
  return out;
}

/** Notes when a joint's enthalpy first passed solidus and liquidus, interpolated within the step. */
function noteMelting(m: Melting, node: HeatNode, H0: number, H1: number, t: number, dt: number): void {
  if (node.type !== 'joint') return;
  const cross = (level: number) => t + (dt * (level - H0)) / (H1 - H0);
  if (m.solidus === null && H1 > 0) m.solidus = H0 >= 0 ? t : cross(0);
  const { latent } = node.enthalpy;
  if (m.liquidus === null && H1 >= latent) m.liquidus = H0 >= latent ? t : cross(latent);
}
