/** What a shop floods lands with, and what follows for a board. */
import type { BoardModel } from '../board/index.ts';
import { SOLDER_ALLOYS } from '../alloys/index.ts';

/** What lands are flooded with: leaded solder, or the board's own where it has to stay what it is. */
export const FLOODS = ['leaded', 'own'] as const;
export type Flood = (typeof FLOODS)[number];

/** Whether no lead may come onto a board: it has none, and the shop floods with a board's own solder. */
export const staysLeadFree = ({ jointAlloy }: Pick<BoardModel, 'jointAlloy'>, flood?: Flood): boolean =>
  flood === 'own' && SOLDER_ALLOYS.get(jointAlloy)?.lead === false;

/** What lands are flooded with, as it is called at the bench. */
export const floodSolder = ({ jointAlloy }: Pick<BoardModel, 'jointAlloy'>, flood: Flood = 'leaded'): string =>
  flood === 'own' ? `fresh ${jointAlloy}` : 'leaded solder';
