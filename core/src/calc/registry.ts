/** Public computations by name. Hosts (workers, server threads, command line, HTTP) read the list of `formats`, which adds to this one. */
import { alloyAmountCalc, alloyCleanUpCalc, alloyMixCalc, alloyPropertiesCalc } from './alloyCalcs.ts';
import {
  planAroundCalc,
  planCompareCalc,
  planFitCalc,
  planMethodsCalc,
  planRescueCalc,
  planSearchCalc,
  planTuneCalc,
  planWayOutCalc,
} from './compareCalcs.ts';
import { circuitSolve } from './circuitCalcs.ts';
import { diagnoseLocate, diagnoseNext, diagnoseRank } from './diagnoseCalcs.ts';
import { blowAwayCalc, heatYardstick, heatField, jetProfileCalc } from './heatCalcs.ts';
import { jointVolumeCalc } from './jointCalcs.ts';
import { heatSimulateCalc, planBenchCalc, planHeatCalc } from './planCalcs.ts';
import { heatReworkCalc } from './reworkCalcs.ts';
import { setOrderCalc } from './setCalcs.ts';
import { type Calc, type CalcContext, CalcInputError, parseInput } from '../ground/index.ts';

export class UnknownCalcError extends Error {
  constructor(name: string, known: readonly string[]) {
    super(`No calculation "${name}"; known: ${known.join(', ')}.`);
    this.name = 'UnknownCalcError';
  }
}

export interface CalcLimits {
  /** Seconds of estimated work a host is ready to give. */
  maxCost_s?: number;
}

export interface Registry {
  CALCS: ReadonlyMap<string, Calc>;
  /**
   * Runs a computation by name on unchecked input. Throws `UnknownCalcError`, `CalcInputError` (fields and
   * what would be accepted) or `CancelledError`; an output with a non-finite number is an internal error.
   */
  runCalc(name: string, input: unknown, context: CalcContext, limits?: CalcLimits): Promise<unknown>;
}

/** A registry of the given computations; a floor above core adds its own to core's list. */
export function createRegistry(calcs: readonly Calc[]): Registry {
  const known: ReadonlyMap<string, Calc> = new Map(calcs.map((c) => [c.name, c]));
  return {
    CALCS: known,
    async runCalc(name, input, context, limits = {}) {
      const calc = known.get(name);
      if (!calc) throw new UnknownCalcError(name, [...known.keys()]);
      const parsed = parseInput(calc.input, input);
      const cost = calc.cost?.(parsed) ?? 0;
      if (limits.maxCost_s !== undefined && cost > limits.maxCost_s)
        throw new CalcInputError([
          {
            field: '',
            message: `would take about ${cost.toFixed(0)} s, the limit here is ${limits.maxCost_s} s: fewer cells, a shorter time or a larger dt_max`,
          },
        ]);
      const output = calc.output.safeParse(await calc.run(parsed, context));
      if (!output.success)
        throw new Error(
          `${name} produced a bad result: ${output.error.issues[0].path.join('.')} ${output.error.issues[0].message}`,
        );
      return output.data;
    },
  };
}

// each entry checks its own input at run time, so the list may forget the types
const list = [
  heatField,
  heatYardstick,
  jetProfileCalc,
  blowAwayCalc,
  jointVolumeCalc,
  alloyPropertiesCalc,
  alloyMixCalc,
  alloyAmountCalc,
  alloyCleanUpCalc,
  heatSimulateCalc,
  planHeatCalc,
  heatReworkCalc,
  planBenchCalc,
  planMethodsCalc,
  planCompareCalc,
  planFitCalc,
  planSearchCalc,
  planTuneCalc,
  planAroundCalc,
  planRescueCalc,
  planWayOutCalc,
  setOrderCalc,
  circuitSolve,
  diagnoseRank,
  diagnoseNext,
  diagnoseLocate,
] as unknown as Calc[];

/** What core itself computes. */
const core = createRegistry(list);
export const CALCS = core.CALCS;
export const runCalc = core.runCalc;
