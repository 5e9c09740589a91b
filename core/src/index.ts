export * from './alloys/index.ts';
export * from './board/index.ts';
export * from './calc/index.ts';
export * from './circuit/index.ts';
export * from './copper/index.ts';
export * from './diagnosis/index.ts';
export * from './job/index.ts';
export * from './packages/index.ts';
export { LIMITS, lawWords, type LimitRow } from './materials/limits.ts';
export { type Harm, type Law } from './materials/dose.ts';
export { LAMINATE_KINDS, LAMINATES, type Laminate } from './materials/laminate.ts';
export { limitOf, limitRowOf, readOwnLimit, shopLimitsSchema, type ShopLimits } from './rework/limitOf.ts';
export { SOLDER_ALLOYS } from './materials/solder.ts';
export { canonicalJson, contentHash, textHash } from './hash/canonical.ts';
export { compareReading, formatReading, parseReading, UNITS, type Quantity } from './quantities/readings.ts';
export { few } from './quantities/few.ts';
export { formatLength, formatTemperature, parseDecimal, toCelsius, type UnitSettings } from './quantities/units.ts';
export { BOARD_KINDS, expressBoard, expressSchema, PLASTICS, type ExpressAnswers } from './rework/expressBoard.ts';
export { DEFAULT_STATION, methodsFor, onDial, type MethodChoice } from './rework/defaults.ts';
export { dialOf, methodSchema, stationSchema, UNMARKED_DIAL, type Method, type StationModel } from './rework/method.ts';
export { fateOf, HARM_TONE, type Fate } from './rework/fate.ts';
export {
  harmOf,
  LIFT_S,
  planInputSchema,
  wetAt,
  type FieldFrames,
  type PlanInput,
  type PlanRun,
} from './rework/planForm.ts';
export { MAT, surroundingsSchema, type JointState, type Surroundings } from './rework/surroundingsForm.ts';
export { planResultSchema, windowEnd, type PlanResult } from './rework/planHeat.ts';
export { ENGINE_VERSION } from './thermal/engine.ts';
export {
  boardScene,
  partAt,
  terminalAt,
  type Scene,
  type SceneLabel,
  type SceneShape,
  type SceneStyle,
} from './scene/boardScene.ts';
export { schematicGraph, type SchematicGraph, type SchematicNode, type SchematicPort } from './scene/schematic.ts';
export { cautionsFor } from './rework/cautions.ts';
export {
  fittingMethod,
  guideOf,
  inTurn,
  latestSafe,
  meltOrder,
  windowPhase,
  type WindowPhase,
} from './rework/guide.ts';
export type { BenchInput, BenchTruth } from './rework/hiddenBench.ts';
export { layOutFor } from './rework/layOut.ts';
export {
  FLOODS,
  floodSolder,
  staysLeadFree,
  operationFor,
  type Flood,
  type Instruction,
  type Work,
  type Words,
} from './rework/operations.ts';
export { SLIPS } from './rework/slips.ts';
export { solderOf } from './rework/solderOf.ts';
export { workSide } from './rework/workSide.ts';
