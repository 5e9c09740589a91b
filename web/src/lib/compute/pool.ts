/**
 * Calculations in web workers: as many as there are processors but one. A cancelled run ends its
 * worker; the next run gets a fresh one.
 */
import { proxy, wrap, type Remote } from 'comlink';
import type { CalcWorker } from '../../workers/calc.worker';
import CalcWorkerScript from '../../workers/calc.worker?worker';

interface Slot {
  worker: Worker;
  api: Remote<CalcWorker>;
}

const size = () => Math.max(1, (navigator.hardwareConcurrency || 2) - 1);
const idle: Slot[] = [];
const waiting: (() => void)[] = [];
let alive = 0;

async function take(signal: AbortSignal): Promise<Slot> {
  while (idle.length === 0 && alive >= size()) {
    await new Promise<void>((go) => waiting.push(go));
    if (signal.aborted) {
      waiting.shift()?.();
      throw cancelled();
    }
  }
  const slot = idle.pop();
  if (slot) return slot;
  alive++;
  const worker = new CalcWorkerScript();
  return { worker, api: wrap<CalcWorker>(worker) };
}

const cancelled = () => new DOMException('Cancelled.', 'AbortError');

/** Runs the calculation `name`; rejects with an AbortError when `signal` fires. */
export async function runInPool<T>(
  name: string,
  input: unknown,
  { signal, onProgress }: { signal: AbortSignal; onProgress?: (done: number, partial?: unknown) => void },
): Promise<T> {
  if (signal.aborted) throw cancelled();
  const slot = await take(signal);
  let ended = false;
  try {
    return await new Promise<T>((done, fail) => {
      const abort = () => {
        ended = true;
        slot.worker.terminate();
        fail(cancelled());
      };
      if (signal.aborted) return abort();
      signal.addEventListener('abort', abort, { once: true });
      slot.worker.addEventListener(
        'error',
        (e) => fail(new Error(e.message || 'The calculation stopped unexpectedly.')),
        {
          once: true,
        },
      );
      slot.api
        .run(
          name,
          input,
          proxy((d: number, p?: unknown) => onProgress?.(d, p)),
        )
        .then((result) => done(result as T), fail)
        .finally(() => signal.removeEventListener('abort', abort));
    });
  } finally {
    if (ended) alive--;
    else idle.push(slot);
    waiting.shift()?.();
  }
}
