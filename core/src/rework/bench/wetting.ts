/**
 * When molten is not yet wet. Fresh alloy on an old joint, and metal that is corroded, take a time that falls with the heat above the
 * liquidus; progress adds up while the joint is molten. As a guide: wetting tests ask for a second or two some 30 to 50 K above
 * the liquidus on clean metal with flux. The halving is an estimate.
 */

/** Time to wet at this much above the liquidus, s, and what halves it, K; it never takes less than the least: it has to flow. */
const [AT_K, TIME_S, HALVES_K, LEAST_S] = [40, 1, 20, 1];
/** Corroded metal takes as many times longer, metal under leaked electrolyte longer still. */
const LONGER: Record<Metal, number> = { sound: 1, corroded: 4, leaking: 12 };

/** What leaked or stood in the damp has made of a joint's metal. */
export type Metal = 'sound' | 'corroded' | 'leaking';

/** Wetting time at a temperature above the liquidus, s. */
export function wettingTime_s(above_K: number, metal: Metal): number {
  return LONGER[metal] * Math.max(LEAST_S, TIME_S * 2 ** ((AT_K - above_K) / HALVES_K));
}
