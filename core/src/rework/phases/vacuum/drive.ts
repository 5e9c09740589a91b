/** A hollow tip goes from hole to hole: seated, fresh solder fed, molten through, sucked empty; cleaned in between. */
import { jointMetal } from '../../../alloys/index.ts';
import type { Scene, Workpiece } from '../../bench/drive.ts';
import { SUCTION } from '../../handTimes.ts';
import { LEADED } from '../../solders.ts';
import { usuallyStuck } from './stuck.ts';
import { filmAfter } from '../tip.ts';
import { NOTHING, TipDrive, type Touch } from '../tipDrive.ts';
import type { VacuumSettings } from './settings.ts';

/** On one pin where nothing is said, s. */
const MOST_S = 8;

/** So much of the solder stays on the walls of a hole and the pin, as a share (estimate). */
const LEFT = 0.1;

export class SuckDrive extends TipDrive<VacuumSettings> {
  readonly frees = true;
  private readonly empty = this.joints.map(() => false);
  private pin = 0;
  /** When the tip sits on the pin, s. */
  private seated = 0;
  private visited = 0;
  private laps = 0;
  /** Pins that came up plugged: the next try takes longer. */
  private readonly tried = new Set<number>();
  private fedSince: number | null = null;
  private moltenSince: number | null = null;
  /** Pins that stay plugged at the first try. */
  private readonly stuck: Set<number>;
  private readonly wire_C = jointMetal(LEADED).Tl;

  constructor(settings: VacuumSettings, scene: Scene) {
    super(settings, scene);
    const { stuck } = scene.input;
    this.stuck = stuck
      ? new Set(this.joints.flatMap((j, i) => (stuck.includes(j.terminal.id) ? [i] : [])))
      : new Set(usuallyStuck(scene.input.board, this.joints.length));
  }

  get done(): boolean {
    return this.empty.every(Boolean) || this.laps >= (this.settings.laps ?? Infinity);
  }

  protected touchAt(_: number, t: number, work: Workpiece): Touch {
    const { empty, pin, settings, pace } = this;
    const { land, drill_mm = 0 } = this.joints[pin].terminal;
    const on_s = t - this.seated;
    // the hand is on its way, or cleans the tip
    if (this.done || on_s < 0) return NOTHING;
    // wire melts on a joint that is hot enough for it
    if (settings.fresh === false || work.temperature(pin) >= this.wire_C) this.fedSince ??= t;
    const feeds_s =
      settings.fresh === false ? 0 : pace * (drill_mm >= SUCTION.wide_mm ? SUCTION.feedWide_s : SUCTION.feed_s);
    const fed = this.fedSince !== null && t >= this.fedSince + feeds_s;
    if (fed && work.isLiquid(pin)) this.moltenSince ??= t;
    else this.moltenSince = null;
    const sucked =
      this.moltenSince !== null &&
      t - this.moltenSince >= settings.dwell_s + pace * (SUCTION.suck_s + (this.tried.has(pin) ? SUCTION.again_s : 0));
    if (sucked && this.stuck.delete(pin)) this.tried.add(pin);
    else if (sucked) {
      empty[pin] = true;
      work.free(pin);
    }
    // it came up empty, or stays plugged, or does not melt
    if (sucked || (this.moltenSince === null && on_s >= feeds_s + (settings.most_s ?? MOST_S))) {
      this.goOn(t);
      return NOTHING;
    }
    // a ring of the tip sits on the land; fresh solder on it wets at once
    const ring = Math.PI * Math.min(settings.tip_mm, land.w, land.h);
    return this.contact.over(pin, [pin], ring, settings.fresh === false ? filmAfter(on_s) : 1);
  }

  /** To the next pin that is not empty; those that stayed solid come round again after the lap. */
  private goOn(t: number): void {
    const { empty } = this;
    const n = empty.length;
    const next = Array.from({ length: n }, (_pin, i) => (this.pin + 1 + i) % n).find((i) => !empty[i]);
    if (next === undefined) return;
    if (next <= this.pin) this.laps++;
    const clean_s = ++this.visited % SUCTION.every === 0 ? SUCTION.clean_s : 0;
    [this.pin, this.seated] = [next, t + this.pace * (SUCTION.move_s + clean_s)];
    [this.fedSince, this.moltenSince] = [null, null];
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
