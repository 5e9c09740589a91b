/** The calculation registry in a web worker. Cancelling a run means ending the worker (see the pool). */
import { CalcInputError, type Helper } from '@orthos/core/ground';
import { type PlanRun, type RunAsked, runAsked, type RunsAbout } from '@orthos/core/rework';
import { runCalc } from '@orthos/formats';
import { expose, transfer } from 'comlink';

/** Lets messages in, a helper's answers say: a message to itself comes after those that are there. */
const { port1, port2 } = new MessageChannel();
const breathing: (() => void)[] = [];
port1.onmessage = () => breathing.shift()?.();
const breathe = () =>
  new Promise<void>((done) => {
    breathing.push(done);
    port2.postMessage(null);
  });
const now = () => performance.now();

/** What this worker is a helper for. */
let helpsWith: RunsAbout | undefined;

const api = {
  async run(
    name: string,
    input: unknown,
    progress: (done: number, partial?: unknown) => void,
    idle: (input: unknown) => Promise<Helper | undefined>,
  ): Promise<unknown> {
    try {
      const result = await runCalc(name, input, { now, progress, breathe, idle });
      const frames = (result as { frames?: { values?: Float32Array } }).frames?.values;
      return frames ? transfer(result as object, [frames.buffer]) : result;
    } catch (error) {
      // Comlink keeps only message and name of an error
      if (error instanceof CalcInputError) throw new Error(error.message);
      throw error;
    }
  },
  /** What is asked about from now on. */
  about(runs: RunsAbout): void {
    helpsWith = runs;
  },
  answer(asked: RunAsked): Promise<PlanRun> {
    if (!helpsWith) throw new Error('Nobody said what it is about.');
    return runAsked(helpsWith, asked, { now });
  },
};
export type CalcWorker = typeof api;
expose(api);
