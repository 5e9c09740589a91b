/** The side of the board that hands and eyes are on. */
import type { PlacedPart, Side } from '../board/index.ts';
import { kindOf, mainPhase, type Method } from '../rework/index.ts';
import { solderSide } from './solderSide.ts';

/** Parts whose joints are all pins are worked on from their solder side, except by what works from above. */
export const workSide = (part: PlacedPart, method?: Pick<Method, 'phases'>): Side =>
  method && kindOf(mainPhase(method)).fromAbove ? part.side : solderSide(part);
