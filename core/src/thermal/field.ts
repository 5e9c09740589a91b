/** Runs a `heat.field` case on the same `HeatRun` as plans and reads its probes. */
import { type CalcContext, CancelledError } from '../ground/index.ts';
import { boundaryOf, gridOf, initialField, isOn, linksOf, nodesOf, refuse, sourcesOf, switched } from './fieldCase.ts';
import type { HeatFieldInput, HeatFieldOutput } from './fieldForm.ts';
import { cellAt, cellEdges, type BoardGrid } from './grid.ts';
import type { HeatNode } from './heatNodes.ts';
import { HeatRun } from './heatRun.ts';

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
    const T = run.cells_C;
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
  const T = run.cells_C;
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
