/** What is read from a run that was told. */
import { type Harm, harmBy } from '../../materials/index.ts';
import type { PlanRun } from './runForm.ts';

/** From "all wet" until the part is off, s (estimate). */
export const LIFT_S = 3;

/** When a joint lets go, s; null when it never does. */
export const wetAt = (j: PlanRun['joints'][number]): number | null => (j.wet_s === undefined ? j.liquidus_s : j.wet_s);

/** Harm to a neighbour until the part is off; plans of older engines knew a peak alone. */
export function harmOf(n: PlanRun['neighbours'][number]): { says: Harm; margin_K: number | null } {
  if (n.says !== undefined) return { says: n.says, margin_K: n.margin_K ?? null };
  const margin_K = n.limit_C === null ? null : n.limit_C - n.atWet_C;
  return { says: margin_K === null ? 'clear' : harmBy(margin_K, n.limitPlusMinus_C, false), margin_K };
}
