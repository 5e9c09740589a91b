export { besideOf } from './beside.ts';
export { companionsOf } from './companions.ts';
export { type Compared, type ComparedSuspect, rankByComparison, unplugFirst } from './compare.ts';
export { diagnose } from './diagnose.ts';
export {
  diagnoseInput,
  type DiagnoseInput,
  diagnoseOutput,
  type Diagnosis,
  nextInput,
  nextOutput,
} from './diagnoseForm.ts';
export { type Test, testsOf } from './dictionary.ts';
export type { Beside } from './hypotheses.ts';
export {
  fitsNowhere,
  injectionWarmth,
  type Located,
  locateInput,
  type LocateInput,
  locateOutput,
  locateShort,
} from './locate.ts';
export { offBoardVerdict, recipeFor } from './offBoard.ts';
export { type Expected, expectNew, isAsExpected, noWorseThan } from './newPart.ts';
export { worthOnRail } from './onRail.ts';
export { overNominal } from './power.ts';
export { type BoardEvent, EVENTS, NONE, type Sign, SIGNS, type Swap, SWAPS, WEIGHTS, type Weights } from './priors.ts';
export { copperBetween, copperOfNet } from './railCopper.ts';
export { SOFTWARE } from './rank.ts';
export { type Reference, referenceOf } from './reference.ts';
export { meetsRoutine, type RoutineStep, routineStepSchema } from './routine.ts';
export { judgeShort } from './shortCheck.ts';
export { probeWalk } from './walk.ts';
