/** Legs cut one by one, row by row: nothing is heated, the solder stays on the lands. */
import type { Scene, Workpiece } from '../../bench/drive.ts';
import { CUT_S } from '../../handTimes.ts';
import { HandDrive } from '../handDrive.ts';
import { sideOf, sidesOf } from '../rows.ts';

export class CutDrive extends HandDrive {
  readonly frees = true;
  /** When each leg is through, s. */
  private readonly due: { joint: number; at_s: number }[] = [];
  private next = 0;

  constructor(scene: Scene) {
    super(scene);
    const { joints } = scene.lumps;
    const lands = joints.map((j) => j.terminal.land);
    let at_s = 0;
    for (const side of sidesOf(joints)) {
      at_s += this.pace * CUT_S.row;
      for (const [joint, { terminal }] of joints.entries()) {
        if (sideOf(terminal.land, lands) !== side) continue;
        at_s += this.pace * CUT_S.leg;
        this.due.push({ joint, at_s });
      }
    }
  }

  get done(): boolean {
    return this.next >= this.due.length;
  }

  act(work: Workpiece, t: number): void {
    for (; this.next < this.due.length && t >= this.due[this.next].at_s; this.next++)
      work.cut(this.due[this.next].joint);
  }
}
