/** The side of the board that hands and eyes are on. */
import type { PlacedPart, Side } from '../board/index.ts';
import { kindOf, type Operation, type Phase } from '../rework/index.ts';
import { solderSide } from './solderSide.ts';

/** Parts whose joints are all pins are worked on from their solder side, except while something takes them off from above. */
export function workSide(part: PlacedPart, op: Operation, phases: readonly Phase[] = []): Side {
  const last = phases.at(-1);
  return op === 'remove' && last && kindOf(last).fromAbove ? part.side : solderSide(part);
}
