/**
 * One board with a target that is worked at, stepped from outside: heat, what the tool in hand does to it, and what is watched (joints,
 * neighbours, lands, laminate, the part's own body). It has no loop of its own: plans, ranges, the hidden bench drive it.
 */
import { partName, type PlacedPart } from '../board/index.ts';
import { cellCount, HeatRun, meshBoard, targetBox, type BoardMesh } from '../thermal/index.ts';
import { AirDrive } from './airDrive.ts';
import type { AirOn } from './air.ts';
import { buildLumps } from './buildLumps.ts';
import type { Drive } from './drive.ts';
import { Irons } from './irons.ts';
import { JointWatch } from './jointWatch.ts';
import type { Lumps } from './lumps.ts';
import { NeighbourWatch } from './neighbourWatch.ts';
import { LIFT_S, type PlanInput, type PlanRun } from './planForm.ts';
import { OutcomeWatch } from './outcomes.ts';
import { reasonFor } from './reason.ts';
import { applySurroundings, heldShare } from './surroundings.ts';

const QUALITY = { plan: { cells: 14_000, dt: 0.05 }, search: { cells: 3_000, dt: 0.1 } };
/** A tip that comes down or leaves changes much in little time: steps that much shorter for so long, s (else p95 17 % off at 50 ms). */
const TOUCH = { part: 1 / 4, for_s: 0.5 };
/** Fine enough for what is slow, s. */
const LOOK_S = 0.2;
/** While a tip is down, a step moves at most so many times a cell's heat sideways: the sweeps split it badly otherwise. */
const SIDEWAYS = 30;

/** Boundaries that depend on surface temperatures change fast only in the beginning, s. */
function renewEvery(t: number): number {
  if (t < 2) return 0.5;
  if (t < 10) return 1;
  return t < 30 ? 2 : 5;
}

export class ReworkRun {
  readonly mesh: BoardMesh;
  readonly lumps: Lumps;
  readonly heat: HeatRun;
  readonly joints: JointWatch;
  readonly neighbours: NeighbourWatch;
  readonly outcomes: OutcomeWatch;
  /** Steps taken. */
  steps = 0;
  private readonly input: PlanInput;
  private readonly target: PlacedPart;
  private readonly drive: Drive;
  /** Where the hand aims: the middle of the whole part, legs and tab included, m. */
  private readonly at: { x: number; y: number };
  private readonly longestStep_s: number;
  private readonly stepUnderTip_s: number;
  private readonly held: Float64Array | undefined;
  private readonly scratch: [Float64Array, Float64Array];
  private air: AirOn | undefined;
  private renewed = -Infinity;
  private sinceLook = 0;
  private body_C: number;
  private pads_C: number;

  /**
   * `input.target` must be a part of the board with terminals. `finer`: how many times shorter the steps are than usual.
   */
  constructor(input: PlanInput, finer = 1) {
    const target = input.board.parts.find((p) => p.partId === input.target);
    if (!target) throw new Error(`The board has no part "${input.target}".`);
    const { method } = input;
    const { cells, dt } = QUALITY[input.quality];
    this.input = input;
    this.target = target;
    this.longestStep_s = dt / finer;
    this.mesh = meshBoard(input.board, target, cells, method.kind === 'air' ? 'air' : 'tip');
    this.lumps = buildLumps(input, this.mesh, target);
    const { mesh, lumps } = this;
    if (lumps.joints.length === 0) throw new Error(`${partName(target)} has no joints to melt.`);
    this.heat = new HeatRun(
      {
        grid: mesh.grid,
        nodes: lumps.nodes,
        links: lumps.links,
        quick: !input.books,
        uneven: { longestStep_s: this.longestStep_s },
      },
      input.ambient_C,
    );
    const box = targetBox(target);
    this.at = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
    this.drive =
      method.kind === 'air'
        ? new AirDrive(method, input, mesh, lumps, this.at)
        : new Irons(lumps, method, input.board.thickness_mm);
    const columns = lumps.joints.flatMap((j) => j.columns);
    this.stepUnderTip_s = SIDEWAYS / finer / Math.max(1, this.heat.sidewaysRate(columns));
    this.held = heldShare(input.held, mesh);
    this.scratch = [new Float64Array(mesh.grid.kx.length), new Float64Array(mesh.grid.kx.length)];
    this.joints = new JointWatch(this.heat, lumps, this.drive);
    this.neighbours = new NeighbourWatch(input, mesh, lumps, target, this.drive.wind);
    this.outcomes = new OutcomeWatch(input, lumps, target);
    [this.body_C, this.pads_C] = [input.ambient_C, input.ambient_C];
  }

  /** s since the heat came on. */
  get time(): number {
    return this.heat.time;
  }

  /**
   * One step as long as accuracy allows now; true when what is slow was looked at after it (neighbours, lands, what closes the window). Throws
   * `OutOfBoundsError` rather than tell a temperature that is not possible.
   */
  step(): boolean {
    const { heat, drive, joints } = this;
    const t = heat.time;
    this.surround(drive.airAt(t));
    drive.act(heat, t, joints.isLiquid);
    const touching = t < drive.moved_s + TOUCH.for_s - 1e-9;
    const dt = Math.min(
      this.longestStep_s,
      drive.down ? this.stepUnderTip_s : Infinity,
      touching ? TOUCH.part * this.longestStep_s : Infinity,
    );
    joints.mark();
    heat.step(dt);
    this.steps++;
    joints.note(t, dt);
    this.sinceLook += dt;
    const look = this.sinceLook > LOOK_S - 1e-9;
    // a tip is through a pin in a few steps
    if (look || drive.brisk) joints.look();
    if (look) this.look();
    return look;
  }

  /** What ends the window, as far as the run has come. */
  closes(): PlanRun['closes'] {
    const round = this.neighbours.closes();
    const own = this.input.reused || this.input.fitting ? this.outcomes.hurt_s : null;
    if (own === null || (round && round.at_s <= own)) return round;
    return { partId: this.target.partId, at_s: own, why: 'body' };
  }

  /** What the run has come to. Throws `OutOfBoundsError` where a temperature is not possible. */
  result(): Omit<PlanRun, 'frames'> {
    const { heat, input, joints, lumps, mesh, drive } = this;
    heat.checkBounds();
    const { method } = input;
    const { allLoose_s: allWet, frozen_s: freezes } = joints;
    const last = joints.last();
    const round = this.neighbours.result();
    return {
      joints: joints.joints,
      allWet_s: allWet,
      freezes_s: freezes,
      ...(method.kind === 'low-melt' && allWet !== null
        ? { hold_s: freezes === null ? null : Math.max(0, freezes - method.stroke_s) }
        : {}),
      last: {
        terminal: joints.joints[last].terminal,
        why: reasonFor(last, lumps, mesh, this.at, method, joints.paths[last], drive.touched),
        ...(joints.paths[last] ? { paths: joints.paths[last] } : {}),
      },
      body_C: this.body_C,
      pads_C: this.pads_C,
      neighbours: round,
      closes: this.closes(),
      ended_s: heat.time,
      cells: cellCount(mesh.grid),
      steps: this.steps,
      outcomes: this.outcomes.result(round, drive.wind, allWet ?? heat.time),
      ...(input.books ? { energy: { input_J: heat.input_J, stored_J: heat.stored_J(), lost_J: heat.lost_J } } : {}),
    };
  }

  /** Renews what board and lumps exchange with everything round them, when it has changed or is due. */
  private surround(air: AirOn | undefined): void {
    const { heat } = this;
    if (air === this.air && heat.time - this.renewed < renewEvery(heat.time) - 1e-9) return;
    this.air = air;
    applySurroundings(heat, this.mesh, this.lumps, air, this.input, this.held, this.scratch);
    this.renewed = heat.time;
  }

  private look(): void {
    const { heat, lumps, sinceLook } = this;
    const { cells_C } = heat;
    const allWet = this.joints.allLoose_s;
    const judged = allWet === null || heat.time <= allWet + LIFT_S;
    if (judged) this.outcomes.note(heat, sinceLook);
    this.neighbours.note(heat, sinceLook, judged);
    this.sinceLook = 0;
    this.body_C = Math.max(this.body_C, heat.T[lumps.body]);
    for (const j of lumps.joints) for (const c of j.columns) this.pads_C = Math.max(this.pads_C, cells_C[c]);
  }
}
