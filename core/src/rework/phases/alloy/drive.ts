/** An iron lays alloy row by row: fed along it once, then worked in to and fro. */
import { jointMetal, LOW_MELT } from '../../../alloys/index.ts';
import type { Scene, Workpiece } from '../../bench/drive.ts';
import { BEAD_S, feed_mm3_s } from '../../handTimes.ts';
import { beadOn, rowsOf } from '../rows.ts';
import { filmAfter } from '../tip.ts';
import { NOTHING, TipDrive, type Touch } from '../tipDrive.ts';
import { type AlloySettings, WIRE_MM } from './settings.ts';

/** There and back along a worked bead, s. */
const PASS_S = 1;
/** Of the time for a row the iron is on it for so much: the rest is flux, wire and turning. */
const ON_ROW = 0.8;

interface RowWork {
  joints: readonly number[];
  feeds_s: number;
  takes_s: number;
}

export class AlloyDrive extends TipDrive<AlloySettings> {
  private readonly rows: readonly RowWork[];
  private readonly mm3: ReadonlyMap<string, number>;
  private readonly melts_C: number;
  private readonly fed: boolean[];
  private row = 0;
  private since = 0;

  constructor(settings: AlloySettings, scene: Scene) {
    super(settings, scene);
    const { board, target } = scene.input;
    const part = board.parts.find((p) => p.partId === target);
    const lengths = part ? rowsOf(part.package).map((r) => r.length_mm) : [];
    this.mm3 = part ? beadOn(part.package, settings.bead_mm3_mm).each_mm3 : new Map();
    this.melts_C = jointMetal(settings.alloy ?? LOW_MELT).Tl;
    this.fed = this.joints.map(() => false);
    const rate = feed_mm3_s(settings.wire_mm ?? WIRE_MM);
    this.rows = this.sides.map((joints, n) => {
      const feeds_s = this.pace * ((settings.bead_mm3_mm * (lengths[n] ?? 0)) / rate);
      return { joints, feeds_s, takes_s: Math.max(feeds_s, this.pace * (BEAD_S.row + BEAD_S.mm * (lengths[n] ?? 0))) };
    });
  }

  get done(): boolean {
    return this.row >= this.rows.length;
  }

  protected touchAt(_: number, t: number, work: Workpiece): Touch {
    const here = this.rows[this.row];
    if (!here) return NOTHING;
    const on_s = t - this.since;
    if (on_s >= here.takes_s && here.joints.every((i) => this.fed[i] || on_s >= 2 * here.takes_s)) {
      this.row++;
      this.since = t;
      return NOTHING;
    }
    if (on_s < (1 - ON_ROW) * here.takes_s) return NOTHING;
    const at_s = on_s - (1 - ON_ROW) * here.takes_s;
    // once along it while it is fed, then to and fro
    const turn = ((at_s - here.feeds_s) / PASS_S) % 1;
    const place = at_s < here.feeds_s ? at_s / here.feeds_s : turn < 0.5 ? 1 - 2 * turn : 2 * turn - 1;
    const middle = here.joints[Math.round(place * (here.joints.length - 1))];
    const touch = this.contact.around(this.row, here.joints, middle, filmAfter(at_s));
    this.feed(touch.joints, work);
    return touch;
  }

  /** Wire melts on what is hot enough for it, and runs along what it has wetted. */
  private feed(joints: readonly number[], work: Workpiece): void {
    const { alloy = LOW_MELT, bead_mm3_mm } = this.settings;
    let more = false;
    for (const i of joints) {
      const mm3 = this.mm3.get(this.joints[i].terminal.id);
      if (this.fed[i] || !mm3 || work.temperature(i) < this.melts_C) continue;
      this.fed[i] = more = true;
      work.feed(i, alloy, mm3);
    }
    if (!more) return;
    work.bridge(
      bead_mm3_mm,
      this.fed.flatMap((f, i) => (f ? [i] : [])),
    );
  }

  lastBecause(): string {
    return 'the iron comes to it last';
  }
}
