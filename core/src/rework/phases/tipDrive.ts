/** Irons as they drive a run: puts every tip where the work at hand wants it, and keeps the books of it. */
import type { Drive, LastJoint, Scene, Workpiece } from '../bench/drive.ts';
import type { JointLump, Tip } from '../bench/lumps.ts';
import { sideOf, sidesOf } from './rows.ts';
import { NOTHING, TipContact, type Touch, type TipSettings } from './tip.ts';

export abstract class TipDrive<S extends TipSettings> implements Drive {
  readonly settled_s: number = 0;
  readonly brisk = true;
  down = false;
  moved_s = 0;
  readonly touched: Float64Array;
  protected readonly settings: S;
  protected readonly joints: readonly JointLump[];
  /** Joints by the side of the part they stand on, those that a tip reaches. */
  protected readonly sides: readonly number[][];
  protected readonly contact: TipContact;
  /** What the hands' own times are multiplied by. */
  protected readonly pace: number;
  protected readonly tips: readonly Tip[];
  private place = '';
  private seen_s = 0;

  constructor(settings: S, { input, lumps, tips }: Scene) {
    const { joints } = lumps;
    this.settings = settings;
    this.joints = joints;
    this.tips = tips;
    this.pace = input.pace ?? 1;
    this.contact = new TipContact(joints, settings, input.board.thickness_mm);
    const lands = joints.map((j) => j.terminal.land);
    this.sides = sidesOf(joints).map((side) =>
      joints.flatMap((j, i) => (sideOf(j.terminal.land, lands) === side ? [i] : [])),
    );
    this.touched = new Float64Array(joints.length);
  }

  airAt(): undefined {
    return undefined;
  }

  act(work: Workpiece, t: number): void {
    const touches = this.tips.map((_, k) => this.touchAt(k, t, work));
    const place = touches.map((touch) => touch.at).join();
    if (place !== this.place) [this.place, this.moved_s] = [place, t];
    this.down = touches.some((touch) => touch.joints.length > 0);
    for (const [k, tip] of this.tips.entries()) {
      const { joints, G } = touches[k];
      for (const [i, link] of tip.contact.entries()) {
        const each = joints.includes(i) ? G / joints.length : 0;
        work.setLink(link, each);
        this.touched[i] += each * (t - this.seen_s);
      }
    }
    this.seen_s = t;
  }

  end(work: Workpiece): void {
    for (const tip of this.tips) for (const link of tip.contact) work.setLink(link, 0);
    this.down = false;
  }

  /** Where tip `k` is at a time. */
  protected abstract touchAt(k: number, t: number, work: Workpiece): Touch;
  abstract lastBecause(joint: LastJoint): string;
}

export { NOTHING, type Touch };
