/** The calculation registry in a web worker. Cancelling a run means ending the worker (see the pool). */
import { CalcInputError } from '@orthos/core/ground';
import { runCalc } from '@orthos/formats';
import { expose, transfer } from 'comlink';

const api = {
  async run(name: string, input: unknown, progress: (done: number, partial?: unknown) => void): Promise<unknown> {
    try {
      const result = await runCalc(name, input, { now: () => performance.now(), progress });
      const frames = (result as { frames?: { values?: Float32Array } }).frames?.values;
      return frames ? transfer(result as object, [frames.buffer]) : result;
    } catch (error) {
      // Comlink keeps only message and name of an error
      if (error instanceof CalcInputError) throw new Error(error.message);
      throw error;
    }
  },
};
export type CalcWorker = typeof api;
expose(api);
