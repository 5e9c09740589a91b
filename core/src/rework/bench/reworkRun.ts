/**
 * One board with a target that is worked at, stepped from outside: heat, what the tool in hand does to it, and what is watched (joints,
 * neighbours, lands, laminate, the part's own body). It has no loop of its own: plans, ranges, the hidden bench drive it.
 *
 * The work is one phase (`Stint`) or several. Everything they bring is there from the start and does nothing until its phase begins, so heat and
 * metal pass from one to the next as they are.
 */
import { partName, type PlacedPart } from '../../board/index.ts';
import { cellCount, columnAt, HeatRun, meshBoard, targetBox, type BoardMesh } from '../../thermal/index.ts';
import { buildLumps } from './buildLumps.ts';
import type { ReworkCase } from './caseForm.ts';
import type { AirOn, Drive, Stint, Until, Workpiece } from './drive.ts';
import { JointWatch } from './jointWatch.ts';
import type { JointMetal, Lumps } from './lumps.ts';
import { NeighbourWatch } from './neighbourWatch.ts';
import { SideEffectWatch } from './sideEffects.ts';
import { reasonFor } from './reason.ts';
import type { PlanRun } from './runForm.ts';
import { LIFT_S } from './runTimes.ts';
import { putState, type RunState, stateOf } from './runState.ts';
import { applySurroundings, heatsFromBelow, heldShare } from './surroundings.ts';
import { enthalpyOf } from './target.ts';

const QUALITY = {
  plan: { cells: 14_000, dt: 0.05 },
  coarse: { cells: 6_000, dt: 0.1 },
  search: { cells: 3_000, dt: 0.1 },
};
/** A tip that comes down or leaves changes much in little time: steps that much shorter for so long, s (else p95 17 % off at 50 ms). */
const TOUCH = { part: 1 / 4, for_s: 0.5 };
/** Fine enough for what is slow, s. */
const LOOK_S = 0.2;
/** While a tip is down, a step moves at most so many times a cell's heat sideways: the sweeps split it badly otherwise. */
const SIDEWAYS = 30;
/** Molten solder, W/(m·K). */
const BEAD_CONDUCTIVITY = 30;

/** Boundaries that depend on surface temperatures change fast only in the beginning, s. */
function renewEvery(t: number): number {
  if (t < 2) return 0.5;
  if (t < 10) return 1;
  return t < 30 ? 2 : 5;
}

const loosensAll = (until: Until | undefined): boolean =>
  until !== undefined && 'loose' in until && until.loose === 'all';

/** Hands that change tools: nothing is at the board. */
const NOTHING: Drive = {
  settled_s: Infinity,
  down: false,
  moved_s: -Infinity,
  brisk: false,
  airAt: () => undefined,
  lastBecause: () => '',
};

export interface Options {
  /** What earlier work left, of this board. */
  start?: RunState;
  /** How many times shorter the steps are than usual. */
  finer?: number;
  /** What counts for harm: all of the run, or what comes before the part is off. */
  judges?: 'until lifted' | 'all';
  /** Instead of one made for the target: of the same board, from the side that is worked on. */
  mesh?: BoardMesh;
}

export class ReworkRun {
  readonly target: PlacedPart;
  readonly mesh: BoardMesh;
  readonly lumps: Lumps;
  readonly heat: HeatRun;
  readonly joints: JointWatch;
  readonly neighbours: NeighbourWatch;
  readonly outcomes: SideEffectWatch;
  /** Phases so far, and when each went on, s. */
  readonly phases: { id: string; from_s: number; to_s: number; hands_s: number }[] = [];
  /** Steps taken. */
  steps = 0;
  private readonly input: ReworkCase;
  private readonly stints: readonly Stint[];
  private readonly judges: Options['judges'];
  private readonly drives: readonly Drive[];
  /** Where the hand aims: the middle of the whole part, legs and tab included, m. */
  private readonly at: { x: number; y: number };
  private readonly longestStep_s: number;
  private readonly stepUnderTip_s: number;
  private readonly held: Float64Array | undefined;
  private readonly scratch: [Float64Array, Float64Array];
  private readonly workpiece: Workpiece;
  /** The phase that is on: its number and when it began, s. While hands change tools, later than now. */
  private current = 0;
  private began = 0;
  private left = false;
  /** Nothing has heated yet, and nothing was warm: all is in balance with the room. */
  private cold: boolean;
  /** Tools of the phase before that stay on: since when they act, and until when, s. */
  private staying: { drive: Drive; began: number; until: number } | null = null;
  private under: ReworkCase['under'];
  /** How long something has heated, and had when all came loose, s. */
  private heated_s = 0;
  private heatedAtLoose_s: number | null = null;
  private air: AirOn | undefined;
  private renewed = -Infinity;
  private sinceLook = 0;
  private body_C: number;
  private pads_C: number;

  /**
   * `input.target` must be a part of the board with terminals.
   */
  constructor(
    input: ReworkCase,
    stints: readonly Stint[],
    { start, finer = 1, judges = 'until lifted', mesh: given }: Options = {},
  ) {
    const target = input.board.parts.find((p) => p.partId === input.target);
    if (!target) throw new Error(`The board has no part "${input.target}".`);
    if (stints.length === 0) throw new Error('There is nothing to do: no phase.');
    const { cells, dt } = QUALITY[input.quality];
    this.input = input;
    this.target = target;
    this.stints = stints;
    this.judges = judges;
    this.longestStep_s = dt / finer;
    const touches = stints.filter((s) => s.tips.length > 0);
    this.mesh = given ?? meshBoard(input.board, target, cells, touches.length > 0 ? 'tip' : 'air');
    this.lumps = buildLumps(input, stints, this.mesh, target);
    const { mesh, lumps } = this;
    if (lumps.joints.length === 0) throw new Error(`${partName(target)} has no joints to melt.`);
    const field = start && putState(start, input, target.side, mesh, lumps);
    this.heat = new HeatRun(
      {
        grid: mesh.grid,
        nodes: lumps.nodes,
        links: lumps.links,
        quick: !input.books,
        uneven: { longestStep_s: this.longestStep_s },
      },
      field ?? input.ambient_C,
    );
    const box = targetBox(target);
    this.at = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
    this.drives = stints.map((s, n) => s.drive({ input, mesh, lumps, tips: lumps.tips[n], at: this.at }));
    const columns = lumps.joints.flatMap((j) => j.columns);
    this.stepUnderTip_s = SIDEWAYS / finer / Math.max(1, this.heat.sidewaysRate(columns));
    this.held = heldShare(input.held, mesh);
    this.scratch = [new Float64Array(mesh.grid.kx.length), new Float64Array(mesh.grid.kx.length)];
    this.joints = new JointWatch(this.heat, lumps, input.fitting);
    const below = this.drives.map((d) => d.under).find(heatsFromBelow) ?? input.under;
    this.neighbours = new NeighbourWatch({ ...input, under: below }, mesh, lumps, target, {
      winds: this.winds(),
      hottest_C: Math.max(...stints.map((s) => s.hottest_C)),
    });
    const tips_C = touches.map((s) => s.hottest_C);
    this.outcomes = new SideEffectWatch(input, lumps, target, tips_C.length > 0 ? Math.max(...tips_C) : undefined);
    if (start) this.outcomes.goOn(start);
    [this.body_C, this.pads_C] = [input.ambient_C, input.ambient_C];
    this.under = input.under;
    this.cold = start === undefined;
    this.workpiece = this.workpieceOf();
    if (stints.some((s) => s.lays)) this.away();
    this.begin(0);
  }

  /** s since the heat came on. */
  get time(): number {
    return this.heat.time;
  }

  /** The longest it may take: every phase until it is given up, s. */
  get limit_s(): number {
    return this.stints.reduce((sum, s, n) => sum + s.giveUp_s + (n > 0 ? s.change_s : 0), 0);
  }

  /**
   * One step as long as accuracy allows now, and no further than `until_s`; true when what is slow was looked at after it (neighbours, lands, what closes the window). Throws
   * `OutOfBoundsError` rather than tell a temperature that is not possible.
   */
  step(until_s = Infinity): boolean {
    const { heat, joints } = this;
    const changing = heat.time - this.began < -1e-9;
    const { drive, t } = this.inHand(changing);
    const air = drive.airAt(t);
    this.surround(air);
    drive.act?.(this.workpiece, t);
    const heats = air !== undefined || drive.down || heatsFromBelow(this.under);
    if (heats) this.cold = false;
    const touching = t < drive.moved_s + TOUCH.for_s - 1e-9;
    const dt = Math.min(
      this.cold ? LOOK_S : this.longestStep_s,
      drive.down ? this.stepUnderTip_s : Infinity,
      touching ? TOUCH.part * this.longestStep_s : Infinity,
      changing ? Math.max(1e-6, this.began - heat.time) : Infinity,
      Math.max(1e-6, until_s - heat.time),
    );
    joints.mark();
    const from = heat.time;
    if (this.cold && !heats) heat.wait(dt);
    else heat.step(dt);
    this.steps++;
    joints.note(from, dt);
    const phase = this.phases[this.phases.length - 1];
    if (!changing && !this.left) phase.to_s = heat.time;
    if (heats) this.heated_s += dt;
    else if (!this.left) phase.hands_s += dt;
    this.heatedAtLoose_s = joints.allLoose_s === null ? null : (this.heatedAtLoose_s ?? this.heated_s);
    this.sinceLook += dt;
    const look = this.sinceLook > LOOK_S - 1e-9;
    // a tip is through a pin in a few steps
    if (look || drive.brisk) joints.look();
    if (look) this.look();
    return look;
  }

  /** Whether there is nothing left to do, and every joint lets go for good: nothing more can be seen. */
  get isDone(): boolean {
    return this.joints.allFreed && (this.drives[this.current].done ?? false);
  }

  /** Since when the last phase heats as it will to its end, s; null while something is still to change. */
  get steadySince_s(): number | null {
    const { steadyFrom_s } = this.drives[this.current];
    const last = this.current === this.stints.length - 1 && this.staying === null && !this.left;
    return last && steadyFrom_s !== undefined ? this.began + steadyFrom_s : null;
  }

  /** How long the phase that is on may still take, s. */
  get left_s(): number {
    return Math.max(0, this.began + this.stints[this.current].giveUp_s - this.heat.time);
  }

  /** Whether the phase that is on has come to where it hands over, or was given up; the part is off when that is what it was for. */
  phaseIsOver(): 'no' | 'handed over' | 'given up' {
    const t = this.heat.time - this.began;
    if (t < 0) return 'no';
    if (this.isReached(this.stints[this.current].until, t)) return 'handed over';
    return t >= this.stints[this.current].giveUp_s - 1e-9 ? 'given up' : 'no';
  }

  /** Goes on to the next phase, or from one that was given up to what stands in for it; false when there is none. */
  next(over: 'handed over' | 'given up'): boolean {
    if (this.left) throw new Error('The tools have left: no phase follows.');
    const { stints, current } = this;
    const other = stints[current].else;
    let to = over === 'given up' ? stints.findIndex((s) => s.id === other) : current + 1;
    // what only loosens joints has nothing to do once all are loose
    if (this.joints.looseForGood) while (loosensAll(stints[to]?.until)) to++;
    // never back: what was given up once is given up
    if (to <= current || to >= stints.length) return false;
    const { stays_s } = stints[to];
    if (stays_s === undefined) this.drives[current].end?.(this.workpiece);
    else this.staying = { drive: this.drives[current], began: this.began, until: this.heat.time + stays_s };
    this.begin(to, stints[to].change_s);
    return true;
  }

  /** Hands over where the phase that is on has come to its end; false where the work ends there, with joints that hold. */
  goesOn(): boolean {
    const over = this.phaseIsOver();
    // once all are loose the part is lifted in this phase
    return over === 'no' || this.joints.allLoose_s !== null || this.next(over);
  }

  /** The tools leave: nothing heats any more, and no phase follows. */
  leave(): void {
    this.staying?.drive.end?.(this.workpiece);
    this.staying = null;
    this.drives[this.current].end?.(this.workpiece);
    this.under = this.input.under;
    this.renewed = -Infinity;
    this.left = true;
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
    const { heat, input, joints, lumps, mesh } = this;
    heat.checkBounds();
    const drive = this.drives[this.current];
    const { allLoose_s: allWet, frozen_s: freezes } = joints;
    const last = joints.last();
    const round = this.neighbours.result();
    // a bead is said to hold from when the iron left
    const leaves_s = this.began + drive.settled_s;
    return {
      joints: joints.joints,
      allWet_s: allWet,
      freezes_s: freezes,
      ...(this.stints[this.current].bridges && allWet !== null
        ? { hold_s: freezes === null ? null : Math.max(0, freezes - leaves_s) }
        : {}),
      last: {
        terminal: joints.joints[last].terminal,
        why: reasonFor(last, lumps, mesh, this.at, drive, joints.paths[last]),
        ...(joints.paths[last] ? { paths: joints.paths[last] } : {}),
      },
      body_C: this.body_C,
      pads_C: this.pads_C,
      neighbours: round,
      closes: this.closes(),
      ended_s: heat.time,
      cells: cellCount(mesh.grid),
      steps: this.steps,
      phases: this.phases,
      heat_s: this.heatedAtLoose_s ?? this.heated_s,
      outcomes: this.outcomes.result(round, this.winds(), allWet ?? heat.time),
      ...(input.books ? { energy: { input_J: heat.input_J, stored_J: heat.stored_J(), lost_J: heat.lost_J } } : {}),
    };
  }

  /** Everything a later run of this board may start from. */
  state(): RunState {
    return stateOf(this.heat, this.mesh, this.lumps, this.outcomes.history(), {
      target: this.target.partId,
      side: this.target.side,
    });
  }

  private winds() {
    return this.drives.flatMap((d) => d.wind ?? []);
  }

  /** What acts on the board now, and on which clock. */
  private inHand(changing: boolean): { drive: Drive; t: number } {
    const { heat, staying } = this;
    if (staying && heat.time < staying.until - 1e-9) return { drive: staying.drive, t: heat.time - staying.began };
    staying?.drive.end?.(this.workpiece);
    this.staying = null;
    return { drive: changing || this.left ? NOTHING : this.drives[this.current], t: heat.time - this.began };
  }

  private begin(n: number, change_s = 0): void {
    const { heat, stints, drives } = this;
    const { id, until, cools } = stints[n];
    this.current = n;
    this.began = heat.time + change_s;
    this.under = cools && heatsFromBelow(this.under) ? undefined : (drives[n].under ?? this.under);
    this.renewed = -Infinity;
    this.phases.push({ id, from_s: this.began, to_s: this.began, hands_s: 0 });
    this.joints.under({
      settled_s: this.began + drives[n].settled_s,
      ...(drives[n].frees ? { frees: true } : {}),
      counts: n === stints.length - 1 || drives[n].frees === true || loosensAll(until),
    });
    drives[n].begin?.(this.workpiece);
  }

  private isReached(until: Until, t: number): boolean {
    const { heat, lumps, mesh, joints } = this;
    const { cools } = this.stints[this.current];
    const reached = (now_C: number, C: number) => (cools ? now_C <= C : now_C >= C);
    if ('told' in until) return this.drives[this.current].done ?? false;
    if ('s' in until) return t >= until.s - 1e-9;
    if ('loose' in until) {
      const { loose } = until;
      if (loose === 'all') return joints.allLoose_s !== null;
      return lumps.joints.every((j, i) => !loose.includes(j.terminal.id) || joints.isLoose(i));
    }
    if (until.at === 'body') return reached(heat.T[lumps.body], until.C);
    const columns =
      until.at === 'board' ? lumps.joints.flatMap((j) => j.columns) : [columnAt(mesh, until.at.x_mm, until.at.y_mm)];
    return reached(columns.reduce((sum, c) => sum + heat.cells_C[c], 0) / columns.length, until.C);
  }

  private workpieceOf(): Workpiece {
    const { heat, joints, lumps } = this;
    /** A joint of other metal, as warm as it was. */
    const make = (i: number, metal: JointMetal) => {
      const joint = lumps.joints[i];
      joint.metal = metal;
      heat.changeJoint(joint.node, enthalpyOf(metal, joint.terminal));
    };
    return {
      isLiquid: joints.isLiquid,
      temperature: (i) => heat.T[lumps.joints[i].node],
      body_C: () => heat.T[lumps.body],
      bare(what) {
        if (what === 'glue') for (const link of lumps.glue) heat.setLink(link, 0);
        if (what === 'label') for (const e of lumps.exposed) if (e.node === lumps.body) delete e.label;
      },
      setLink: (link, G) => heat.setLink(link, G),
      feed(i, alloy, mm3) {
        const { metal } = lumps.joints[i];
        make(i, { ...metal, with: [...metal.with, { alloy, ratio: mm3 / metal.own_mm3 }] });
        joints.changed(i);
      },
      take(i, left) {
        const { metal } = lumps.joints[i];
        make(i, { ...metal, own_mm3: left * metal.own_mm3 });
      },
      free: (i) => joints.free(i),
      isFreed: (i) => joints.isFreed(i),
      lay: () => this.lay(),
      cut(i) {
        heat.setLink(lumps.joints[i].lead, 0);
        joints.free(i);
      },
      bridge(bead_mm3_mm, among) {
        const along = BEAD_CONDUCTIVITY * bead_mm3_mm * 1e-6;
        for (const { link, pitch_mm, joints: ends } of lumps.gaps)
          if (!among || ends.every((i) => among.includes(i))) heat.setLink(link, (along / pitch_mm) * 1000);
      },
    };
  }

  /** The part is not there: its lands are bare, nothing shades them. Through the gap below it a little heat still goes. */
  private away(): void {
    const { heat, lumps } = this;
    for (const joint of lumps.joints) heat.setLink(joint.lead, 0);
    for (const e of lumps.exposed) if (e.node === lumps.body) e.cover = 0;
    for (const [column, share] of lumps.ownShade) lumps.shaded.set(column, (lumps.shaded.get(column) ?? 0) - share);
  }
  private lay(): void {
    const { heat, lumps, input } = this;
    for (const { lead, terminal } of lumps.joints) heat.setLink(lead, terminal.G_W_K);
    heat.setBody(lumps.body, input.ambient_C);
    for (const e of lumps.exposed) if (e.node === lumps.body) delete e.cover;
    for (const [column, share] of lumps.ownShade) lumps.shaded.set(column, (lumps.shaded.get(column) ?? 0) + share);
  }

  /** Renews what board and lumps exchange with everything round them, when it has changed or is due. */
  private surround(air: AirOn | undefined): void {
    const { heat } = this;
    if (air === this.air && heat.time - this.renewed < renewEvery(heat.time - this.began) - 1e-9) return;
    this.air = air;
    const round = { ...this.input, under: this.under };
    applySurroundings(heat, this.mesh, this.lumps, air, round, this.held, this.scratch);
    this.renewed = heat.time;
  }

  private look(): void {
    const { heat, lumps, sinceLook } = this;
    const { cells_C } = heat;
    const allWet = this.joints.allLoose_s;
    const judged = this.judges === 'all' || allWet === null || heat.time <= allWet + LIFT_S;
    if (judged) this.outcomes.note(heat, sinceLook);
    this.neighbours.note(heat, sinceLook, judged);
    this.sinceLook = 0;
    this.body_C = Math.max(this.body_C, heat.T[lumps.body]);
    for (const j of lumps.joints) for (const c of j.columns) this.pads_C = Math.max(this.pads_C, cells_C[c]);
  }
}
