export {
  guideSchema,
  jobEventSchema,
  OPERATIONS,
  PART_ORIGINS,
  QUANTITIES,
  SLIP_KINDS,
  type Guide,
  type JobEvent,
  type JobEventBody,
  type JointMark,
  type LandMark,
  type Mark,
  type Operation,
  type SlipKind,
} from './events.ts';
export {
  OPENING_KINDS,
  SOURCE_KINDS,
  type Measured,
  type OpeningKind,
  type Place,
  type SourceKind,
} from './eventForms.ts';
export { FUNCTION_LISTS, type DeviceKind } from './functionLists.ts';
export {
  closingSteps,
  DAMAGE_KINDS,
  DECLINE_REASONS,
  screwsOut,
  type DamageKind,
  type DeclineReason,
  type StartUp,
  type Tier,
} from './intake.ts';
export { JOB_TYPE_IDS, JOB_TYPES, outcomeWord, type JobType } from './jobTypes.ts';
export { modelHistory, type ModelHistory } from './modelHistory.ts';
export { expectedAttempts, expectedMinutes, priceOf, warrantyTerms, worthOf } from './offer.ts';
export { judgeStartUp, startUpSentence, type SupplyPoint } from './startUp.ts';
export {
  currentAttempt,
  foldJob,
  isFitted,
  isOff,
  lastRun,
  RunningJob,
  saidAllWet,
  secondsOf,
  type Attempt,
  type JobState,
  type Run,
} from './jobState.ts';
export {
  blocks,
  COMPLAINT,
  HOLDS_CHARGE,
  judgeGates,
  openGates,
  pointOf,
  readingsToRepeat,
  STEPS,
  type GateResult,
  type JobFacts,
  type LayOut,
  type Step,
} from './gates.ts';
export { judgeEvent, type Refusal, type Standing } from './judge.ts';
export { benchMinutes } from './benchMinutes.ts';
export { standsAt } from './progress.ts';
export { judgeShort, voltsOf } from './shortCheck.ts';
