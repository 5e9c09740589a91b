/** The page's calculations in web workers: as many as there are processors but one, and two where there are two: the page itself has little to do meanwhile. */
import { proxy, wrap } from 'comlink';
import type { CalcWorker } from '../../workers/calc.worker';
import CalcWorkerScript from '../../workers/calc.worker?worker';
import { Lender } from './lend';
import { Pool, type Task } from './workers';

const workersFor = (processors: number): number => Math.max(Math.min(2, processors), processors - 1);

const pool = new Pool(() => workersFor(navigator.hardwareConcurrency || 2), {
  make() {
    const worker = new CalcWorkerScript();
    return { worker, api: wrap<CalcWorker>(worker) };
  },
});

/** Runs the calculation `name`, with the help of workers that are idle; rejects with an AbortError when `signal` fires. */
export async function runInPool<T>(name: string, input: unknown, { signal, onProgress }: Task): Promise<T> {
  const lender = new Lender(pool, signal);
  const progress = proxy((d: number, p?: unknown) => onProgress?.(d, p));
  const idle = proxy(async (about: unknown) => {
    const helper = await lender.idle(about);
    return helper && proxy(helper);
  });
  try {
    return await pool.run(({ api }) => api.run(name, input, progress, idle) as Promise<T>, signal);
  } finally {
    lender.end();
  }
}
