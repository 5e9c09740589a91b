/** One calculation in a server thread: input as workerData, one message back. */
import { parentPort, workerData } from 'node:worker_threads';
import { CalcInputError, type CalcIssue } from '@orthos/core/ground';
import { runCalc } from '@orthos/formats';
import { resultJson } from './json.ts';

export interface ThreadJob {
  name: string;
  input: unknown;
  maxCost_s: number;
}
export type ThreadAnswer =
  | { ok: true; json: string }
  | { ok: false; issues: CalcIssue[] }
  | { ok: false; internal: string };

const job = workerData as ThreadJob;
const post = (answer: ThreadAnswer) => parentPort?.postMessage(answer);
try {
  const result = await runCalc(job.name, job.input, { now: () => performance.now() }, { maxCost_s: job.maxCost_s });
  post({ ok: true, json: resultJson(result) });
} catch (error) {
  if (error instanceof CalcInputError) post({ ok: false, issues: error.issues });
  else post({ ok: false, internal: error instanceof Error ? error.message : String(error) });
}
