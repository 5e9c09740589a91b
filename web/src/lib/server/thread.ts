/** Work that would keep the server from answering is done in threads, so many at once. */
import { env } from '$env/dynamic/private';
import { resolve } from 'node:path';
import { Worker } from 'node:worker_threads';

export interface Threads {
  /** Bundle of the thread: one job as workerData, one message back. */
  file: 'thread.mjs' | 'media.mjs';
  atOnce: number;
  /** How many may wait for their turn; more are refused. */
  mostWaiting: number;
  most_s: number;
}

/** A thread's place: it is given back at once when its job is done, stopped or given up. */
export class Lane {
  private free: number;
  private readonly queue: (() => void)[] = [];
  private readonly threads: Threads;
  constructor(threads: Threads) {
    this.threads = threads;
    this.free = threads.atOnce;
  }

  /** The thread's message; 'busy' when too many wait already, 'stopped' when it took too long or nobody wants it any more. */
  async run<Answer>(
    job: unknown,
    signal: AbortSignal,
    transfer: ArrayBuffer[] = [],
  ): Promise<Answer | 'busy' | 'stopped'> {
    if (signal.aborted) return 'stopped';
    if (this.free > 0) this.free--;
    else if (this.queue.length >= this.threads.mostWaiting) return 'busy';
    else if (!(await this.turn(signal))) return 'stopped';
    try {
      return await this.inThread<Answer>(job, signal, transfer);
    } finally {
      const next = this.queue.shift();
      if (next) next();
      else this.free++;
    }
  }

  /** Waits for a place; false when nobody wants it any more. */
  private turn(signal: AbortSignal): Promise<boolean> {
    return new Promise((done) => {
      const go = () => {
        signal.removeEventListener('abort', leave);
        done(true);
      };
      const leave = () => {
        this.queue.splice(this.queue.indexOf(go), 1);
        done(false);
      };
      this.queue.push(go);
      signal.addEventListener('abort', leave, { once: true });
    });
  }

  private inThread<Answer>(job: unknown, signal: AbortSignal, transfer: ArrayBuffer[]): Promise<Answer | 'stopped'> {
    if (signal.aborted) return Promise.resolve('stopped');
    const { file, most_s } = this.threads;
    const worker = new Worker(resolve(env.ORTHOS_HOSTS ?? 'build-hosts', file), {
      workerData: job,
      transferList: transfer,
      resourceLimits: { maxOldGenerationSizeMb: 1024 },
    });
    return new Promise<Answer | 'stopped'>((done, fail) => {
      const stop = () => done('stopped');
      const timer = setTimeout(stop, most_s * 1000);
      signal.addEventListener('abort', stop, { once: true });
      worker.once('message', (answer: Answer) => done(answer));
      worker.once('error', fail);
      worker.once('exit', (code) => {
        clearTimeout(timer);
        fail(new Error(`the thread ended with ${code}`));
      });
    }).finally(() => void worker.terminate());
  }
}
