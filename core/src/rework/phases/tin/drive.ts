/** Solder comes onto lands, long enough before the heat that they have cooled again. */
import { LEADED } from '../../solders.ts';
import type { Scene, Workpiece } from '../../bench/drive.ts';
import type { Composition } from '../../../alloys/index.ts';
import { HandDrive } from '../handDrive.ts';
import { lacking_mm3 } from '../solderOn.ts';

interface Laid {
  alloy?: Composition | undefined;
  share: number;
  pad_share?: number | undefined;
  one?: true | undefined;
}

/** Also of paste: what lies on a land is solder, however it came there. */
export class LayDrive extends HandDrive {
  readonly done = true;
  private readonly settings: Laid;
  constructor(settings: Laid, scene: Scene) {
    super(scene);
    this.settings = settings;
  }
  begin(work: Workpiece): void {
    const { alloy = LEADED, share, pad_share = share, one } = this.settings;
    const { input, lumps } = this.scene;
    for (const [i, joint] of lumps.joints.entries()) {
      if (one && i > 0) return;
      const mm3 = lacking_mm3(joint, input.board.thickness_mm, joint.terminal.kind === 'pad' ? pad_share : share);
      if (mm3 > 0) work.feed(i, alloy, mm3);
    }
  }
}
