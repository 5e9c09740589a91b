export { BOARD_KINDS, type ExpressAnswers, expressBoard, expressSchema, PLASTICS } from './expressBoard.ts';
export { type Fate, fateOf, HARM_TONE } from './fate.ts';
export { inTurn, latestSafe, meltOrder, windowPhase, type WindowPhase } from './guide.ts';
export {
  type Guide,
  guideSchema,
  landsCleanSchema,
  type LayOut,
  type Mark,
  MARKS,
  type Operation,
  OPERATIONS,
  PART_FATES,
  type PartFate,
  type PartOff,
  partOffSchema,
  scannedSchema,
  type SetPoint,
} from './handForms.ts';
export { type ReworkCase } from './bench/caseForm.ts';
export { asFineAsNeeded } from './bench/finer.ts';
export { ReworkRun } from './bench/reworkRun.ts';
export type { RunState } from './bench/runState.ts';
export { WholeBoard } from './bench/wholeBoard.ts';
export { stintsOf } from './stints.ts';
export { limitOf, limitRowOf, readOwnLimit, type ShopLimits, shopLimitsSchema } from './bench/limitOf.ts';
export { type FieldFrames, type PlanRun, planRunSchema } from './bench/runForm.ts';
export { harmOf, LIFT_S, wetAt } from './bench/runTimes.ts';
export { COVER_KINDS, coverSchema } from './bench/coverForm.ts';
export { MAT } from './bench/around.ts';
export { type JointState, type Surroundings, surroundingsSchema } from './bench/surroundingsForm.ts';
export { type AtHand, type OnOrOff, methodsFor, methodsOn, recipeOf, wantsOf } from './methods/choose.ts';
export { isDoable, type MethodChoice } from './methods/choice.ts';
export { has, isLowMelting, type Kit, type Want, wiresFor } from './kit.ts';
export { BENCHES, type BenchKind, type KitTool, USUAL } from './benches.ts';
export { type KitItem, kitItemSchema, kitSchema } from './kitForm.ts';
export { METHOD_NAMES, methodName } from './methods/names.ts';
export { pieceOn, warmBoard } from './methods/usual.ts';
export { givenMethodSchema, givenOf, idOfLabel, methodOfGiven } from './methods/given.ts';
export { mainPhase, type Method, methodIdSchema, methodSchema, phaseOf } from './methods/method.ts';
export type { Brought, Caution, Field, Form } from './phases/declaration.ts';
export { formOf } from './phases/forms.ts';
export { kindOf } from './phases/index.ts';
export { KIND_NAMES, LONGEST_S, MOST_PHASES, type Phase, phasesSchema } from './phases/schema.ts';
export { wordsOf } from './words.ts';
export { COUNT, type Instruction, someJoints, type Words, wordsAt, type Workplace } from './phases/instruction.ts';
export { reachOf, rowsOf, sideOf } from './phases/rows.ts';
export { type PlanInput, planInputSchema, planOfSaid, planSaid } from './planForm.ts';
export { guideOf, handsClock, turnsOf } from './planGuide.ts';
export { effectsOf } from './design.ts';
export { type Ensemble, ensembleOf, partOf, rateOf, timeOf } from './ensemble.ts';
export {
  BOARD_HOLD_S,
  COVER_S,
  FLUX_S,
  LOOK_JOINT_S,
  ORIENT_S,
  PACES,
  placing_s,
  TIN_S,
  ROUND_S,
  SET_UP,
  STUCK,
  TASK_SPREAD,
  WASH_S,
} from './handTimes.ts';
export { planEnsemble, planHeat } from './planHeat.ts';
export { type PlanResult, planResultSchema, windowEnd } from './planResult.ts';
export { runPlan } from './planRun.ts';
export { helpersFor, type RunAsked, runAsked, type RunsAbout } from './runAsked.ts';
export { caseOf, reworkInput, reworkOutput, type ReworkPlace, reworkPlaceSchema, tellRework } from './procedure.ts';
export { RANGES } from './ranges.ts';
export { stuckShare } from './phases/vacuum/stuck.ts';
export { type AlloyLaid, alloyLaid } from './alloyLaid.ts';
export { bringsLead, broughtBy } from './brought.ts';
export { solderOf } from './solderOf.ts';
export { FILM, LEADED } from './solders.ts';
export { DEFAULT_STATION, type StationModel, stationSchema } from './station.ts';
export {
  type Dialled,
  type Dials,
  dialOf,
  flowAt,
  fullScale,
  heatAt,
  type HeatDial,
  heatOnDial,
  type Panel,
  readHeatDial,
  setText,
  writeHeatDial,
} from './dials.ts';
export { type OwnWind, ownWind } from './ownWind.ts';
export { uncertainOf } from './uncertainty.ts';
