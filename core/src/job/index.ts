export { jobEventSchema, QUANTITIES, type JobEvent, type JobEventBody, type Measured, type Place } from './events.ts';
export { currentAttempt, foldJob, type Attempt, type JobState } from './jobState.ts';
export { blocks, judgeGates, stepAt, STEPS, type GateResult, type JobFacts, type Step } from './gates.ts';
