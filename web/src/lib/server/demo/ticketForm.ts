/** How the demo's tickets are written down. */
import type { BoardModel } from '@orthos/core/board';
import type { Fault } from '@orthos/core/circuit';
import type { Measured, Place } from '@orthos/core/ground';
import type { JobEventBody } from '@orthos/core/job';
import type { NewTicket } from '../repositories/tickets.ts';

/** An event that follows the one before after so many seconds; the others follow after four minutes. */
export interface Later {
  after_s: number;
  body: JobEventBody;
}

/** Jobs that others name, by what they call them. */
export type Others = ReadonlyMap<string, { ticketId: string; number: number }>;

export type DemoTicket = Pick<NewTicket, 'customer' | 'device' | 'complaint' | 'inBox' | 'serial' | 'waitsFor'> & {
  /** A model, or the name of one that comes from a file. */
  board: BoardModel | 'Gantry';
  kind?: NewTicket['kind'];
  days: number;
  promisedInDays?: number;
  /** Those that name other jobs are made once these are there. */
  events: (JobEventBody | Later)[] | ((others: Others) => (JobEventBody | Later)[]);
  /** What other jobs of the demo call it. */
  as?: string;
  closedDaysAgo?: number;
  /** A photo that came with it, as a data URL, under the id that events name it by. */
  photo?: { id: string; url: string; caption: string };
  /** A newcomer may begin here: what the job shows. */
  shows?: string;
  /** What is really wrong; only the simulated meter knows. */
  hidden?: Fault[];
};

/** The place of a part's terminal, as a reading names it. */
export function at(board: BoardModel, ref: string, terminal: string): Place {
  const part = board.parts.find((p) => p.ref === ref);
  if (!part) throw new Error(`${board.name} has no ${ref}`);
  return { x_mm: part.x_mm, y_mm: part.y_mm, side: part.side, partId: part.partId, terminal };
}

export const reading = (
  board: BoardModel,
  ref: string,
  terminal: string,
  quantity: 'ohm' | 'diode' | 'dcv',
  value: Measured,
  good: Measured | null,
): JobEventBody => ({
  type: 'reading',
  place: at(board, ref, terminal),
  quantity,
  value,
  good,
  ...(good === null ? {} : { goodFrom: 'good board' as const }),
  powered: quantity === 'dcv',
});
