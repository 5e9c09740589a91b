/** What a job knows of the board that its parts are brought from. */
import type { BoardModel } from '@orthos/core/board';
import type { JobEvent } from '@orthos/core/job';
import type { PlanInputs } from './view.ts';

export interface DonorView {
  id: string;
  number: number;
  device: string;
  serial: string;
  closed: boolean;
  board: BoardModel;
  /** Same kind of board: parts of one name have one place. */
  sameModel: boolean;
  events: JobEvent[];
  /** What work at this board is computed from, also while no part of it is chosen. */
  inputs: PlanInputs | null;
}

/** A job whose board may give parts. */
export interface DonorChoice {
  id: string;
  number: number;
  device: string;
  serial: string;
  board: string;
  sameModel: boolean;
}
