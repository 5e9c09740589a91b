import { env } from '$env/dynamic/private';
import type { CalcIssue } from '@orthos/core';
import { resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { ThreadAnswer, ThreadJob } from '../../../hosts/thread';

const MAX_SECONDS = 10;
const MAX_AT_ONCE = 2;
let running = 0;

export type CalcAnswer =
  { kind: 'done'; json: string } | { kind: 'refused'; issues: CalcIssue[] } | { kind: 'busy' } | { kind: 'too-long' };

/** Runs one calculation in a thread of its own, so that the server keeps answering. */
export async function calcInThread(name: string, input: unknown, signal: AbortSignal): Promise<CalcAnswer> {
  if (running >= MAX_AT_ONCE) return { kind: 'busy' };
  running++;
  try {
    const job: ThreadJob = { name, input, maxCost_s: MAX_SECONDS };
    return await inThread(job, signal);
  } finally {
    running--;
  }
}

function inThread(job: ThreadJob, signal: AbortSignal): Promise<CalcAnswer> {
  const file = resolve(env.ORTHOS_HOSTS ?? 'build-hosts', 'thread.mjs');
  const worker = new Worker(file, { workerData: job, resourceLimits: { maxOldGenerationSizeMb: 1024 } });
  return new Promise<CalcAnswer>((done, fail) => {
    const stop = () => done({ kind: 'too-long' });
    const timer = setTimeout(stop, MAX_SECONDS * 1000);
    signal.addEventListener('abort', stop, { once: true });
    worker.once('message', (answer: ThreadAnswer) => {
      if (answer.ok) done({ kind: 'done', json: answer.json });
      else if ('issues' in answer) done({ kind: 'refused', issues: answer.issues });
      else fail(new Error(answer.internal));
    });
    worker.once('error', fail);
    worker.once('exit', (code) => fail(new Error(`the calculation thread ended with ${code}`)));
    void Promise.resolve().then(() => signal.aborted && stop());
    worker.once('message', () => clearTimeout(timer));
    worker.once('exit', () => clearTimeout(timer));
  }).finally(() => void worker.terminate());
}
