/** Nothing is done at the board: it cools, or what was on it before stays on. */
import { HandDrive } from './handDrive.ts';

export class WaitDrive extends HandDrive {
  act(): void {
    // time alone passes
  }
}
