/** Board and job at once: the board as the one that lies there was measured. */
import { asMeasured, type JobEvent } from '@orthos/core/job';
import { stateOf } from './stateOf.ts';
import type { BoardView, JobStanding, JobView } from './view.ts';

export const viewOf = (fixed: BoardView, job: JobStanding & { events: JobEvent[] }): JobView => ({
  ...fixed,
  ...job,
  board: asMeasured(fixed.board, stateOf(job.events)),
  drawn_mm: fixed.board.thickness_mm,
});
