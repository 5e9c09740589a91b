/** Pressed for as long as the heat stays on. */
import type { Scene, Workpiece } from '../../bench/drive.ts';
import { HandDrive } from '../handDrive.ts';
import type { LiftSettings } from '../lift/settings.ts';

export class PressDrive extends HandDrive {
  done = false;
  private readonly settings: LiftSettings;
  constructor(settings: LiftSettings, scene: Scene) {
    super(scene);
    this.settings = settings;
  }
  act(_: Workpiece, t: number): void {
    if (t >= this.settings.stays_s) this.done = true;
  }
}
