/** Fault dictionary and ranking off the main thread; the dictionary is kept between readings. */
import { NetlistError } from '@orthos/core/circuit';
import { diagnose, diagnoseInput, type Diagnosis } from '@orthos/core/diagnosis';
import { parseInput } from '@orthos/core/ground';
import { expose } from 'comlink';

const api = {
  /** Ranks; rejects with a sentence for a circuit that does not hang together. */
  diagnose(input: unknown, progress: (done: number) => void): Diagnosis {
    try {
      return diagnose(parseInput(diagnoseInput, input), { progress });
    } catch (error) {
      if (error instanceof NetlistError) throw new Error(error.message);
      throw error;
    }
  },
};
export type DiagnoseWorker = typeof api;
expose(api);
