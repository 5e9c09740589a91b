/**
 * Joints of the target while a run goes on: when each begins to melt, is molten, has wetted and is loose, and where its heat comes from.
 *
 * A joint is *loose* when all of its melting heat is in it, up to the liquidus of its matrix, and, where something has to mix or corrosion to
 * be overcome, it has wetted; one that the tool frees (sucked empty, cut, lifted off) is loose from then on. It is *frozen* again only when less than `FROZEN` of the melting
 * heat is left. Everything that is said of joints (rows, headline, window, run, hidden bench) is read from here.
 */
import type { HeatRun, JointEnthalpy } from '../../thermal/index.ts';
import type { Lumps } from './lumps.ts';
import type { Paths, PlanRun } from './runForm.ts';
import { pathsOf } from './reason.ts';
import { wettingTime_s } from './wetting.ts';

/** With less than this share of its melting heat a joint has a solid skeleton again (solid fraction about 0.3) and holds. */
const FROZEN = 0.7;

/** When a quantity that went from `a` to `b` during the step passed `level`, s. */
const crossing = (t: number, dt: number, a: number, b: number, level: number) => t + (dt * (level - a)) / (b - a);

/** How joints are judged while one tool works: until when all loose is not for good, s; whether it looses only by freeing them; whether all loose is what it is for. */
export interface LooseRules {
  settled_s: number;
  frees?: true;
  counts: boolean;
}

export class JointWatch {
  readonly joints: PlanRun['joints'];
  /** Heat into each joint as last seen before it was molten. */
  readonly paths: (Paths | undefined)[];
  /** When all joints came loose, and the first of them was frozen again after that, s. */
  allLoose_s: number | null = null;
  frozen_s: number | null = null;
  private readonly run: HeatRun;
  private readonly lumps: Lumps;
  private readonly nodes: Int32Array;
  private readonly before: Float64Array;
  /** How far each joint has wetted, 1 when done; only what mixes or is corroded has to. */
  private readonly wetted: number[];
  private readonly freed: boolean[];
  private rules: LooseRules = { settled_s: 0, counts: true };
  /** Since when each joint is loose, s; null while it holds. */
  private readonly since: (number | null)[];

  /** `fresh`: a part goes on, whose legs no solder has wetted yet. */
  constructor(run: HeatRun, lumps: Lumps, fresh = false) {
    this.run = run;
    this.lumps = lumps;
    this.nodes = Int32Array.from(lumps.joints, (j) => j.node);
    this.before = new Float64Array(lumps.joints.length);
    this.wetted = lumps.joints.map((j) => (j.surface === 'sound' && !fresh ? 1 : 0));
    this.freed = lumps.joints.map(() => false);
    this.since = lumps.joints.map(() => null);
    this.paths = lumps.joints.map(() => undefined);
    this.joints = lumps.joints.map((j, i) => ({
      terminal: j.terminal.id,
      solidus_s: null,
      liquidus_s: null,
      wet_s: null,
      peak_C: -Infinity,
      solidus_C: this.enthalpy(i).Ts,
      liquidus_C: this.enthalpy(i).Tl,
    }));
  }

  /** Molten through, and wetted. */
  readonly isLiquid = (i: number): boolean =>
    this.run.H[this.nodes[i]] >= this.enthalpy(i).latent && this.wetted[i] >= 1;

  /** What was fed into a joint has to mix before it is loose; its melting range is another from now on. */
  changed(i: number): void {
    this.wetted[i] = 0;
    this.since[i] = null;
    const { Ts, Tl } = this.enthalpy(i);
    Object.assign(this.joints[i], { solidus_s: null, liquidus_s: null, wet_s: null, solidus_C: Ts, liquidus_C: Tl });
  }

  /** A joint was freed: loose, and it stays so. */
  free(i: number): void {
    this.freed[i] = true;
  }

  /** Another tool takes over: what has gone solid since has to melt again. */
  under(rules: LooseRules): void {
    this.rules = rules;
    for (const [i, joint] of this.joints.entries())
      if (!this.freed[i] && this.run.H[this.nodes[i]] < FROZEN * this.enthalpy(i).latent)
        Object.assign(joint, { solidus_s: null, liquidus_s: null, wet_s: null });
  }

  /** Since when a joint is loose, s; null while it holds. */
  looseSince(i: number): number | null {
    return this.since[i];
  }

  /** Whether a joint is loose now. */
  isLoose(i: number): boolean {
    return this.since[i] !== null;
  }

  /** Whether a joint's solder is solid: enough of it to hold, or all through. */
  isSet(i: number, through = false): boolean {
    const H = this.run.H[this.nodes[i]];
    return through ? H <= 0 : H < FROZEN * this.enthalpy(i).latent;
  }

  /** How hot a joint is, and where all of it is liquid, °C. */
  temperature(i: number): number {
    return this.run.T[this.nodes[i]];
  }
  liquidus(i: number): number {
    return this.enthalpy(i).Tl;
  }

  /** Whether a joint is past half of the way from `ambient_C` to where it melts: a tip needs only the other half. */
  isHalfWay(i: number, ambient_C: number): boolean {
    return this.run.T[this.nodes[i]] > (ambient_C + this.enthalpy(i).Ts) / 2;
  }

  /** Whether the tool at work has done with a joint. */
  isFreed(i: number): boolean {
    return this.freed[i];
  }

  /** Whether every joint was freed: none can freeze again. */
  get allFreed(): boolean {
    return this.freed.every(Boolean);
  }

  /** Whether all are loose, and none is lost again by the work that goes on. */
  get looseForGood(): boolean {
    return this.allLoose_s !== null && this.run.time > this.rules.settled_s;
  }

  /** Remembers how they are before a step. */
  mark(): void {
    for (let i = 0; i < this.nodes.length; i++) this.before[i] = this.run.H[this.nodes[i]];
  }

  /** Notes what a step of `dt` from `t0` did. */
  note(t0: number, dt: number): void {
    let all = true;
    for (let i = 0; i < this.joints.length; i++) {
      this.melt(i, t0, dt);
      this.loosen(i, t0, dt);
      if (this.since[i] === null) all = false;
    }
    if (all && this.rules.counts) {
      if (this.allLoose_s !== null) return;
      this.allLoose_s = Math.max(...this.since.map((s) => s ?? 0));
      // of a joint that came and went, the stretch counts that lasted until all were loose
      for (const [i, joint] of this.joints.entries()) joint.wet_s = this.since[i];
    } else if (this.allLoose_s !== null && this.frozen_s === null) {
      if (this.run.time <= this.rules.settled_s) this.allLoose_s = null;
      else this.frozen_s = this.run.time;
    }
  }

  /** Looks where the heat of those that are not molten yet comes from. */
  look(): void {
    for (const [i, joint] of this.joints.entries())
      if (joint.liquidus_s === null) this.paths[i] = pathsOf(this.run, this.lumps, i);
  }

  /** The joint that comes loose last: of those that never do, the one that is coldest for its metal. */
  last(): number {
    const order = this.joints.map((j, i) => ({ i, t: j.wet_s ?? Infinity, short_K: this.enthalpy(i).Tl - j.peak_C }));
    order.sort((a, b) => (a.t === b.t ? b.short_K - a.short_K : b.t - a.t));
    return order[0].i;
  }

  private enthalpy(i: number): JointEnthalpy {
    return (this.lumps.nodes[this.nodes[i]] as { enthalpy: JointEnthalpy }).enthalpy;
  }

  /** Solidus and liquidus passed in this step, and the hottest. */
  private melt(i: number, t0: number, dt: number): void {
    const joint = this.joints[i];
    const { latent } = this.enthalpy(i);
    const [H, before] = [this.run.H[this.nodes[i]], this.before[i]];
    if (H > 0) joint.solidus_s ??= crossing(t0, dt, before, H, 0);
    if (H >= latent) joint.liquidus_s ??= crossing(t0, dt, before, H, latent);
    const T = this.run.T[this.nodes[i]];
    if (T > joint.peak_C) joint.peak_C = T;
  }

  private loosen(i: number, t0: number, dt: number): void {
    const { run, wetted, rules, freed } = this;
    const { latent, Tl } = this.enthalpy(i);
    const [H, before] = [run.H[this.nodes[i]], this.before[i]];
    // when it was molten, if it is: in this step or all along
    let at = H < latent ? null : before >= latent ? t0 : crossing(t0, dt, before, H, latent);
    if (at !== null && wetted[i] < 1) {
      const takes = wettingTime_s(run.T[this.nodes[i]] - Tl, this.lumps.joints[i].surface);
      const left = (1 - wetted[i]) * takes;
      wetted[i] += (t0 + dt - at) / takes;
      at = wetted[i] >= 1 ? Math.min(t0 + dt, at + left) : null;
    }
    if (freed[i]) at = run.time;
    else if (rules.frees) return;
    else if (H < FROZEN * latent) this.since[i] = null;
    if (at === null) return;
    this.since[i] ??= at;
    if (this.allLoose_s === null) this.joints[i].wet_s ??= at;
  }
}
