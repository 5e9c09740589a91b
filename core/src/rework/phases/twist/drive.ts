/** A can turned to and fro about its own axis until its leads break above the lands. */
import type { Workpiece } from '../../bench/drive.ts';
import { TWIST_S } from '../../handTimes.ts';
import { HandDrive } from '../handDrive.ts';

export class TwistDrive extends HandDrive {
  readonly frees = true;
  done = false;

  act(work: Workpiece, t: number): void {
    if (this.done || t < this.pace * TWIST_S) return;
    this.done = true;
    for (const i of this.scene.lumps.joints.keys()) work.cut(i);
  }
}
