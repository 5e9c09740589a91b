/** The part set down: onto cold lands nothing changes, onto molten ones a cold body comes. */
import { SET_DOWN_S } from '../../handTimes.ts';
import type { Scene, Workpiece } from '../../bench/drive.ts';
import { HandDrive } from '../handDrive.ts';
import type { PlaceSettings } from './settings.ts';

export class PlaceDrive extends HandDrive {
  done: boolean;
  private readonly molten: boolean;
  constructor({ molten }: PlaceSettings, scene: Scene) {
    super(scene);
    this.molten = molten === true;
    this.done = !this.molten;
  }
  act(_: Workpiece, t: number): void {
    if (t >= this.pace * SET_DOWN_S) this.done = true;
  }
  begin(work: Workpiece): void {
    if (this.molten) work.lay();
  }
}
