/** What a job knows of the board that its parts are brought from. */
import type { BoardModel } from '@orthos/core/board';
import type { JobEvent } from '@orthos/core/job';

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
