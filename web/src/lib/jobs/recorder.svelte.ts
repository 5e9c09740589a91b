/** Writing to a job's log from a panel: one act at a time, the problem kept for the page to show. */
import type { JobEventBody } from '@orthos/core/job';
import { recordEvent, recordEvents } from './send';

export class Recorder {
  problem = $state<string | null>(null);
  busy = $state(false);
  private readonly ticketId: string;

  constructor(ticketId: string) {
    this.ticketId = ticketId;
  }

  /** True when the server has it. */
  record(body: JobEventBody): Promise<boolean> {
    return this.write(() => recordEvent(this.ticketId, body));
  }

  /** Several in their order; true when the server has all of them. */
  recordAll(bodies: readonly JobEventBody[]): Promise<boolean> {
    return this.write(() => recordEvents(this.ticketId, bodies));
  }

  private async write(send: () => Promise<unknown>): Promise<boolean> {
    this.busy = true;
    // what is said wrong while this is under way has to stay
    this.problem = null;
    try {
      await send();
      return true;
    } catch (e) {
      this.problem = (e as Error).message;
      return false;
    } finally {
      this.busy = false;
    }
  }
}
