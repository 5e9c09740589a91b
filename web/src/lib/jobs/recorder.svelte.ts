/** Writing to a job's log from a panel: one event at a time, the problem kept for the page to show. */
import type { JobEventBody } from '@orthos/core/job';
import { recordEvent } from './send';

export class Recorder {
  problem = $state<string | null>(null);
  busy = $state(false);
  private readonly ticketId: string;

  constructor(ticketId: string) {
    this.ticketId = ticketId;
  }

  /** True when the server has it. */
  async record(body: JobEventBody): Promise<boolean> {
    this.busy = true;
    // what is said wrong while this is under way has to stay
    this.problem = null;
    try {
      await recordEvent(this.ticketId, body);
      return true;
    } catch (e) {
      this.problem = (e as Error).message;
      return false;
    } finally {
      this.busy = false;
    }
  }
}
