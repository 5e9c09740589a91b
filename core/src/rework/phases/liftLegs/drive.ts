/** Leg by leg: iron and braid on it, a needle behind it, up it comes. */
import type { Scene, Workpiece } from '../../bench/drive.ts';
import { LIFT_LEG_S } from '../../handTimes.ts';
import { filmAfter } from '../tip.ts';
import { NOTHING, TipDrive, type Touch } from '../tipDrive.ts';
import type { LiftLegsSettings } from './settings.ts';

/** Of the time for a leg the iron is on it for the last part; longest on a leg that does not melt, s. */
const [HEATED, MOST_S] = [0.4, 8];
/** What braid and lifting leave on the leg's joint, as a share (estimate). */
const LEFT = 0.15;

export class LiftLegsDrive extends TipDrive<LiftLegsSettings> {
  readonly frees = true;
  private readonly order: readonly number[];
  private readonly each_s: number;
  private leg = 0;
  private since = 0;

  constructor(settings: LiftLegsSettings, scene: Scene) {
    super(settings, scene);
    this.order = this.sides.flat();
    const pitch_mm = Math.min(
      ...this.joints.slice(1).map((j, n) => Math.hypot(j.x - this.joints[n].x, j.y - this.joints[n].y)),
    );
    this.each_s = this.pace * (pitch_mm <= LIFT_LEG_S.fine_mm + 0.01 ? LIFT_LEG_S.fine : LIFT_LEG_S.leg);
  }

  get done(): boolean {
    return this.leg >= this.order.length;
  }

  protected touchAt(_: number, t: number, work: Workpiece): Touch {
    const joint = this.order[this.leg];
    const on_s = t - this.since - (1 - HEATED) * this.each_s;
    if (joint === undefined || on_s < 0) return NOTHING;
    const up = on_s >= HEATED * this.each_s && work.isLiquid(joint);
    if (up) {
      work.free(joint);
      work.take(joint, LEFT);
    }
    if (up || on_s >= HEATED * this.each_s + MOST_S) {
      this.leg++;
      this.since = t;
      return NOTHING;
    }
    const { w, h } = this.joints[joint].terminal.land;
    return this.contact.over(joint, [joint], Math.min(this.settings.tip_mm, Math.max(w, h)), filmAfter(on_s));
  }

  lastBecause(): string {
    return 'the iron comes to it last';
  }
}
