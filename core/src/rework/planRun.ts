/**
 * One method on one target, from cold: when each joint melts, which is last and why, how close every
 * neighbour comes, the temperature field over time. The physics is `HeatRun`; here are the tools'
 * boundary conditions over time and what is read off.
 */
import { CancelledError, type CalcContext } from '../calc/defineCalc.ts';
import { partName } from '../board/index.ts';
import { SOLDER_ALLOYS } from '../materials/solder.ts';
import type { JointEnthalpy } from '../thermal/enthalpy.ts';
import { meshBoard, targetBox } from '../thermal/boardMesh.ts';
import { cellCount } from '../thermal/grid.ts';
import { HeatRun } from '../thermal/heatRun.ts';
import { airOver, blows, settingAt, stageOf, type AirOn } from './air.ts';
import { buildLumps } from './buildLumps.ts';
import { frameRecorder } from './frames.ts';
import { Irons } from './irons.ts';
import { wetAt, type Paths, type PlanInput, type PlanRun } from './planForm.ts';
import { OutcomeWatch } from './outcomes.ts';
import { pathsOf, reasonFor } from './reason.ts';
import { applySurroundings, heldShare } from './surroundings.ts';
import { wettingTime_s } from './wetting.ts';

const QUALITY = { plan: { cells: 14_000, dt: 0.05 }, search: { cells: 3_000, dt: 0.1 } };
/** A joint lets go when its solid fraction is below about 0.3 (share of the melting heat taken up). */
const MOVABLE = 0.7;
/** From "all wet" until the part is off, s (estimate). */
const LIFT_S = 3;
/** Go on this long after all joints are wet, to find the window's end, s. */
const AFTER_WET = 60;

/** Boundaries that depend on surface temperatures change fast only in the beginning, s. */
function renewEvery(t: number): number {
  if (t < 2) return 0.5;
  if (t < 10) return 1;
  return t < 30 ? 2 : 5;
}

/** When a quantity that went from `a` to `b` during the step passed `level`, s. */
const crossing = (t: number, dt: number, a: number, b: number, level: number) => t + (dt * (level - a)) / (b - a);

/** The joint that lets go last: of those that never do, the coldest. */
function lastOf(joints: PlanRun['joints']): number {
  const order = joints.map((j, i) => ({ i, t: wetAt(j) ?? Infinity, peak: j.peak_C }));
  order.sort((a, b) => (a.t === b.t ? a.peak - b.peak : b.t - a.t));
  return order[0].i;
}

/** Computes one method. `input.target` must be a part of the board with terminals. */
export async function runPlan(input: PlanInput, context: CalcContext): Promise<PlanRun> {
  const target = input.board.parts.find((p) => p.partId === input.target);
  if (!target) throw new Error(`The board has no part "${input.target}".`);
  const { method } = input;
  const quality = QUALITY[input.quality];
  const mesh = meshBoard(input.board, target, quality.cells, method.kind === 'air' ? 'air' : 'tip');
  const lumps = buildLumps(input, mesh, target);
  if (lumps.joints.length === 0) throw new Error(`${partName(target)} has no joints to melt.`);
  const run = new HeatRun(
    {
      grid: mesh.grid,
      nodes: lumps.nodes,
      links: lumps.links,
      holdWeakLinks: input.books !== true,
      bookLosses: input.books === true,
    },
    input.ambient_C,
  );
  // the hand aims at the middle of the whole part, legs and tab included
  const box = targetBox(target);
  const at = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
  // one field of air per stage of the method, made when it comes
  const fields = new Map<number, AirOn>();
  const airAt = (t: number): AirOn | undefined => {
    if (method.kind !== 'air' || !blows(method, t)) return undefined;
    const stage = stageOf(method, t);
    const known = fields.get(stage) ?? airOver(settingAt(method, t), input, mesh, lumps, at);
    fields.set(stage, known);
    return known;
  };
  let air: AirOn | undefined;
  const ownSolidus = SOLDER_ALLOYS.get(input.board.jointAlloy)?.Ts.value ?? 217;

  const enthalpies = lumps.joints.map((j) => (lumps.nodes[j.node] as { enthalpy: JointEnthalpy }).enthalpy);
  const joints = lumps.joints.map((j, i) => ({
    terminal: j.terminal.id,
    solidus_s: null as number | null,
    liquidus_s: null as number | null,
    wet_s: null as number | null,
    peak_C: -Infinity,
    solidus_C: enthalpies[i].Ts,
    liquidus_C: enthalpies[i].Tl,
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
  const irons = method.kind === 'air' ? undefined : new Irons(lumps, method, input.board.thickness_mm);
  const held = heldShare(input.held, mesh);

  const watch = new OutcomeWatch(input, mesh, lumps, target);
  let sinceLook = 0;
  const jointNodes = Int32Array.from(lumps.joints, (j) => j.node);
  const before = new Float64Array(joints.length);
  /** How far each joint has wetted, 1 when done; only what mixes or is corroded has to. */
  const wetted = lumps.joints.map((j) => (method.kind === 'low-melt' || j.corroded ? 0 : 1));
  /** Heat into each joint as last seen before it was molten. */
  const paths: (Paths | undefined)[] = joints.map(() => undefined);
  /** Molten far enough to move, and wetted. */
  const movable = (i: number) => run.H[jointNodes[i]] >= MOVABLE * enthalpies[i].latent && wetted[i] >= 1;
  /** Lets go: movable now, or emptied for good. */
  const loose = (i: number) => (irons?.empties ? irons.freed[i] : movable(i));
  while (run.time < method.limit_s - 1e-9) {
    const blown = airAt(run.time);
    if (blown !== air || run.time - renewed >= renewEvery(run.time) - 1e-9) {
      air = blown;
      applySurroundings(run, mesh, lumps, air, input, held, scratch);
      renewed = run.time;
    }
    irons?.move(run, run.time, movable);
    // theta = 1/2 rings when an iron touches: short steps for the first half second
    const dt = irons && run.time < 0.5 ? Math.min(0.02, quality.dt) : quality.dt;
    for (let i = 0; i < joints.length; i++) before[i] = run.H[jointNodes[i]];
    const t0 = run.time;
    run.step(dt);
    steps++;
    let wet = true;
    for (let i = 0; i < joints.length; i++) {
      const H = run.H[jointNodes[i]];
      const joint = joints[i];
      if (H > 0) joint.solidus_s ??= crossing(t0, dt, before[i], H, 0);
      const { latent, Tl } = enthalpies[i];
      if (H >= latent) joint.liquidus_s ??= crossing(t0, dt, before[i], H, latent);
      const T = run.T[jointNodes[i]];
      if (H >= latent && wetted[i] < 1) {
        wetted[i] += dt / wettingTime_s(T - Tl, lumps.joints[i].corroded);
        if (wetted[i] >= 1 && !irons?.empties) joint.wet_s = run.time;
      }
      if (irons?.freed[i]) joint.wet_s ??= run.time;
      if (!irons?.empties && wetted[i] >= 1) joint.wet_s ??= joint.liquidus_s;
      if (!loose(i)) wet = false;
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
    sinceLook += dt;
    const look = steps % 4 === 0;
    // a tip is through a pin in a few steps
    if (look || irons)
      for (let i = 0; i < joints.length; i++) if (joints[i].liquidus_s === null) paths[i] = pathsOf(run, lumps, i);
    if (!look) continue;
    // a fifth of a second is fine enough for what is slow
    if (allWet === null || run.time <= allWet + LIFT_S) watch.note(run, sinceLook);
    sinceLook = 0;
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

  const lastJoint = lastOf(joints);
  const over = neighbours.filter((n) => n.over_s !== null).sort((a, b) => (a.over_s ?? 0) - (b.over_s ?? 0))[0];
  return {
    joints,
    allWet_s: allWet,
    freezes_s: freezes,
    ...(method.kind === 'low-melt' && allWet !== null
      ? { hold_s: freezes === null ? null : Math.max(0, freezes - method.stroke_s) }
      : {}),
    last: {
      terminal: joints[lastJoint].terminal,
      why: reasonFor(lastJoint, lumps, mesh, at, method, paths[lastJoint]),
      ...(paths[lastJoint] ? { paths: paths[lastJoint] } : {}),
    },
    body_C: body,
    pads_C: pads,
    neighbours: neighbours.sort((a, b) => a.limit_C - a.peak_C - (b.limit_C - b.peak_C)),
    closes: over ? { at_s: over.over_s as number, partId: over.partId } : null,
    ended_s: run.time,
    cells: cellCount(mesh.grid),
    steps,
    outcomes: watch.result(new Map(neighbours.map((n) => [n.partId, n.loosens_s])), at),
    ...(input.books ? { energy: { input_J: run.input_J, stored_J: run.stored_J(), lost_J: run.lost_J } } : {}),
    ...(recorder ? { frames: recorder.frames() } : {}),
  };
}
