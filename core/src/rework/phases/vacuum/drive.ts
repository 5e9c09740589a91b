/** A hollow tip goes from hole to hole: molten through, then sucked empty. */
import type { Workpiece } from '../../bench/drive.ts';
import { filmAfter } from '../tip.ts';
import { NOTHING, TipDrive, type Touch } from '../tipDrive.ts';
import type { VacuumSettings } from './settings.ts';

/** On one pin where nothing is said, s. */
const MOST_S = 8;

/** So much of the solder stays on the walls of a hole and the pin, as a share (estimate). */
const LEFT = 0.1;

export class SuckDrive extends TipDrive<VacuumSettings> {
  readonly empties = true;
  private readonly empty = this.joints.map(() => false);
  private pin = 0;
  private pinSince = 0;
  private moltenSince: number | null = null;

  get done(): boolean {
    return this.empty.every(Boolean);
  }

  protected touchAt(_: number, t: number, work: Workpiece): Touch {
    const { empty } = this;
    if (work.isLiquid(this.pin)) this.moltenSince ??= t;
    else this.moltenSince = null;
    if (this.moltenSince !== null && t - this.moltenSince >= this.settings.dwell_s && !empty[this.pin]) {
      empty[this.pin] = true;
      work.empty(this.pin);
    }
    if (empty[this.pin] || t - this.pinSince >= (this.settings.most_s ?? MOST_S)) {
      const n = empty.length;
      const next = Array.from({ length: n }, (_pin, i) => (this.pin + 1 + i) % n).find((i) => !empty[i]);
      if (next === undefined) return NOTHING;
      [this.pin, this.pinSince, this.moltenSince] = [next, t, null];
    }
    const { land } = this.joints[this.pin].terminal;
    // a ring of the tip sits on the land
    const ring = Math.PI * Math.min(this.settings.tip_mm, land.w, land.h);
    return this.contact.over(this.pin, [this.pin], ring, filmAfter(t - this.pinSince));
  }

  /** What was sucked out goes with the iron. */
  override end(work: Workpiece): void {
    super.end(work);
    for (const [i, gone] of this.empty.entries()) if (gone) work.take(i, LEFT);
  }

  lastBecause(): string {
    return 'the iron comes to it last';
  }
}
