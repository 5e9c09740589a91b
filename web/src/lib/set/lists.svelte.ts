/** Lists of parts that are kept for a kind of board. */
import { send } from '$lib/jobs/send';
import type { SetItem } from '@orthos/core/job';
import { v7 } from 'uuid';
import type { PartList } from './partList';

export class Lists {
  all = $state.raw<PartList[]>([]);
  /** Forgotten last, so that it can be had back. */
  forgotten = $state.raw<PartList | null>(null);
  problem = $state<string | null>(null);
  private readonly url: string;

  constructor(modelId: string) {
    this.url = `/api/boards/${modelId}/part-lists`;
    void this.read();
  }

  private async read(): Promise<void> {
    try {
      this.all = (await send('GET', this.url)) as PartList[];
    } catch (e) {
      this.problem = (e as Error).message;
    }
  }

  /** Keeps a list under a name; what was kept under it before goes. True when the server has it. */
  keep(name: string, items: readonly SetItem[]): Promise<boolean> {
    // which board a part goes to or comes from, and what is not here yet, is this job's alone
    const kept = items.map(({ from: _, to: __, missing: ___, ...item }) => item);
    return this.write(() => send('POST', this.url, { id: v7(), name, items: kept }));
  }

  async forget(list: PartList): Promise<void> {
    await this.write(async () => {
      await send('DELETE', `${this.url}?list=${list.id}`);
      // said before the lists are read again: there may be none left, and the way back stands beside them
      this.forgotten = list;
    });
  }
  /** The list that was forgotten last is there again. */
  async keepAfterAll(): Promise<void> {
    const list = this.forgotten;
    if (list && (await this.keep(list.name, list.items))) this.forgotten = null;
  }

  private async write(work: () => Promise<unknown>): Promise<boolean> {
    this.problem = null;
    try {
      await work();
      await this.read();
      return true;
    } catch (e) {
      this.problem = (e as Error).message;
      return false;
    }
  }
}
