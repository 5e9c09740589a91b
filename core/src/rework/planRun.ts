/**
 * One method on one target, from cold: when each joint melts, which is last and why, how close every
 * neighbour comes, the temperature field over time. The physics is `HeatRun`; here are the tools'
 * boundary conditions over time. What is read off is watched by `JointWatch`, `NeighbourWatch`, `OutcomeWatch`.
 */
import { type CalcContext, CancelledError } from '../ground/index.ts';
import { partName } from '../board/index.ts';
import { cellCount, HeatRun, meshBoard, OutOfBoundsError, targetBox } from '../thermal/index.ts';
import { airOver, blows, jetTables, settingAt, stageOf, type AirOn } from './air.ts';
import { buildLumps } from './buildLumps.ts';
import { frameRecorder } from './frames.ts';
import { Irons } from './irons.ts';
import { JointWatch } from './jointWatch.ts';
import { NeighbourWatch } from './neighbourWatch.ts';
import { LIFT_S, type PlanInput, type PlanRun } from './planForm.ts';
import { OutcomeWatch } from './outcomes.ts';
import { reasonFor } from './reason.ts';
import { applySurroundings, heldShare } from './surroundings.ts';
import { Wind } from './wind.ts';

const QUALITY = { plan: { cells: 14_000, dt: 0.05 }, search: { cells: 3_000, dt: 0.1 } };
/** A tip that comes down or leaves changes much in little time: steps that much shorter for so long, s (else p95 17 % off at 50 ms). */
const TOUCH = { part: 1 / 4, for_s: 0.5 };
/** Fine enough for what is slow, s. */
const LOOK_S = 0.2;
/** Go on this long after all joints are wet, to find the window's end, s; less once it has closed this long ago. */
const [AFTER_WET, AFTER_HURT, HURT_S] = [60, 8, 5];

/** Boundaries that depend on surface temperatures change fast only in the beginning, s. */
function renewEvery(t: number): number {
  if (t < 2) return 0.5;
  if (t < 10) return 1;
  return t < 30 ? 2 : 5;
}

/** While a tip is down, a step moves at most so many times a cell's heat sideways: the sweeps split it badly otherwise. */
const SIDEWAYS = 30;
/** A run that leaves its bounds is done again with finer steps, up to so many times as fine; then it is an error. */
const FINEST = 4;

/**
 * Computes one method. `input.target` must be a part of the board with terminals. Throws `OutOfBoundsError` rather than tell a temperature that is
 * not possible.
 */
export async function runPlan(input: PlanInput, context: CalcContext): Promise<PlanRun> {
  for (let finer = 1; ; finer *= 2)
    try {
      return await runWith(input, context, finer);
    } catch (e) {
      if (!(e instanceof OutOfBoundsError) || finer >= FINEST) throw e;
    }
}

async function runWith(input: PlanInput, context: CalcContext, finer: number): Promise<PlanRun> {
  const target = input.board.parts.find((p) => p.partId === input.target);
  if (!target) throw new Error(`The board has no part "${input.target}".`);
  const { method } = input;
  const { cells, dt: longest } = QUALITY[input.quality];
  const longestStep_s = longest / finer;
  const mesh = meshBoard(input.board, target, cells, method.kind === 'air' ? 'air' : 'tip');
  const lumps = buildLumps(input, mesh, target);
  if (lumps.joints.length === 0) throw new Error(`${partName(target)} has no joints to melt.`);
  const run = new HeatRun(
    {
      grid: mesh.grid,
      nodes: lumps.nodes,
      links: lumps.links,
      quick: !input.books,
      uneven: { longestStep_s },
    },
    input.ambient_C,
  );
  // the hand aims at the middle of the whole part, legs and tab included
  const box = targetBox(target);
  const at = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
  // one field of air per stage of the method, made when it comes
  const fields = new Map<number, AirOn>();
  const jets = jetTables();
  const airAt = (t: number): AirOn | undefined => {
    if (method.kind !== 'air' || !blows(method, t)) return undefined;
    const stage = stageOf(method, t);
    const known = fields.get(stage) ?? airOver(settingAt(method, t), input, mesh, lumps, at, jets);
    fields.set(stage, known);
    return known;
  };
  const kernel = run.kernel as NonNullable<HeatRun['kernel']>;
  const recorder = input.frames ? frameRecorder(mesh, method.limit_s) : undefined;
  const scratch: [Float64Array, Float64Array] = [
    new Float64Array(mesh.grid.kx.length),
    new Float64Array(mesh.grid.kx.length),
  ];
  let [body, pads] = [input.ambient_C, input.ambient_C];
  let [steps, renewed] = [0, -Infinity];
  let pictured = -0.1;
  const irons = method.kind === 'air' ? undefined : new Irons(lumps, method, input.board.thickness_mm);
  const stepUnderTip_s = SIDEWAYS / finer / Math.max(1, run.sidewaysRate(lumps.joints.flatMap((j) => j.columns)));
  const held = heldShare(input.held, mesh);
  const joints = new JointWatch(run, lumps, method, irons);
  const wind = method.kind === 'air' ? new Wind(input, method, { x: 1000 * at.x, y: 1000 * at.y }) : undefined;
  const neighbours = new NeighbourWatch(input, mesh, lumps, target, wind);
  const outcomes = new OutcomeWatch(input, lumps, target);
  /** What ends the window, as far as the run has come. */
  const closes = (): PlanRun['closes'] => {
    const round = neighbours.closes();
    const own = input.reused || input.fitting ? outcomes.hurt_s : null;
    if (own === null || (round && round.at_s <= own)) return round;
    return { partId: target.partId, at_s: own, why: 'body' };
  };
  let air: AirOn | undefined;
  let sinceLook = 0;
  while (run.time < method.limit_s - 1e-9) {
    const blown = airAt(run.time);
    if (blown !== air || run.time - renewed >= renewEvery(run.time) - 1e-9) {
      air = blown;
      applySurroundings(run, mesh, lumps, air, input, held, scratch);
      renewed = run.time;
    }
    irons?.move(run, run.time, joints.isLiquid);
    const touching = irons && run.time < irons.moved_s + TOUCH.for_s - 1e-9;
    const dt = Math.min(
      longestStep_s,
      irons?.down ? stepUnderTip_s : Infinity,
      touching ? TOUCH.part * longestStep_s : Infinity,
    );
    joints.mark();
    const t0 = run.time;
    run.step(dt);
    steps++;
    joints.note(t0, dt);
    const allWet = joints.allLoose_s;
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
    const look = sinceLook > LOOK_S - 1e-9;
    // a tip is through a pin in a few steps
    if (look || irons) joints.look();
    if (!look) continue;
    const judged = allWet === null || run.time <= allWet + LIFT_S;
    if (judged) outcomes.note(run, sinceLook);
    neighbours.note(run, sinceLook, judged);
    sinceLook = 0;
    body = Math.max(body, run.T[lumps.body]);
    for (const j of lumps.joints) for (const c of j.columns) pads = Math.max(pads, kernel.T[c]);
    const end = closes();
    if (allWet !== null && run.time > allWet + (end && run.time > end.at_s + HURT_S ? AFTER_HURT : AFTER_WET)) break;
    if (joints.frozen_s !== null) break;
  }
  run.checkBounds();

  const { allLoose_s: allWet, frozen_s: freezes } = joints;
  const last = joints.last();
  const round = neighbours.result();
  return {
    joints: joints.joints,
    allWet_s: allWet,
    freezes_s: freezes,
    ...(method.kind === 'low-melt' && allWet !== null
      ? { hold_s: freezes === null ? null : Math.max(0, freezes - method.stroke_s) }
      : {}),
    last: {
      terminal: joints.joints[last].terminal,
      why: reasonFor(last, lumps, mesh, at, method, joints.paths[last], irons?.touched),
      ...(joints.paths[last] ? { paths: joints.paths[last] } : {}),
    },
    body_C: body,
    pads_C: pads,
    neighbours: round,
    closes: closes(),
    ended_s: run.time,
    cells: cellCount(mesh.grid),
    steps,
    outcomes: outcomes.result(round, wind, allWet ?? run.time),
    ...(input.books ? { energy: { input_J: run.input_J, stored_J: run.stored_J(), lost_J: run.lost_J } } : {}),
    ...(recorder ? { frames: recorder.frames() } : {}),
  };
}
