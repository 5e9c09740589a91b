/** Writing to a job's log from a panel: one event at a time, the problem kept for the page to show. */
import type { JobEventBody } from '@orthos/core';
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
    try {
      await recordEvent(this.ticketId, body);
      this.problem = null;
      return true;
    } catch (e) {
      this.problem = (e as Error).message;
      return false;
    } finally {
      this.busy = false;
    }
  }
}
