export { besideOf } from './beside.ts';
export {
  classOfPart,
  isGroundNet,
  isPolarised,
  rankByComparison,
  unplugFirst,
  type Compared,
  type ComparedSuspect,
} from './compare.ts';
export { diagnose, diagnoseInput, diagnoseOutput, type DiagnoseInput, type Diagnosis } from './diagnose.ts';
export { testsOf, type Test } from './dictionary.ts';
export type { Beside } from './hypotheses.ts';
export { fitsNowhere, injectionWarmth, locateInput, locateShort, type LocateInput, type Located } from './locate.ts';
export {
  classOf,
  CLASSES,
  EVENTS,
  NONE,
  SIGNS,
  SWAPS,
  type BoardEvent,
  type PartClass,
  type Sign,
  type Swap,
  type Weights,
} from './priors.ts';
export { overNominal } from './power.ts';
export { SOFTWARE } from './rank.ts';
export { referenceOf, type Reference } from './reference.ts';
export { worthOnRail } from './onRail.ts';
export { probeWalk } from './walk.ts';
export { offBoardVerdict, recipeFor } from './offBoard.ts';
export { meetsRoutine, routineStepSchema, type RoutineStep } from './routine.ts';
export { companionsOf } from './companions.ts';
export { copperBetween, copperOfNet } from './railCopper.ts';
