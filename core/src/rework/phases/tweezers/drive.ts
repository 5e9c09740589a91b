/** Two heated tips hold a part by its ends. */
import { filmAfter } from '../tip.ts';
import { NOTHING, TipDrive, type Touch } from '../tipDrive.ts';
import type { TweezersSettings } from './settings.ts';

export class GripDrive extends TipDrive<TweezersSettings> {
  protected touchAt(k: number, t: number): Touch {
    const row = this.sides[k];
    return row ? this.contact.around(k, row, row[Math.floor(row.length / 2)], filmAfter(t)) : NOTHING;
  }
  lastBecause(): string {
    return 'both tips heat alike; the other is close behind';
  }
}
