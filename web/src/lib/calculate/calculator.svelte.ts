/** One calculation of a screen: asked with every change, run in a worker. An answer stands only beside what it was asked for. */
import { runInPool } from '$lib/compute/pool';

/** Typing goes on for a while. */
const PAUSE_MS = 200;

export class Calculator<T> {
  answer = $state.raw<T | null>(null);
  problem = $state('');
  busy = $state(false);
  private readonly name: string;
  private asked = '';
  private timer: ReturnType<typeof setTimeout> | undefined;
  private running: AbortController | null = null;

  constructor(name: string) {
    this.name = name;
  }

  /** Asks once typing rests; a string instead of an input is what is wrong with it. */
  ask(input: object | string): void {
    const question = JSON.stringify(input);
    if (question === this.asked) return;
    this.asked = question;
    clearTimeout(this.timer);
    this.running?.abort();
    this.answer = null;
    this.problem = '';
    if (typeof input === 'string') {
      this.problem = input;
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
    } catch (e) {
      if (abort.signal.aborted) return;
      this.problem = (e as Error).message;
    }
    if (this.running === abort) this.busy = false;
  }

  end(): void {
    clearTimeout(this.timer);
    this.running?.abort();
  }
}
