/** The station at hand: how its air and its irons differ from what their dials say. */
import { z } from 'zod';
import { HAND_FACTOR } from '../thermal/index.ts';
import { RANGES, type Range } from './ranges.ts';

const number = ([min, max]: Range) => z.number().min(min).max(max);
const { station } = RANGES;

/** Flow of an unmarked dial at full scale: log-normal, its median, L/min, and what 19 of 20 stay within, as a factor (estimate over hot-air stations). */
export const UNMARKED_DIAL = { full_L_min: 60, within: 2 } as const;

export const stationSchema = z.strictObject({
  /** Part of the set rise that reaches the nozzle, and what it may be off by. */
  efficiency: number(station.efficiency),
  efficiencyPlusMinus: number(station.efficiencyPlusMinus),
  handFactor: number(station.handFactor),
  handFactorPlusMinus: number(station.handFactorPlusMinus),
  /** The air dial bears no L/min: full scale is `UNMARKED_DIAL`, or whatever it really is. */
  air: z.literal('unmarked').optional(),
  /** What the flow may be off by, as a share; of a marked dial. */
  flowPlusMinus: number(station.flowPlusMinus).optional(),
  /** Tip temperature error of an iron, K. */
  ironPlusMinus_K: number(station.ironPlusMinus_K),
  calibrated: z.boolean(),
});
export type StationModel = z.infer<typeof stationSchema>;

/** A station nobody has measured yet. */
export const DEFAULT_STATION: StationModel = {
  efficiency: 0.85,
  efficiencyPlusMinus: 0.05,
  handFactor: HAND_FACTOR,
  handFactorPlusMinus: 0.08,
  ironPlusMinus_K: 15,
  calibrated: false,
};

/** An air flow as the station's dial says it: in L/min, or in percent of a dial that bears none. */
export function dialOf(flow_L_min: number, { air }: Pick<StationModel, 'air'>): { value: number; unit: 'L/min' | '%' } {
  if (air !== 'unmarked') return { value: flow_L_min, unit: 'L/min' };
  return { value: Math.round((100 * flow_L_min) / UNMARKED_DIAL.full_L_min), unit: '%' };
}
