import type { JobView } from './view';

/** What events of a job's work say it is about: the part that is worked at, on which board. */
export function aboutWork({ ticket, inputs }: Pick<JobView, 'ticket' | 'inputs'>): {
  boardId: string;
  partId?: string;
} {
  return { boardId: ticket.boardId, ...(inputs ? { partId: inputs.target } : {}) };
}
