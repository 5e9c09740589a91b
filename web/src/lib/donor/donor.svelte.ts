/** The board that a job's parts come from: named, looked at, listened to; and what is brought over. */
import type { DonorChoice, DonorView } from '$lib/jobs/donorView';
import { listenTo } from '$lib/jobs/listen';
import { reloadView, send } from '$lib/jobs/send';
import type { SetItem } from '@orthos/core/job';

export interface Wanted {
  /** Here, and on the other board. */
  partId: string;
  from: string;
  place?: true;
}

export class Donor {
  view = $state.raw<DonorView | null>(null);
  choices = $state.raw<DonorChoice[]>([]);
  problem = $state<string | null>(null);
  busy = $state(false);
  private readonly ticketId: string;
  private deaf: (() => void) | undefined;
  private heard: string | undefined;
  private ended = false;

  constructor(ticketId: string) {
    this.ticketId = ticketId;
    void this.look();
  }

  /** Reads what the other board is and where it stands. */
  async look(): Promise<void> {
    try {
      const { donor, choices } = (await send('GET', `/api/jobs/${this.ticketId}/donor`)) as {
        donor: DonorView | null;
        choices: DonorChoice[];
      };
      [this.view, this.choices] = [donor, choices];
      this.listen(donor?.id);
    } catch (e) {
      this.problem = (e as Error).message;
    }
  }

  /** What is written to its log, by whomever, is seen here. */
  private listen(id: string | undefined): void {
    if (this.heard === id || this.ended) return;
    this.deaf?.();
    this.heard = id;
    const knows = (what: string) => this.view?.events.some((e) => e.id === what) ?? false;
    this.deaf = id === undefined ? undefined : listenTo(id, knows, () => this.look());
  }

  end(): void {
    this.ended = true;
    this.deaf?.();
    this.deaf = undefined;
  }

  name(from: string | null): Promise<boolean> {
    return this.write(() => send('PUT', `/api/jobs/${this.ticketId}/donor`, { from }));
  }
  shelve(serial: string): Promise<boolean> {
    return this.write(() => send('PUT', `/api/jobs/${this.ticketId}/donor`, { shelf: { serial } }));
  }
  /** `owed`: it is a good board, and gets its parts back. */
  bring(items: readonly Wanted[], owed: { until?: string } | null): Promise<boolean> {
    const from = this.view?.id;
    return this.write(() =>
      send('POST', `/api/jobs/${this.ticketId}/brought`, { from, items, ...(owed ? { owed } : {}) }),
    );
  }
  leave(partIds: readonly string[]): Promise<boolean> {
    return this.write(() => send('DELETE', `/api/jobs/${this.ticketId}/brought`, { partIds }));
  }
  /** The other way round: parts of this board go onto that one. */
  async turnRound(parts: readonly string[]): Promise<boolean> {
    const other = this.view?.id;
    if (other === undefined) return false;
    const items = parts.map((partId): Wanted => ({ partId, from: partId }));
    return this.write(async () => {
      await send('PUT', `/api/jobs/${other}/donor`, { from: this.ticketId });
      if (items.length > 0) await send('POST', `/api/jobs/${other}/brought`, { from: this.ticketId, items });
    });
  }

  private async write(work: () => Promise<unknown>): Promise<boolean> {
    this.busy = true;
    this.problem = null;
    try {
      await work();
      return true;
    } catch (e) {
      this.problem = (e as Error).message;
      return false;
    } finally {
      // also what got half of the way is shown as it is
      await Promise.all([this.look(), reloadView()]);
      this.busy = false;
    }
  }
}

/** What of a set comes from another board. */
export const broughtOf = (items: readonly SetItem[], donorId: string | undefined): SetItem[] =>
  items.filter((i) => i.from !== undefined && i.from.ticketId === donorId);
