/** An iron goes from joint to joint: heated until wire melts on it, fed, held until all of it flows. */
import { jointMetal } from '../../../alloys/index.ts';
import type { Scene, Workpiece } from '../../bench/drive.ts';
import { feed_mm3_s, JOINT_S } from '../../handTimes.ts';
import { LEADED } from '../../solders.ts';
import { lacking_mm3, WIRE_MM } from '../solderOn.ts';
import { filmAfter } from '../tip.ts';
import { NOTHING, TipDrive, type Touch } from '../tipDrive.ts';
import type { JointSettings } from './settings.ts';

/** The joint furthest from one, as a hand tacks corners. */
function opposite(joints: readonly { x: number; y: number }[], from: number): number {
  const away = (i: number) => Math.hypot(joints[i].x - joints[from].x, joints[i].y - joints[from].y);
  return joints.map((_, i) => i).reduce((a, b) => (away(b) > away(a) + 1e-9 ? b : a), from);
}

/** Corners first, so that nothing moves any more; then row by row. */
function jointOrder(sides: readonly (readonly number[])[], joints: readonly { x: number; y: number }[]): number[] {
  const all = sides.flat();
  if (all.length <= 2) return all;
  const corners = [all[0], opposite(joints, all[0])];
  return [...corners, ...all.filter((i) => !corners.includes(i))];
}

export class JointDrive extends TipDrive<JointSettings> {
  readonly frees = true;
  /** Joints as they are come to. */
  private readonly order: readonly number[];
  private readonly melts_C: number;
  private readonly thickness_mm: number;
  private at = 0;
  private since = 0;
  private fedAt: number | null = null;
  private feeds_s = 0;

  /** `only`: so many of them, the corners first. */
  constructor(settings: JointSettings, scene: Scene, only = Infinity) {
    super(settings, scene);
    this.order = jointOrder(this.sides, this.joints).slice(0, only);
    this.melts_C = jointMetal(settings.alloy ?? LEADED).Tl;
    this.thickness_mm = scene.input.board.thickness_mm;
  }

  get done(): boolean {
    return this.at >= this.order.length;
  }

  protected touchAt(_: number, t: number, work: Workpiece): Touch {
    while (!this.done && work.isFreed(this.order[this.at])) this.at++;
    const i = this.order.at(this.at);
    const down_s = t - this.since;
    // the hand is still on its way
    if (i === undefined || this.done || down_s < 0) return NOTHING;
    const { alloy = LEADED, share, most_s, tip_mm } = this.settings;
    // wire melts on a joint that is hot enough for it
    if (this.fedAt === null && work.temperature(i) >= this.melts_C) {
      const mm3 = lacking_mm3(this.joints[i], this.thickness_mm, share);
      if (mm3 > 0) work.feed(i, alloy, mm3);
      this.fedAt = t;
      this.feeds_s = mm3 / feed_mm3_s(WIRE_MM);
    }
    const made =
      this.fedAt !== null && t >= this.fedAt + this.pace * (this.feeds_s + JOINT_S.flows) && work.isLiquid(i);
    if (made || down_s >= most_s) {
      if (made) work.free(i);
      this.goOn(t);
      return NOTHING;
    }
    const { land, drill_mm } = this.joints[i].terminal;
    // wire fed onto a pin runs half round it; on a flat land the tip wets along its longer side
    const wetted_mm = drill_mm
      ? (Math.PI / 2) * Math.min(tip_mm, land.w, land.h)
      : Math.min(tip_mm, Math.max(land.w, land.h));
    return this.contact.over(this.at, [i], wetted_mm, this.fedAt === null ? filmAfter(down_s) : 1);
  }

  private goOn(t: number): void {
    this.at++;
    this.fedAt = null;
    this.since = t + this.pace * JOINT_S.move;
  }

  lastBecause(): string {
    return 'the iron comes to it last';
  }
}
