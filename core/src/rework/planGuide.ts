/** A plan's result as the hands need it: when to look, when it is over, which joint is last. */
import { type BoardModel, partName, type PlacedPart } from '../board/index.ts';
import { type PlanRun, wetAt } from './bench/runForm.ts';
import type { Guide } from './handForms.ts';
import { type PlanResult, windowEnd } from './planResult.ts';

/** Times of a run on the clock that hands start with the heat of its last phase: what went before it took them as long as it took. */
export function handsClock({ phases }: Pick<PlanRun, 'phases'>): (s: number | null) => number | null {
  const began = phases?.at(-1)?.from_s ?? 0;
  return (s) => (s === null ? null : Math.max(0, s - began));
}

export function guideOf(result: PlanResult, board: BoardModel): Guide {
  const end = windowEnd(result);
  const onClock = handsClock(result);
  const closer = result.closes && result.closes.at_s === end ? result.closes.partId : undefined;
  const part = board.parts.find((p) => p.partId === closer);
  return {
    joints: result.joints.map((j) => ({ terminal: j.terminal, wet_s: onClock(wetAt(j)) })),
    last: result.last?.terminal ?? null,
    allWet_s: onClock(result.allWet_s),
    allWetFrom_s: onClock(result.allWetRange_s.from),
    allWetTo_s: onClock(result.allWetRange_s.to),
    closes_s: onClock(end),
    closesFrom_s: onClock(result.closesRange_s.from),
    closesTo_s: onClock(result.closesRange_s.to),
    closedBy: closerName(part, end, result),
  };
}

/** Who ends the window; where only a hotter station would, somebody. */
function closerName(part: PlacedPart | undefined, end: number | null, result: PlanResult): string {
  if (part) return partName(part);
  if (end !== null) return 'joints freeze';
  return result.closesRange_s.from === null ? '' : 'a neighbour';
}
