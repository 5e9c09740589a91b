/** A plan's result as the hands need it: when to look, when it is over, which joint is last. */
import { type BoardModel, partName, type PlacedPart } from '../board/index.ts';
import type { Guide } from './forms.ts';
import { type AirMethod, type Method, type PlanResult, wetAt, windowEnd } from '../rework/index.ts';

export function guideOf(result: PlanResult, board: BoardModel): Guide {
  const end = windowEnd(result);
  const closer = result.closes && result.closes.at_s === end ? result.closes.partId : undefined;
  const part = board.parts.find((p) => p.partId === closer);
  return {
    joints: result.joints.map((j) => ({ terminal: j.terminal, wet_s: wetAt(j) })),
    last: result.last?.terminal ?? null,
    allWet_s: result.allWet_s,
    allWetFrom_s: result.allWetRange_s.from,
    allWetTo_s: result.allWetRange_s.to,
    closes_s: end,
    closesFrom_s: result.closesRange_s.from,
    closesTo_s: result.closesRange_s.to,
    closedBy: closerName(part, end, result),
  };
}

/** Who ends the window; where only a hotter station would, somebody. */
function closerName(part: PlacedPart | undefined, end: number | null, result: PlanResult): string {
  if (part) return partName(part);
  if (end !== null) return 'joints freeze';
  return result.closesRange_s.from === null ? '' : 'a neighbour';
}

export type WindowPhase = 'early' | 'look' | 'late';

/** Where the clock stands in the window. It never says "lift": only the technician's own "all wet" does. */
export function windowPhase(guide: Guide, elapsed_s: number): WindowPhase {
  const from = guide.allWetFrom_s ?? guide.allWet_s;
  const end = latestSafe(guide);
  if (end !== null && elapsed_s >= end) return 'late';
  return from !== null && elapsed_s >= from ? 'look' : 'early';
}

/** The earliest time at which the window may close, s. */
export function latestSafe(guide: Guide): number | null {
  const ends = [guide.closesFrom_s, guide.closes_s].filter((t) => t !== null);
  return ends.length > 0 ? Math.min(...ends) : null;
}

/** Joints in the order in which they should turn wet; those that never do come last. */
export function meltOrder(guide: Guide): string[] {
  return [...guide.joints].sort((a, b) => (a.wet_s ?? Infinity) - (b.wet_s ?? Infinity)).map((j) => j.terminal);
}

/** What each joint takes, s, where the tool goes from one to the next: from when the joint before it was done. */
export function inTurn(joints: readonly Guide['joints'][number][]): Map<string, number | null> {
  const done = joints.map((j) => j.wet_s).filter((t) => t !== null);
  const before = (t: number) => Math.max(0, ...done.filter((d) => d < t));
  return new Map(joints.map(({ terminal, wet_s }) => [terminal, wet_s === null ? null : wet_s - before(wet_s)]));
}

/** How much further the nozzle stays away when a part goes on, mm: it must not be blown off its lands. */
const FITTING_DISTANCE_MM = 5;

/** The method with which a part is put on; an iron works joint by joint and needs no prediction. */
export function fittingMethod(method: Method): AirMethod | null {
  if (method.kind !== 'air') return null;
  return {
    ...method,
    label: `${method.label}, fitting`.slice(0, 60),
    standoff_mm: Math.min(120, method.standoff_mm + FITTING_DISTANCE_MM),
  };
}
