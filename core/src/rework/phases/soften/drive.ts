/** Air warms the part until what sits on it gives; hands take it off while the air stays on. */
import type { Drive, Scene, Workpiece } from '../../bench/drive.ts';
import { BARE_S } from '../../handTimes.ts';
import { AirDrive } from '../air/drive.ts';
import type { SoftenSettings } from './settings.ts';

export class SoftenDrive extends AirDrive implements Drive {
  private readonly what: SoftenSettings['what'];
  private readonly soft_C: number;
  private readonly takes_s: number;
  private gives_s: number | null = null;
  private off = false;

  constructor(settings: SoftenSettings, scene: Scene) {
    super(settings, scene);
    this.what = settings.what;
    this.soft_C = settings.soft_C;
    this.takes_s = BARE_S[settings.what] * (scene.input.pace ?? 1);
  }

  get done(): boolean {
    return this.off;
  }

  act(work: Workpiece, t: number): void {
    if (work.body_C() >= this.soft_C) this.gives_s ??= t;
    if (this.off || this.gives_s === null || t < this.gives_s + this.takes_s) return;
    work.bare(this.what);
    this.off = true;
  }
}
