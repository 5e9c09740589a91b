export { type SetInput, setInput, type SetOrder, setOutput } from './forms.ts';
export { FATES, type Fate, mustLive, type Op, opsIn, type Stage, STAGES } from './fates.ts';
export { type Asked, orderSet, SetPlan } from './setPlan.ts';
