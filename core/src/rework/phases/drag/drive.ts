/** One tip with a bead in front of it, from the first joint of a row to the last; it waits where one is not molten yet. */
import { jointMetal } from '../../../alloys/index.ts';
import type { Scene, Workpiece } from '../../bench/drive.ts';
import { DRAG_SIDE_S } from '../../handTimes.ts';
import { LEADED } from '../../solders.ts';
import { lacking_mm3 } from '../solderOn.ts';
import { NOTHING, TipDrive, type Touch } from '../tipDrive.ts';
import type { DragSettings } from './settings.ts';

export class DragDrive extends TipDrive<DragSettings> {
  readonly frees = true;
  private side = 0;
  private joint = 0;
  /** When the tip came to this joint, s; later while the hand goes round. */
  private since: number;
  private readonly melts_C: number;
  private readonly thickness_mm: number;
  private readonly fed: boolean[];

  constructor(settings: DragSettings, scene: Scene) {
    super(settings, scene);
    this.melts_C = jointMetal(settings.alloy ?? LEADED).Tl;
    this.thickness_mm = scene.input.board.thickness_mm;
    this.fed = this.joints.map(() => false);
    this.since = this.pace * DRAG_SIDE_S;
  }

  get done(): boolean {
    return this.side >= this.sides.length;
  }

  protected touchAt(_: number, t: number, work: Workpiece): Touch {
    if (this.done) return NOTHING;
    const row = this.sides[this.side];
    const i = row[this.joint];
    const on_s = t - this.since;
    if (on_s < 0) return NOTHING;
    const { alloy = LEADED, share, most_s, mm_s } = this.settings;
    const touch = this.contact.around(this.side, row, i);
    // the bead runs onto every joint under the tip that is hot enough
    for (const j of touch.joints)
      if (!this.fed[j] && work.temperature(j) >= this.melts_C) {
        this.fed[j] = true;
        const mm3 = lacking_mm3(this.joints[j], this.thickness_mm, share);
        if (mm3 > 0) work.feed(j, alloy, mm3);
      }
    const made = this.fed[i] && work.isLiquid(i);
    const next = row.at(this.joint + 1);
    const pitch_mm =
      next === undefined
        ? 0
        : Math.hypot(this.joints[next].x - this.joints[i].x, this.joints[next].y - this.joints[i].y);
    if ((made && on_s >= (this.pace * pitch_mm) / mm_s) || on_s >= most_s) {
      if (made) work.free(i);
      this.goOn(t);
    }
    return touch;
  }

  private goOn(t: number): void {
    this.joint++;
    this.since = t;
    if (this.joint < this.sides[this.side].length) return;
    [this.side, this.joint] = [this.side + 1, 0];
    this.since = t + this.pace * DRAG_SIDE_S;
  }

  lastBecause(): string {
    return 'the iron comes to it last';
  }
}
