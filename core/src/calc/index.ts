export { describeCalc } from './describeCalc.ts';
export { type CalcLimits, CALCS, createRegistry, type Registry, runCalc, UnknownCalcError } from './registry.ts';
