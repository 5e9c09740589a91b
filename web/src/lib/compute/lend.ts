/** Idle workers, lent to a calculation that works in shares (core: `inShares`): told once what it is about, then asked until they are let go. */
import type { Helper } from '@orthos/core/ground';
import type { Pool, Slot } from './workers';

interface Lendable extends Slot {
  api: { about: (what: never) => Promise<void>; answer: (question: never) => Promise<unknown> };
}

export class Lender {
  private readonly pool: Pool<Lendable>;
  private readonly signal: AbortSignal;
  private readonly lent = new Set<() => void>();
  private ended = false;

  /** For one calculation; when `signal` fires its helpers end with it. */
  constructor(pool: Pool<Lendable>, signal: AbortSignal) {
    this.pool = pool;
    this.signal = signal;
  }

  /** A worker that nobody waits for, if there is one. */
  async idle(about: unknown): Promise<Helper | undefined> {
    const { pool, signal, lent } = this;
    if (!pool.free || signal.aborted || this.ended) return undefined;
    let isOver = false;
    let done = () => {};
    const over = new Promise<void>((go) => {
      done = () => {
        isOver = true;
        go();
      };
    });
    lent.add(done);
    const told = await new Promise<Lendable['api'] | undefined>((ready) => {
      const lending = pool.run(async ({ api }) => {
        await api.about(about as never);
        ready(api);
        await over;
      }, signal);
      // let go, or broken: whoever asks is not left waiting
      lending.then(done, done).finally(() => {
        lent.delete(done);
        ready(undefined);
      });
    });
    if (!told) return undefined;
    return {
      ask(question) {
        // others come first
        if (pool.crowded) done();
        return isOver
          ? Promise.resolve(undefined)
          : Promise.race([told.answer(question as never), over.then(() => undefined)]);
      },
      done,
    };
  }

  /** Lets all go that are still out: the calculation is over. */
  end(): void {
    this.ended = true;
    for (const done of this.lent) done();
  }
}
