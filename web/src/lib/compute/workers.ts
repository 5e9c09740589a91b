/**
 * Workers that are kept for the next task. A task that is called off ends its worker, for nothing else stops it; so does a worker that fails:
 * what could not be loaded, or broke, is never given a second task.
 */

export interface Task {
  signal: AbortSignal;
  onProgress?: (done: number, partial?: unknown) => void;
}

/** A worker with what it can be asked. */
export interface Slot {
  worker: Pick<Worker, 'terminate' | 'addEventListener' | 'removeEventListener'>;
}

const cancelled = () => new DOMException('Cancelled.', 'AbortError');

export class Pool<S extends Slot> {
  /** Workers that there are now, idle or not. */
  alive = 0;
  private readonly size: () => number;
  private readonly make: () => S;
  private readonly idle: S[] = [];
  private readonly waiting: (() => void)[] = [];

  /** `size`: how many there may be at once. */
  constructor(size: () => number, { make }: { make: () => S }) {
    this.size = size;
    this.make = make;
  }

  /** Tasks wait for a worker. */
  get crowded(): boolean {
    return this.waiting.length > 0;
  }
  /** A task would begin at once. */
  get free(): boolean {
    return !this.crowded && (this.idle.length > 0 || this.alive < this.size());
  }

  /** Does a task on a worker of its own; rejects with an AbortError when `signal` fires, and when the worker fails. */
  async run<T>(task: (slot: S) => Promise<T>, signal: AbortSignal): Promise<T> {
    if (signal.aborted) throw cancelled();
    const slot = await this.take(signal);
    let fit = false;
    try {
      const result = await this.watched(slot, task, signal);
      fit = true;
      return result;
    } catch (e) {
      // what the task itself says is no failure of the worker
      fit = !(e instanceof DOMException && e.name === 'AbortError') && !(e instanceof WorkerFailed);
      throw e;
    } finally {
      if (fit) this.idle.push(slot);
      else this.end(slot);
      this.waiting.shift()?.();
    }
  }

  private watched<T>(slot: S, task: (slot: S) => Promise<T>, signal: AbortSignal): Promise<T> {
    const { worker } = slot;
    return new Promise<T>((done, fail) => {
      const abort = () => fail(cancelled());
      const failed = (e: Event) => fail(new WorkerFailed((e as ErrorEvent).message));
      signal.addEventListener('abort', abort);
      worker.addEventListener('error', failed);
      worker.addEventListener('messageerror', failed);
      task(slot)
        .then(done, fail)
        .finally(() => {
          signal.removeEventListener('abort', abort);
          worker.removeEventListener('error', failed);
          worker.removeEventListener('messageerror', failed);
        });
    });
  }

  private async take(signal: AbortSignal): Promise<S> {
    while (this.idle.length === 0 && this.alive >= this.size()) {
      await new Promise<void>((go) => this.waiting.push(go));
      if (signal.aborted) {
        // the turn goes on to who waits behind it
        this.waiting.shift()?.();
        throw cancelled();
      }
    }
    const slot = this.idle.pop();
    if (slot) return slot;
    this.alive++;
    try {
      return this.make();
    } catch (e) {
      this.alive--;
      throw e;
    }
  }

  private end({ worker }: S): void {
    worker.terminate();
    this.alive--;
  }
}

/** A worker that could not be loaded, or stopped. */
export class WorkerFailed extends Error {
  constructor(message: string | undefined) {
    super(message || 'The calculation stopped unexpectedly.');
    this.name = 'WorkerFailed';
  }
}
