import type { Helper } from './shares.ts';

type Guess<Q> = readonly [key: string, question: Q];

/**
 * Questions asked one after another, each after the answer of the one before: what will likely be asked is worked at by whoever is idle, and here while an answer is
 * waited for. What is answered, and in which order, does not depend on who helps. Without anybody nothing is guessed.
 */
export class Ahead<Q, A> {
  private readonly here: (question: Q) => Promise<A>;
  private readonly idle: (() => Promise<Helper<Q, A> | undefined>) | undefined;
  private guesses: Guess<Q>[] = [];
  /** Undefined once there: who was at it is gone. */
  private readonly begun = new Map<string, Promise<A | undefined>>();
  private readonly there = new Map<string, A>();
  /** Nothing is guessed for now. */
  private resting = true;
  private calling = false;
  private wake: (() => void)[] = [];

  /** `here` answers one; `idle` gives a helper where there is one. */
  constructor(here: (question: Q) => Promise<A>, idle?: () => Promise<Helper<Q, A> | undefined>) {
    this.here = here;
    this.idle = idle;
  }

  /** Answers one. `next`: what is likely asked afterwards, the likeliest first, instead of what was guessed before; with nothing to guess, who helps goes. Rejects as `here` and helpers do. */
  async ask(key: string, question: Q, next: Iterable<Guess<Q>> = []): Promise<A> {
    if (this.idle) {
      const guesses = [...next];
      this.resting = guesses.length === 0;
      this.guesses = guesses.filter(([k]) => k !== key && !this.begun.has(k));
      if (this.resting || this.guesses.length > 0) this.rouse();
      if (this.guesses.length > 0) void this.call(this.idle);
    }
    for (;;) {
      const begun = this.begun.get(key);
      if (!begun) await this.work(key, this.here(question));
      const answer = this.there.get(key);
      if (answer !== undefined) return answer;
      // somebody is at it; a guess that fails is told to whoever asks for it
      const [guess] = this.guesses.splice(0, 1);
      if (guess) await this.work(guess[0], this.here(guess[1])).catch(() => undefined);
      else await begun;
    }
  }

  /** Something else is worked at for now: who helps goes, with the answer that is begun. */
  stop(): void {
    this.resting = true;
    this.guesses = [];
    this.rouse();
  }

  private async work(key: string, asked: Promise<A | undefined>): Promise<boolean> {
    this.begun.set(key, asked);
    const answer = await asked;
    if (answer === undefined) this.begun.delete(key);
    else this.there.set(key, answer);
    return answer !== undefined;
  }

  private rouse(): void {
    for (const go of this.wake.splice(0)) go();
  }

  private async call(idle: () => Promise<Helper<Q, A> | undefined>): Promise<void> {
    if (this.calling) return;
    this.calling = true;
    const helper = await idle().catch(() => undefined);
    this.calling = false;
    if (!helper) return;
    // there may be more than one
    if (this.guesses.length > 1) void this.call(idle);
    try {
      for (let [guess] = this.guesses.splice(0, 1); guess; [guess] = this.guesses.splice(0, 1)) {
        if (!(await this.work(guess[0], helper.ask(guess[1])))) return;
        // what comes next is known soon
        if (this.guesses.length === 0 && !this.resting) await new Promise<void>((go) => this.wake.push(go));
      }
    } catch {
      // whoever asks for it is told
    } finally {
      helper.done();
    }
  }
}
