/**
 * One method on one target, from cold: when each joint melts, which is last and why, how close every
 * neighbour comes, the temperature field over time. The physics is `HeatRun`; here are the tools'
 * boundary conditions over time and what is read off.
 */
import { CancelledError, type CalcContext } from '../calc/defineCalc.ts';
import { partName } from '../board/index.ts';
import { LAMINATE } from '../materials/laminate.ts';
import { SOLDER_ALLOYS } from '../materials/solder.ts';
import { STEFAN_BOLTZMANN, ZERO_CELSIUS_K } from '../quantities/constants.ts';
import { meshBoard, sheetConductance, targetBox, type BoardMesh } from '../thermal/boardMesh.ts';
import { cellCount } from '../thermal/grid.ts';
import { HeatRun } from '../thermal/heatRun.ts';
import { jetOf, sweptJet, tabulated, type Jet } from '../thermal/jet.ts';
import { buildLumps, type Exposed, type Lumps } from './lumps.ts';
import type { AirMethod, FieldFrames, LowMeltMethod, PlanInput, PlanRun } from './method.ts';

const QUALITY = { plan: { cells: 14_000, dt: 0.05 }, search: { cells: 3_000, dt: 0.1 } };
/** Under a body only this part of the jet's heat transfer reaches the board (estimate). */
const UNDER_BODY = 0.12;
const FRAME_COUNT = 60;
/** A joint lets go when its solid fraction is below about 0.3 (share of the melting heat taken up). */
const MOVABLE = 0.7;
/** Low-melt alloy has to mix with the joint's own solder before it lets go: s of being molten together (estimate ± 0.5). */
const MIX_S = 1;
/** Go on this long after all joints are wet, to find the window's end, s. */
const AFTER_WET = 60;

interface AirOn {
  /** Jet heat transfer and driving temperature at the open board, per column. */
  h: Float64Array;
  wall: Float64Array;
  /** The same for each exposed lump. */
  lumps: { h: number; wall: number; hSide: number }[];
}

/** Natural convection from a plate, W/(m²·K): top 1.32, bottom 0.59 times (dT/L)^(1/4) (textbook). */
const natural = (factor: number, dT: number, L: number) => factor * Math.sqrt(Math.sqrt(Math.max(dT, 1) / L));

const GLOW = 4 * LAMINATE.emissivity.value * STEFAN_BOLTZMANN;

/** Radiation against surroundings, linearised, W/(m²·K). */
function radiative(surface_C: number, ambient_C: number): number {
  const mean = (surface_C + ambient_C) / 2 + ZERO_CELSIUS_K;
  return GLOW * mean * mean * mean;
}

function airOver(
  method: AirMethod,
  input: PlanInput,
  mesh: BoardMesh,
  lumps: Lumps,
  at: { x: number; y: number },
): AirOn {
  const setting = {
    flow_L_min: method.flow_L_min,
    nozzle_mm: method.nozzle_mm,
    set_C: method.set_C,
    ambient_C: input.ambient_C,
    efficiency: input.station.efficiency,
    handFactor: input.station.handFactor,
  };
  const sweep = method.sweep_mm / 1000;
  const onBoard = tabulated(jetOf({ ...setting, standoff_mm: method.standoff_mm }));
  const { grid } = mesh;
  const h = new Float64Array(mesh.columns);
  const wall = new Float64Array(mesh.columns).fill(input.ambient_C);
  for (let j = 0; j < grid.dy.length; j++)
    for (let i = 0; i < grid.dx.length; i++) {
      const c = j * grid.stride + i;
      const s = sweptJet(
        onBoard,
        sweep,
        (mesh.ex[i] + mesh.ex[i + 1]) / 2 - at.x,
        (mesh.ey[j] + mesh.ey[j + 1]) / 2 - at.y,
      );
      h[c] = s.h * (1 - (1 - UNDER_BODY) * (lumps.shaded.get(c) ?? 0));
      wall[c] = s.wall_C;
    }
  const heights = new Map<number, Jet>();
  const lumpAir = lumps.exposed.map((e) => {
    let jet = heights.get(e.height);
    if (!jet) {
      jet = tabulated(jetOf({ ...setting, standoff_mm: Math.max(2, method.standoff_mm - e.height) }));
      heights.set(e.height, jet);
    }
    return footprintMean(jet, sweep, e, at);
  });
  return { h, wall, lumps: lumpAir };
}

/** Mean over an exposed face, 5 × 5 places; h·T is averaged, as for the moving hand. */
function footprintMean(jet: Jet, sweep: number, e: Exposed, at: { x: number; y: number }) {
  const n = e.half[0] > 0 ? 5 : 1;
  let [h, hT] = [0, 0];
  for (let a = 0; a < n; a++)
    for (let b = 0; b < n; b++) {
      const x = (e.x + (n > 1 ? ((a + 0.5) / n - 0.5) * 2 * e.half[0] : 0)) / 1000 - at.x;
      const y = (e.y + (n > 1 ? ((b + 0.5) / n - 0.5) * 2 * e.half[1] : 0)) / 1000 - at.y;
      const s = sweptJet(jet, sweep, x, y);
      h += s.h / (n * n);
      hT += (s.h * s.wall_C) / (n * n);
    }
  return { h: h * e.factor, wall: hT / h, hSide: 0.7 * h };
}

/** Everything round the board and the lumps at their present temperatures. */
function applySurroundings(
  run: HeatRun,
  mesh: BoardMesh,
  lumps: Lumps,
  air: AirOn | undefined,
  ambient_C: number,
  scratch: [Float64Array, Float64Array],
): void {
  const { grid, columns } = mesh;
  const kernel = run.kernel as NonNullable<HeatRun['kernel']>;
  const nl = grid.dz.length;
  const [conductance, constant] = scratch;
  conductance.fill(0);
  constant.fill(0);
  const [nx, ny] = [grid.dx.length, grid.dy.length];
  const size = 0.25 * Math.sqrt((mesh.ex[nx] - mesh.ex[0]) * (mesh.ey[ny] - mesh.ey[0]));
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) {
      const column = j * grid.stride + i;
      const area = grid.dx[i] * grid.dy[j];
      for (const l of [0, nl - 1]) {
        const c = column + l * columns;
        const T = kernel.T[c];
        const still = natural(l === 0 ? 1.32 : 0.59, T - ambient_C, size);
        const blown = l === 0 && air && air.h[column] > still;
        const h = blown ? air.h[column] : still;
        const wall = blown ? air.wall[column] : ambient_C;
        const glow = radiative(T, ambient_C);
        const U = area / (1 / (h + glow) + grid.dz[l] / (2 * grid.kz[c]));
        conductance[c] += U;
        constant[c] += (U * (h * wall + glow * ambient_C)) / (h + glow);
      }
      const rim =
        (mesh.cut.west && i === 0 ? grid.dy[j] : 0) +
        (mesh.cut.east && i === nx - 1 ? grid.dy[j] : 0) +
        (mesh.cut.north && j === 0 ? grid.dx[i] : 0) +
        (mesh.cut.south && j === ny - 1 ? grid.dx[i] : 0);
      if (rim === 0) continue;
      // the rest of the board acts as an endless fin that loses about 20 W/(m²·K) from both faces
      const G = rim * Math.sqrt(sheetConductance(mesh, column) * 20);
      for (let l = 0; l < nl; l++) {
        const c = column + l * columns;
        const share = G * (grid.dz[l] / grid.dz.reduce((a, b) => a + b, 0));
        conductance[c] += share;
        constant[c] += share * ambient_C;
      }
    }
  run.setBoundary(conductance, constant);
  for (const e of lumps.exposed) {
    run.hA[e.node] = 0;
    run.Tinf[e.node] = ambient_C;
  }
  for (const [n, e] of lumps.exposed.entries()) {
    const T = run.T[e.node];
    const glow = radiative(T, ambient_C) * (e.top + e.sides);
    const a = air?.lumps[n];
    const still = natural(1.32, T - ambient_C, 3e-3);
    const top = Math.max(a?.h ?? 0, still) * e.top;
    const sides = Math.max(a?.hSide ?? 0, still) * e.sides;
    const wall = a && a.h > still ? a.wall : ambient_C;
    run.hA[e.node] = top + sides + glow;
    run.Tinf[e.node] = ((top + sides) * wall + glow * ambient_C) / (top + sides + glow);
  }
}

/** Moves the iron along the rows: contact conductance of every joint at time t, W/K. */
function strokeIron(run: HeatRun, lumps: Lumps, method: LowMeltMethod, t: number): void {
  if (!lumps.iron) return;
  const { contact } = lumps.iron;
  const set = (touched: number[], each: number) => {
    for (const [i, link] of contact.entries()) run.setLink(link, touched.includes(i) ? each : 0);
  };
  if (t >= method.stroke_s) return set([], 0);
  const reachable = lumps.joints.map((j, i) => ({ ...j, i })).filter((j) => j.terminal.kind !== 'pad');
  const sides = [...new Set(reachable.map((j) => sideOf(j, lumps)))];
  // one second a side, one stroke along the row and back
  const side = sides[Math.floor(t) % sides.length];
  const row = reachable.filter((j) => sideOf(j, lumps) === side);
  const phase = t - Math.floor(t);
  const place = (phase < 0.5 ? 2 * phase : 2 - 2 * phase) * (row.length - 1);
  const centre = row[Math.round(place)];
  const touched = row.filter((j) => Math.hypot(j.x - centre.x, j.y - centre.y) <= method.tip_mm / 2 + 1e-9);
  // the bead carries heat only as far as there is joint under the tip
  const [xs, ys] = [touched.map((j) => j.x), touched.map((j) => j.y)];
  const reach = Math.hypot(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
  const { w, h } = centre.terminal.land;
  const film = 0.06 * Math.min(method.tip_mm, reach + Math.min(w, h)) * method.contact;
  const total = 1 / (1 / 1.0 + 1 / film);
  set(
    touched.map((j) => j.i),
    total / touched.length,
  );
}

function sideOf(j: { terminal: { land: { x: number; y: number } } }, lumps: Lumps): string {
  const { x, y } = j.terminal.land;
  const rows = lumps.joints.map((q) => q.terminal.land);
  const [mx, my] = [Math.max(...rows.map((r) => Math.abs(r.x))), Math.max(...rows.map((r) => Math.abs(r.y)))];
  return Math.abs(x) / (mx || 1) >= Math.abs(y) / (my || 1) ? `x${Math.sign(x)}` : `y${Math.sign(y)}`;
}

/** Why the last joint is last: the input in which it differs most from the others. */
function reasonFor(last: number, lumps: Lumps, mesh: BoardMesh, at: { x: number; y: number }, low: boolean): string {
  const features = lumps.joints.map((j) => ({
    copper: j.columns.reduce((s, c) => s + sheetConductance(mesh, c), 0) / Math.max(1, j.columns.length),
    mass: j.terminal.volume_mm3,
    far: Math.hypot(j.x / 1000 - at.x, j.y / 1000 - at.y),
  }));
  const others = features.filter((_, i) => i !== last);
  const mine = features[last];
  const mean = (key: 'copper' | 'mass' | 'far') => others.reduce((s, f) => s + f[key], 0) / Math.max(1, others.length);
  const ratio = (key: 'copper' | 'mass' | 'far') => mine[key] / (mean(key) || 1);
  const times = (v: number) => `${v.toFixed(v < 10 ? 1 : 0)} ×`;
  if (lumps.joints[last].terminal.kind === 'pad')
    return 'it lies hidden under the body and heats through it and the board';
  if (ratio('mass') > 2) return `it holds ${times(ratio('mass'))} the solder of the others`;
  if (ratio('copper') > 1.15) return `the copper under it carries ${times(ratio('copper'))} the heat away`;
  if (low) return 'the iron comes to it last';
  if (ratio('far') > 1.05)
    return `it lies ${(mine.far * 1000).toFixed(1)} mm from the nozzle's axis, the others ${(mean('far') * 1000).toFixed(1)} mm`;
  return 'the board round it is coldest; the others are close behind';
}

/** Boundaries that depend on surface temperatures change fast only in the beginning, s. */
function renewEvery(t: number): number {
  if (t < 2) return 0.5;
  if (t < 10) return 1;
  return t < 30 ? 2 : 5;
}

/** When a quantity that went from `a` to `b` during the step passed `level`, s. */
const crossing = (t: number, dt: number, a: number, b: number, level: number) => t + (dt * (level - a)) / (b - a);

/** Computes one method. `input.target` must be a part of the board with terminals. */
export async function runPlan(input: PlanInput, context: CalcContext): Promise<PlanRun> {
  const target = input.board.parts.find((p) => p.partId === input.target);
  if (!target) throw new Error(`The board has no part "${input.target}".`);
  const { method } = input;
  const quality = QUALITY[input.quality];
  const mesh = meshBoard(input.board, target, quality.cells);
  const lumps = buildLumps(input, mesh, target);
  if (lumps.joints.length === 0) throw new Error(`${partName(target)} has no joints to melt.`);
  const run = new HeatRun(
    { grid: mesh.grid, nodes: lumps.nodes, links: lumps.links, holdWeakLinks: true, bookLosses: false },
    input.ambient_C,
  );
  // the hand aims at the middle of the whole part, legs and tab included
  const box = targetBox(target);
  const at = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
  const air = method.kind === 'air' ? airOver(method, input, mesh, lumps, at) : undefined;
  const ownSolidus = SOLDER_ALLOYS.get(input.board.jointAlloy)?.Ts.value ?? 217;

  const joints = lumps.joints.map((j) => ({
    terminal: j.terminal.id,
    solidus_s: null as number | null,
    liquidus_s: null as number | null,
    peak_C: -Infinity,
  }));
  const neighbours = lumps.neighbours.map((n) => ({
    partId: n.part.partId,
    distance_mm: n.distance_mm,
    limit_C: n.limit.limit.value,
    limitPlusMinus_C: n.limit.limit.plusMinus,
    atWet_C: input.ambient_C,
    peak_C: input.ambient_C,
    over_s: null as number | null,
    loosens_s: null as number | null,
  }));
  const kernel = run.kernel as NonNullable<HeatRun['kernel']>;
  const recorder = input.frames ? frameRecorder(mesh, method.limit_s) : undefined;
  const scratch: [Float64Array, Float64Array] = [
    new Float64Array(mesh.grid.kx.length),
    new Float64Array(mesh.grid.kx.length),
  ];
  let allWet: number | null = null;
  let freezes: number | null = null;
  let [body, pads] = [input.ambient_C, input.ambient_C];
  let [steps, renewed] = [0, -Infinity];
  let pictured = -0.1;
  const latent = lumps.joints.map((j) => {
    const node = lumps.nodes[j.node];
    return node.type === 'joint' ? node.enthalpy.latent : 0;
  });

  const jointNodes = Int32Array.from(lumps.joints, (j) => j.node);
  const before = new Float64Array(joints.length);
  /** How long each joint has been molten, s. */
  const molten = new Float64Array(joints.length);
  const mixing = method.kind === 'low-melt' ? MIX_S : 0;
  while (run.time < method.limit_s - 1e-9) {
    if (run.time - renewed >= renewEvery(run.time) - 1e-9) {
      applySurroundings(run, mesh, lumps, air, input.ambient_C, scratch);
      renewed = run.time;
    }
    if (method.kind === 'low-melt') strokeIron(run, lumps, method, run.time);
    // theta = 1/2 rings when an iron touches: short steps for the first half second
    const dt = method.kind === 'low-melt' && run.time < 0.5 ? Math.min(0.02, quality.dt) : quality.dt;
    for (let i = 0; i < joints.length; i++) before[i] = run.H[jointNodes[i]];
    const t0 = run.time;
    run.step(dt);
    steps++;
    let wet = true;
    for (let i = 0; i < joints.length; i++) {
      const H = run.H[jointNodes[i]];
      const joint = joints[i];
      if (H > 0) joint.solidus_s ??= crossing(t0, dt, before[i], H, 0);
      if (H >= latent[i]) {
        molten[i] += dt;
        if (mixing === 0) joint.liquidus_s ??= crossing(t0, dt, before[i], H, latent[i]);
        else if (molten[i] >= mixing) joint.liquidus_s ??= run.time;
      }
      if (H < MOVABLE * latent[i] || molten[i] < mixing) wet = false;
      const T = run.T[jointNodes[i]];
      if (T > joint.peak_C) joint.peak_C = T;
    }
    if (wet && allWet === null) allWet = run.time;
    // a stroking iron wets and loses joints by turns: only the last unbroken stretch counts
    if (!wet && allWet !== null && freezes === null) {
      if (method.kind === 'low-melt' && run.time < method.stroke_s) allWet = null;
      else freezes = run.time;
    }
    recorder?.take(run.time, kernel.T);
    if (steps % 50 === 0) {
      if (context.signal?.aborted) throw new CancelledError();
      // an early picture each tenth of the way
      const done = run.time / method.limit_s;
      const picture = recorder && done >= pictured + 0.1;
      if (picture) pictured = done;
      context.progress?.(done, picture ? recorder.frames() : undefined);
      await context.breathe?.();
    }
    if (steps % 4 > 0) continue;
    // a fifth of a second is fine enough for what is slow
    body = Math.max(body, run.T[lumps.body]);
    for (const j of lumps.joints) for (const c of j.columns) pads = Math.max(pads, kernel.T[c]);
    for (const [i, n] of lumps.neighbours.entries()) {
      const out = neighbours[i];
      for (const node of n.nodes) out.peak_C = Math.max(out.peak_C, run.T[node]);
      if (allWet === null) out.atWet_C = out.peak_C;
      if (out.peak_C >= out.limit_C) out.over_s ??= run.time;
      if (out.peak_C >= ownSolidus) out.loosens_s ??= run.time;
    }
    const hurt = neighbours.some((n) => n.over_s !== null && run.time > n.over_s + 5);
    if (allWet !== null && run.time > allWet + (hurt ? 8 : AFTER_WET)) break;
    if (freezes !== null) break;
  }

  let lastJoint = -1;
  if (allWet !== null || joints.some((j) => j.liquidus_s !== null)) {
    const order = joints.map((j, i) => ({ i, t: j.liquidus_s ?? Infinity, peak: j.peak_C }));
    order.sort((a, b) => b.t - a.t || a.peak - b.peak);
    lastJoint = order[0].i;
  } else lastJoint = joints.reduce((low, j, i) => (j.peak_C < joints[low].peak_C ? i : low), 0);
  const over = neighbours.filter((n) => n.over_s !== null).sort((a, b) => (a.over_s ?? 0) - (b.over_s ?? 0))[0];
  return {
    joints,
    allWet_s: allWet,
    freezes_s: freezes,
    last: {
      terminal: joints[lastJoint].terminal,
      why: reasonFor(lastJoint, lumps, mesh, at, method.kind === 'low-melt'),
    },
    body_C: body,
    pads_C: pads,
    neighbours: neighbours.sort((a, b) => a.limit_C - a.peak_C - (b.limit_C - b.peak_C)),
    closes: over ? { at_s: over.over_s as number, partId: over.partId } : null,
    ended_s: run.time,
    cells: cellCount(mesh.grid),
    steps,
    ...(recorder ? { frames: recorder.frames() } : {}),
  };
}

function frameRecorder(mesh: BoardMesh, limit_s: number) {
  const { grid } = mesh;
  const [nx, ny] = [grid.dx.length, grid.dy.length];
  const every = limit_s / FRAME_COUNT;
  const times: number[] = [];
  const values: Float32Array[] = [];
  return {
    take(t: number, T: Float64Array) {
      if (t < times.length * every - 1e-9) return;
      times.push(t);
      const frame = new Float32Array(nx * ny);
      for (let j = 0; j < ny; j++) for (let i = 0; i < nx; i++) frame[j * nx + i] = T[j * grid.stride + i];
      values.push(frame);
    },
    frames(): FieldFrames {
      const all = new Float32Array(values.length * nx * ny);
      for (const [n, frame] of values.entries()) all.set(frame, n * nx * ny);
      const mm = (edges: Float64Array) => Array.from(edges, (v) => v * 1000);
      return { x_mm: mm(mesh.ex), y_mm: mm(mesh.ey), times_s: [...times], values: all };
    },
  };
}
