/** Air warms the part until what sits on it gives; hands take it off while the air stays on. */
import type { AirOn, Drive, LastJoint, Scene, Workpiece } from '../../bench/drive.ts';
import { BARE_S } from '../../handTimes.ts';
import { AirDrive } from '../air/drive.ts';
import type { SoftenSettings } from './settings.ts';

export class SoftenDrive implements Drive {
  readonly settled_s = 0;
  readonly down = false;
  readonly moved_s = -Infinity;
  readonly brisk = false;
  private readonly air: AirDrive;
  private readonly settings: SoftenSettings;
  private readonly takes_s: number;
  private gives_s: number | null = null;
  private off = false;

  constructor(settings: SoftenSettings, scene: Scene) {
    this.air = new AirDrive(settings, scene);
    this.settings = settings;
    this.takes_s = BARE_S[settings.what] * (scene.input.pace ?? 1);
  }

  get wind() {
    return this.air.wind;
  }

  get done(): boolean {
    return this.off;
  }

  airAt(t: number): AirOn | undefined {
    return this.air.airAt(t);
  }

  act(work: Workpiece, t: number): void {
    if (work.body_C() >= this.settings.soft_C) this.gives_s ??= t;
    if (this.off || this.gives_s === null || t < this.gives_s + this.takes_s) return;
    work.bare(this.settings.what);
    this.off = true;
  }

  lastBecause(joint: LastJoint): string {
    return this.air.lastBecause(joint);
  }
}
