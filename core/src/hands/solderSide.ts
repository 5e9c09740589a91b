/** The side of the board on which a part's joints are seen. */
import type { PlacedPart, Side } from '../board/index.ts';
import { reachOf } from '../rework/index.ts';

/** Of parts whose joints are all pins the side away from them; of all others the side they stand on. */
export function solderSide(part: PlacedPart): Side {
  if (!reachOf(part.package).pins) return part.side;
  return part.side === 'top' ? 'bottom' : 'top';
}
