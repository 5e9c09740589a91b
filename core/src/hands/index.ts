export { cautionsFor } from './cautions.ts';
export {
  type Guide,
  guideSchema,
  landsCleanSchema,
  type LayOut,
  type Mark,
  MARKS,
  type Operation,
  OPERATIONS,
  scannedSchema,
  SLIP_KINDS,
  type SlipKind,
  type Step,
  STEPS,
} from './forms.ts';
export { fittingMethod, guideOf, inTurn, latestSafe, meltOrder, windowPhase, type WindowPhase } from './guide.ts';
export { type BenchInput, benchInputSchema, type BenchTruth, benchTruthSchema, playBench } from './hiddenBench.ts';
export { layOutFor } from './layOut.ts';
export {
  type Flood,
  FLOODS,
  floodSolder,
  type Instruction,
  operationFor,
  staysLeadFree,
  type Words,
  type Work,
} from './operations.ts';
export { SLIPS } from './slips.ts';
export { workSide } from './workSide.ts';
