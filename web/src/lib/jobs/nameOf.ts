/** What a part is called on its board; its id where the board has lost it. */
import { type BoardModel, partName } from '@orthos/core/board';

export function nameOf(board: BoardModel, partId: string): string {
  const part = board.parts.find((p) => p.partId === partId);
  return part ? partName(part) : partId;
}
