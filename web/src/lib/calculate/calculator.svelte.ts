/** One calculation of a screen: asked with every change, run in a worker, the last answer kept until the next is there. */
import { runInPool } from '$lib/compute/pool';

/** Typing goes on for a while. */
const PAUSE_MS = 200;

export class Calculator<T> {
  answer = $state.raw<T | null>(null);
  problem = $state('');
  busy = $state(false);
  private readonly name: string;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private running: AbortController | null = null;

  constructor(name: string) {
    this.name = name;
  }

  /** Asks once typing rests; a string instead of an input is what is wrong with it. */
  ask(input: object | string): void {
    clearTimeout(this.timer);
    this.running?.abort();
    if (typeof input === 'string') {
      this.problem = input;
      this.answer = null;
      this.busy = false;
      return;
    }
    this.busy = true;
    this.timer = setTimeout(() => void this.run(input), PAUSE_MS);
  }

  private async run(input: object): Promise<void> {
    const abort = new AbortController();
    this.running = abort;
    try {
      this.answer = await runInPool<T>(this.name, input, { signal: abort.signal });
      this.problem = '';
    } catch (e) {
      if (abort.signal.aborted) return;
      this.answer = null;
      this.problem = (e as Error).message;
    }
    if (this.running === abort) this.busy = false;
  }

  end(): void {
    clearTimeout(this.timer);
    this.running?.abort();
  }
}
