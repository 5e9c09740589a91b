/** One tip in a pool of solder over every joint at once; the part comes away with it. */
import { jointMetal } from '../../../alloys/index.ts';
import type { Scene, Workpiece } from '../../bench/drive.ts';
import { feed_mm3_s, POOL_S } from '../../handTimes.ts';
import { LEADED } from '../../solders.ts';
import { filmAfter } from '../tip.ts';
import { TipDrive, type Touch } from '../tipDrive.ts';
import type { PoolSettings } from './settings.ts';

const WIRE_MM = 1;
/** Molten solder carries heat from the tip to the joints it does not reach, W/(m·K). */
const POOL_CONDUCTIVITY = 30;

export class PoolDrive extends TipDrive<PoolSettings> {
  /** Until the pool is whole what it reaches comes loose by turns. */
  override readonly settled_s: number;
  private readonly all: number[];
  private readonly melts_C: number;
  private readonly fed: boolean[];
  /** From the tip's middle to a joint, mm on average, beyond what the tip itself covers. */
  private readonly beyond_mm: number;

  constructor(settings: PoolSettings, scene: Scene) {
    super(settings, scene);
    this.all = this.joints.map((_, i) => i);
    this.melts_C = jointMetal(settings.alloy ?? LEADED).Tl;
    this.fed = this.joints.map(() => false);
    this.settled_s = this.pace * Math.max(POOL_S, settings.pool_mm3 / feed_mm3_s(WIRE_MM));
    const [x, y] = (['x', 'y'] as const).map((k) => this.joints.reduce((s, j) => s + j[k], 0) / this.joints.length);
    const far = this.joints.map((j) => Math.max(0, Math.hypot(j.x - x, j.y - y) - settings.tip_mm / 2));
    this.beyond_mm = far.reduce((s, d) => s + d, 0) / far.length;
  }

  protected touchAt(_: number, t: number, work: Workpiece): Touch {
    const { alloy = LEADED, pool_mm3, tip_mm } = this.settings;
    const each = pool_mm3 / this.all.length;
    // the wire makes the pool as fast as a hand feeds it; it reaches further and further
    const share = Math.min(1, t / this.settled_s);
    const reached = this.all.slice(0, Math.max(1, Math.ceil(share * this.all.length)));
    for (const i of reached)
      if (!this.fed[i] && work.temperature(i) >= this.melts_C) {
        this.fed[i] = true;
        work.feed(i, alloy, each);
      }
    const touch = this.contact.over(0, reached, tip_mm * Math.max(0.3, share), filmAfter(t));
    if (this.beyond_mm === 0) return touch;
    // through the pool: as thick as it is wide
    const across_mm = Math.sqrt(pool_mm3 / Math.max(1, 2 * this.beyond_mm + tip_mm));
    const pool = (POOL_CONDUCTIVITY * across_mm ** 2 * 1e-3 * this.all.length) / this.beyond_mm;
    return { ...touch, G: 1 / (1 / touch.G + 1 / pool) };
  }

  lastBecause(): string {
    return 'the pool heats all alike; the others are close behind';
  }
}
