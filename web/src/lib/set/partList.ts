import type { SetItem } from '@orthos/core/job';

/** A list of parts that is kept for a kind of board. */
export interface PartList {
  id: string;
  name: string;
  items: SetItem[];
}
