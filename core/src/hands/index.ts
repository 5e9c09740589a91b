export { type Alignment, alignmentOf, type Gap } from './alignment.ts';
export { cautionsFor } from './cautions.ts';
export { LAND_STATES, type LandMark, SLIP_KINDS, type SlipKind, type Step, STEPS } from './forms.ts';
export {
  type HiddenBenchInput,
  hiddenBenchInput,
  type HiddenTruth,
  hiddenTruthSchema,
  playHiddenBench,
} from './hiddenBench.ts';
export { doubtId, saidIn } from './laps.ts';
export { asLaidOut, layOutFor } from './layOut.ts';
export { operationFor } from './operations.ts';
export { landRepair, type LandRepair, type Wire, wireFor } from './landRepair.ts';
export {
  drawnMark,
  groundPlaces,
  judgeOrientation,
  LOOKED_AT,
  LOOKED_WORDS,
  markByGround,
  markPlaces,
  type Orientation,
  orientationSchema,
} from './orientation.ts';
export { keptFor } from './partOff.ts';
export { landsAfter, preparedLands, roundsAfter } from './prepare.ts';
export { COVER_NAMES, isMetal, plannedCovers, surroundingsDone, TAKEN_OUT } from './protection.ts';
export { FOIL_CLEARANCE_MM, foilWindow } from './foilWindow.ts';
export { ANY_SUPPLIES, type Supplies, suppliesOf } from './supplies.ts';
export { SLIPS } from './slips.ts';
export { asDone, doneBefore, freedBefore, lateBy, withAlloy } from './soFar.ts';
export { type Flood, FLOODS, floodSolder, staysLeadFree } from './flood.ts';
export type { Work } from './work.ts';
export { solderSide } from './solderSide.ts';
export { workSide } from './workSide.ts';
