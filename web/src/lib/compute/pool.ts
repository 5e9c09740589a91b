/** The page's calculations in web workers: as many as there are processors but one, and two where there are two: the page itself has little to do meanwhile. */
import { proxy, wrap } from 'comlink';
import type { CalcWorker } from '../../workers/calc.worker';
import CalcWorkerScript from '../../workers/calc.worker?worker';
import { Pool, type Task } from './workers';

const workersFor = (processors: number): number => Math.max(Math.min(2, processors), processors - 1);

const pool = new Pool(() => workersFor(navigator.hardwareConcurrency || 2), {
  make() {
    const worker = new CalcWorkerScript();
    return { worker, api: wrap<CalcWorker>(worker) };
  },
});

/** Runs the calculation `name`; rejects with an AbortError when `signal` fires. */
export const runInPool = <T>(name: string, input: unknown, { signal, onProgress }: Task): Promise<T> =>
  pool.run(
    ({ api }) =>
      api.run(
        name,
        input,
        proxy((d: number, p?: unknown) => onProgress?.(d, p)),
      ) as Promise<T>,
    signal,
  );
