/** Reading a prediction while hands work: where the clock stands in the window, which joint turns next. */
import type { Guide } from './handForms.ts';

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
