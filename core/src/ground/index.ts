export {
  type Calc,
  type CalcContext,
  CalcInputError,
  type CalcIssue,
  CancelledError,
  defineCalc,
  issuesOf,
  parseInput,
} from './calc.ts';
export { canonicalJson, checksumOf, contentHash, textHash } from './canonical.ts';
export { Ahead } from './ahead.ts';
export { type Helper, inShares } from './shares.ts';
export { STEFAN_BOLTZMANN, ZERO_CELSIUS_K } from './constants.ts';
export { few } from './few.ts';
export { invert, invertTridiagonal } from './numerics/dense.ts';
export { normalCdf } from './numerics/normal.ts';
export { randomOf } from './numerics/random.ts';
export { covers, factorLu, type LuPlan, planLu, solveDense, solveLu } from './numerics/sparseLu.ts';
export { type Elimination, factorSparse, planElimination, solveSparse } from './numerics/sparseSolve.ts';
export { type Place, placeSchema } from './place.ts';
export {
  compareReading,
  formatReading,
  formatValue,
  type Measured,
  measuredSchema,
  parseReading,
  type Quantity,
  UNITS,
} from './readings.ts';
export { formatGap, formatLength, formatTemperature, parseDecimal, toCelsius, type UnitSettings } from './units.ts';
