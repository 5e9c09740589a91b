/** Lists of parts that are kept for a kind of board. */
import { send } from '$lib/jobs/send';
import type { SetItem } from '@orthos/core/job';
import { v7 } from 'uuid';
import type { PartList } from './partList';

export class Lists {
  all = $state.raw<PartList[]>([]);
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
  async keep(name: string, items: readonly SetItem[]): Promise<boolean> {
    this.problem = null;
    try {
      await send('POST', this.url, { id: v7(), name, items });
      await this.read();
      return true;
    } catch (e) {
      this.problem = (e as Error).message;
      return false;
    }
  }
}
