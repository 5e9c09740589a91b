/** An iron that works fresh solder into joints, stop by stop along each row: as many at once as its tip covers. */
import type { Scene, Workpiece } from '../../bench/drive.ts';
import { NOTHING, TipDrive, type Touch } from '../tipDrive.ts';
import type { SpikeSettings } from './settings.ts';
import { LEADED } from '../../solders.ts';
import { jointMetal } from '../../../alloys/index.ts';

/** Wire of 0.7 mm goes into joints at this rate, mm³/s, and the hand takes so long from stop to stop, s (17-hands: limited by the hand). */
const [FED_MM3_S, MOVES_S] = [1.5, 1];

export class SpikeDrive extends TipDrive<SpikeSettings> {
  private readonly stops: { middle: number; joints: number[]; feeds_s: number }[];
  private readonly melts_C: number;
  private stop = 0;
  private since = 0;
  private readonly fed: boolean[];

  constructor(settings: SpikeSettings, scene: Scene) {
    super(settings, scene);
    this.melts_C = jointMetal(settings.alloy ?? LEADED).Tl;
    this.fed = this.joints.map(() => false);
    this.stops = this.sides
      .flatMap((row) => this.along(row))
      .map((stop) => ({
        ...stop,
        feeds_s: (stop.joints.reduce((sum, i) => sum + this.mm3Of(i), 0) / FED_MM3_S) * this.pace,
      }));
  }

  get done(): boolean {
    return this.stop >= this.stops.length;
  }

  protected touchAt(_: number, t: number, work: Workpiece): Touch {
    const here = this.stops[this.stop];
    if (!here) return NOTHING;
    const { alloy = LEADED, most_s } = this.settings;
    const down_s = t - this.since;
    // the hand is still on its way
    if (down_s < 0) return NOTHING;
    // wire melts on a joint that is hot enough for it
    for (const i of here.joints)
      if (!this.fed[i] && work.temperature(i) >= this.melts_C) {
        this.fed[i] = true;
        work.feed(i, alloy, this.mm3Of(i));
      }
    const through = down_s >= here.feeds_s && here.joints.every((i) => this.fed[i] && work.isLiquid(i));
    if (through || down_s >= most_s) {
      this.stop++;
      this.since = t + this.pace * MOVES_S;
      return NOTHING;
    }
    // fresh solder on the tip wets at once, as a bead does
    return this.contact.around(this.stop, here.joints, here.middle);
  }

  lastBecause(): string {
    return 'the iron comes to it last';
  }

  private mm3Of(joint: number): number {
    return this.settings.ratio * this.joints[joint].metal.own_mm3;
  }

  /** Stops along a row: each as far on as leaves nothing behind that the tip has not covered. */
  private along(row: readonly number[]): { middle: number; joints: number[] }[] {
    const stops: { middle: number; joints: number[] }[] = [];
    let left = [...row];
    while (left.length > 0) {
      const [first] = left;
      const middle = this.contact.under(left, first).at(-1) ?? first;
      const joints = this.contact.under(left, middle);
      stops.push({ middle, joints });
      left = left.filter((i) => !joints.includes(i));
    }
    return stops;
  }
}
