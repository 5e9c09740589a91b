/** The side of the board that hands and eyes are on. */
import type { PlacedPart, Side } from '../board/index.ts';
import { kindOf, mainPhase, type Method, reachOf } from '../rework/index.ts';

/** Parts whose joints are all pins are worked on from their solder side, except by what works from above; all others from where they stand. */
export function workSide(part: PlacedPart, method?: Pick<Method, 'phases'>): Side {
  if ((method && kindOf(mainPhase(method)).fromAbove) || !reachOf(part.package).pins) return part.side;
  return part.side === 'top' ? 'bottom' : 'top';
}
