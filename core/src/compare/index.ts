export { compareMethods, glanceAtWays, listMethods } from './compare.ts';
export { beforeOff_s, beforeOn_s, clean_s, look_s, type Tool, toolsOf } from './minutes.ts';
export { EVEN, inTheEnd, weighed } from './order.ts';
export { compareFits, fitRowOf } from './fit.ts';
export { type Free, freeOn, hotter } from './free.ts';
export {
  searchInput,
  searchOutput,
  searchSettings,
  type Tuned,
  type TunedSoFar,
  tuneInput,
  tuneOutput,
  tuneSettings,
} from './search.ts';
export { type Around, aroundInput, aroundOutput, rowsAround } from './around.ts';
export { type ApproachTool, type Hold, holdFor, type Hour, hourOf, HOURS_DEG, hoursFor, LEAN_DEG } from './approach.ts';
export { type Along, type Near, nearOf, nearRow } from './near.ts';
export { type Change, coversOf } from './changes.ts';
export { rescue, rescueInput, rescueOutput, rescuePlan, rescuePlanInput, type Rescue, type Way } from './rescue.ts';
export { type Planned, plannedInput, plannedSchema, planWay } from './planned.ts';
export {
  compareInput,
  compareOutput,
  type CompareInput,
  type Comparison,
  fitInput,
  type FitInput,
  fitOutput,
  type FitRow,
  fitRowSchema,
  type Fitting,
  methodsInput,
  methodsOutput,
  type Row,
  type Spread,
  type Weights,
  weightsSchema,
} from './forms.ts';
