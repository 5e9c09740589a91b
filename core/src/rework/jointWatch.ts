/** Joints of the target while a run goes on: when each begins to melt, is molten, has wetted and lets go, and where its heat comes from. */
import type { JointEnthalpy } from '../thermal/enthalpy.ts';
import type { HeatRun } from '../thermal/heatRun.ts';
import type { Irons } from './irons.ts';
import type { Lumps } from './lumps.ts';
import type { Method } from './method.ts';
import { wetAt, type Paths, type PlanRun } from './planForm.ts';
import { pathsOf } from './reason.ts';
import { wettingTime_s } from './wetting.ts';

/** A joint lets go when its solid fraction is below about 0.3 (share of the melting heat taken up). */
const MOVABLE = 0.7;

/** When a quantity that went from `a` to `b` during the step passed `level`, s. */
const crossing = (t: number, dt: number, a: number, b: number, level: number) => t + (dt * (level - a)) / (b - a);

export class JointWatch {
  readonly joints: PlanRun['joints'];
  /** Heat into each joint as last seen before it was molten. */
  readonly paths: (Paths | undefined)[];
  private readonly run: HeatRun;
  private readonly lumps: Lumps;
  private readonly irons: Irons | undefined;
  private readonly nodes: Int32Array;
  private readonly enthalpies: JointEnthalpy[];
  private readonly before: Float64Array;
  /** How far each joint has wetted, 1 when done; only what mixes or is corroded has to. */
  private readonly wetted: number[];

  constructor(run: HeatRun, lumps: Lumps, method: Method, irons: Irons | undefined) {
    this.run = run;
    this.lumps = lumps;
    this.irons = irons;
    this.nodes = Int32Array.from(lumps.joints, (j) => j.node);
    this.enthalpies = lumps.joints.map((j) => (lumps.nodes[j.node] as { enthalpy: JointEnthalpy }).enthalpy);
    this.before = new Float64Array(lumps.joints.length);
    this.wetted = lumps.joints.map((j) => (method.kind === 'low-melt' || j.corroded ? 0 : 1));
    this.paths = lumps.joints.map(() => undefined);
    this.joints = lumps.joints.map((j, i) => ({
      terminal: j.terminal.id,
      solidus_s: null,
      liquidus_s: null,
      wet_s: null,
      peak_C: -Infinity,
      solidus_C: this.enthalpies[i].Ts,
      liquidus_C: this.enthalpies[i].Tl,
    }));
  }

  /** Molten far enough to move, and wetted. */
  readonly movable = (i: number): boolean =>
    this.run.H[this.nodes[i]] >= MOVABLE * this.enthalpies[i].latent && this.wetted[i] >= 1;

  /** Remembers how they are before a step. */
  mark(): void {
    for (let i = 0; i < this.nodes.length; i++) this.before[i] = this.run.H[this.nodes[i]];
  }

  /** Notes what a step of `dt` from `t0` did; tells whether all of them are loose: movable now, or emptied for good. */
  note(t0: number, dt: number): boolean {
    const { run, irons, wetted } = this;
    let loose = true;
    for (const [i, joint] of this.joints.entries()) {
      const [H, T] = [run.H[this.nodes[i]], run.T[this.nodes[i]]];
      const { latent, Tl } = this.enthalpies[i];
      if (H > 0) joint.solidus_s ??= crossing(t0, dt, this.before[i], H, 0);
      if (H >= latent) joint.liquidus_s ??= crossing(t0, dt, this.before[i], H, latent);
      if (H >= latent && wetted[i] < 1) {
        wetted[i] += dt / wettingTime_s(T - Tl, this.lumps.joints[i].corroded);
        if (wetted[i] >= 1 && !irons?.empties) joint.wet_s = run.time;
      }
      if (irons?.freed[i]) joint.wet_s ??= run.time;
      if (!irons?.empties && wetted[i] >= 1) joint.wet_s ??= joint.liquidus_s;
      if (!(irons?.empties ? irons.freed[i] : this.movable(i))) loose = false;
      if (T > joint.peak_C) joint.peak_C = T;
    }
    return loose;
  }

  /** Looks where the heat of those that are not molten yet comes from. */
  look(): void {
    for (const [i, joint] of this.joints.entries())
      if (joint.liquidus_s === null) this.paths[i] = pathsOf(this.run, this.lumps, i);
  }

  /** The joint that lets go last: of those that never do, the coldest. */
  last(): number {
    const order = this.joints.map((j, i) => ({ i, t: wetAt(j) ?? Infinity, peak: j.peak_C }));
    order.sort((a, b) => (a.t === b.t ? a.peak - b.peak : b.t - a.t));
    return order[0].i;
  }
}
