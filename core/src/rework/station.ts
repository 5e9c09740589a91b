/** The station at hand: how its air and its irons differ from what their dials say. */
import { z } from 'zod';
import { HAND_FACTOR } from '../thermal/index.ts';
import { dialsShape } from './dials.ts';
import { RANGES, type Range } from './ranges.ts';

const number = ([min, max]: Range) => z.number().min(min).max(max);
const { station } = RANGES;

export const stationSchema = z.strictObject({
  /** Part of the set rise that reaches the nozzle, and what it may be off by. */
  efficiency: number(station.efficiency),
  efficiencyPlusMinus: number(station.efficiencyPlusMinus),
  handFactor: number(station.handFactor),
  handFactorPlusMinus: number(station.handFactorPlusMinus),
  ...dialsShape,
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
