/** Every public computation by name. All hosts (workers, server threads, command line, HTTP) read this list. */
import { heatBench, heatField } from './heatCalcs.ts';
import { jointVolumeCalc } from './jointCalcs.ts';
import { planBenchCalc, planHeatCalc, planRunCalc } from './planCalcs.ts';
import { CalcInputError, parseInput, type Calc, type CalcContext } from './defineCalc.ts';

// each entry checks its own input at run time, so the list may forget the types
const list = [heatField, heatBench, jointVolumeCalc, planHeatCalc, planRunCalc, planBenchCalc] as unknown as Calc[];

export const CALCS: ReadonlyMap<string, Calc> = new Map(list.map((c) => [c.name, c]));

export class UnknownCalcError extends Error {
  constructor(name: string) {
    super(`No calculation "${name}"; known: ${[...CALCS.keys()].join(', ')}.`);
    this.name = 'UnknownCalcError';
  }
}

export interface CalcLimits {
  /** Seconds of estimated work a host is ready to give. */
  maxCost_s?: number;
}

/**
 * Runs a computation by name on unchecked input. Throws `UnknownCalcError`, `CalcInputError` (fields and
 * what would be accepted) or `CancelledError`; an output with a non-finite number is an internal error.
 */
export async function runCalc(
  name: string,
  input: unknown,
  context: CalcContext,
  limits: CalcLimits = {},
): Promise<unknown> {
  const calc = CALCS.get(name);
  if (!calc) throw new UnknownCalcError(name);
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
}

export {
  CancelledError,
  CalcInputError,
  issuesOf,
  parseInput,
  type CalcContext,
  type CalcIssue,
} from './defineCalc.ts';
