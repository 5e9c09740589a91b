/** Work without heat of its own: the hands alone at the board, task after task. */
import type { Drive, Scene, Workpiece } from '../bench/drive.ts';

export abstract class HandDrive implements Drive {
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

  abstract act(work: Workpiece, t: number): void;

  lastBecause(): string {
    return 'the hands come to it last';
  }
}
