/** Work without heat of its own: the hands alone at the board, task after task; by itself they wait. */
import type { Drive, Scene } from '../bench/drive.ts';

export class HandDrive implements Drive {
  readonly settled_s = 0;
  readonly down = false;
  readonly moved_s = -Infinity;
  readonly brisk = false;
  protected readonly scene: Scene;
  /** What the hands' own times are multiplied by. */
  protected readonly pace: number;

  constructor(scene: Scene) {
    this.scene = scene;
    this.pace = scene.input.pace ?? 1;
  }

  airAt(): undefined {
    return undefined;
  }

  lastBecause(): string {
    return 'the hands come to it last';
  }
}
