export { DEFAULT_STATION, defaultAirMethods, type MethodChoice, methodsFor, onDial } from './defaults.ts';
export { BOARD_KINDS, type ExpressAnswers, expressBoard, expressSchema, PLASTICS } from './expressBoard.ts';
export { type Fate, fateOf, HARM_TONE } from './fate.ts';
export { beadOn, reachOf } from './irons.ts';
export { limitOf, limitRowOf, readOwnLimit, type ShopLimits, shopLimitsSchema } from './limitOf.ts';
export {
  type AirMethod,
  dialOf,
  type IronMethod,
  type LowMeltMethod,
  type Method,
  methodSchema,
  type StationModel,
  stationSchema,
  UNMARKED_DIAL,
} from './method.ts';
export {
  type FieldFrames,
  harmOf,
  LIFT_S,
  type PlanInput,
  planInputSchema,
  type PlanRun,
  planRunSchema,
  wetAt,
} from './planForm.ts';
export { planHeat, type PlanResult, planResultSchema, windowEnd } from './planHeat.ts';
export { runPlan } from './planRun.ts';
export { solderOf } from './solderOf.ts';
export { type JointState, MAT, type Surroundings, surroundingsSchema } from './surroundingsForm.ts';
export { uncertainOf } from './uncertainty.ts';
export { type Range, RANGES } from './ranges.ts';
