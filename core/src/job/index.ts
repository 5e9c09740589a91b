export { benchMinutes } from './benchMinutes.ts';
export { EVENT_VERSION } from './eventVersion.ts';
export {
  type JobEvent,
  type JobEventBody,
  jobEventSchema,
  type JointMark,
  type KitSnapshot,
  kitSnapshotSchema,
  PART_ORIGINS,
  QUANTITIES,
} from './events.ts';
export { DONORS, type Donor } from './donors.ts';
export { type Elsewhere, type PartRecord } from './donorForms.ts';
export { legsCleaned, partRecordOf } from './partRecord.ts';
export { type DeviceKind, FUNCTION_LISTS } from './functionLists.ts';
export {
  firstPower,
  type FirstPower,
  judgeStage,
  OVER_VOLTAGE,
  type PowerSample,
  type PowerStage,
} from './firstPower.ts';
export { type GateResult, type JobFacts } from './gateRule.ts';
export { blocks, HOLDS_CHARGE, judgeGates, openGates } from './gates.ts';
export { closingSteps, screwsOut, type StartUp } from './intake.ts';
export {
  DAMAGE_KINDS,
  type DamageKind,
  DECLINE_REASONS,
  type DeclineReason,
  type Tier,
  type WaitsFor,
} from './intakeForms.ts';
export {
  type Attempt,
  attemptsOf,
  currentAttempt,
  foldJob,
  isFitted,
  isOff,
  type JobState,
  jointStates,
  lastRun,
  type Run,
  RunningJob,
  saidAllWet,
  secondsOf,
  workAt,
  workOn,
} from './jobState.ts';
export { type Heats, heatsOf } from './heats.ts';
export { knownOf, lastStop, symptomsOf } from './knownOf.ts';
export { landIsGood, landKey } from './lands.ts';
export { JOB_TYPE_IDS, JOB_TYPES, type JobType, outcomeWord } from './jobTypes.ts';
export { judgeEvent, type Refusal, type Standing } from './judge.ts';
export { culpritOf, modelHistory, type ModelHistory } from './modelHistory.ts';
export { expectedAttempts, expectedMinutes, priceOf, warrantyTerms, worthOf } from './offer.ts';
export { standsAt } from './progress.ts';
export { isFreshOrder, legAt, orderFor, type SetState } from './set.ts';
export { type SetItem, setItemSchema, type SetLeg, type SetOrdered, type SetSaid } from './setForms.ts';
export { setProgress, type SetPart, type SetProgress } from './setProgress.ts';
export { NEIGHBOUR_STATES, type NeighbourState } from './provingForms.ts';
export { COMPLAINT, pointOf, readingsToRepeat } from './provingRules.ts';
export { copyOf, mayHold, shortSum, type Stored } from './stored.ts';
export { type Holding, HOLDINGS } from './storedForms.ts';
export { type Stop, STOPS } from './stops.ts';
export { judgeStartUp, startUpSentence, type SupplyPoint } from './startUp.ts';
export { type BoardFault, faultsOf, type MinutesOf, type TwoBoardsWay, waysWithTwo } from './twoBoards.ts';
export { asMeasured, otherThickness } from './bareBoard.ts';
