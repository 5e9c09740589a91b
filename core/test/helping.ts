/** Somebody idle who helps with runs, as another worker would: what goes there and comes back is a copy. */
import type { Helper } from '../src/ground/index.ts';
import { type RunAsked, runAsked, type RunsAbout } from '../src/rework/runAsked.ts';

/** `lent`: how many at the same time; `shares` counts how often somebody was told what it is about, and what was answered there. */
export function helping(lent: number) {
  const shares = { told: 0, there: 0 };
  let out = 0;
  const idle = (about: unknown): Promise<Helper | undefined> => {
    if (out >= lent) return Promise.resolve(undefined);
    out++;
    shares.told++;
    const copy = structuredClone(about) as RunsAbout;
    return Promise.resolve({
      async ask(asked) {
        shares.there++;
        return structuredClone(await runAsked(copy, structuredClone(asked) as RunAsked, { now: () => 0 }));
      },
      done: () => void out--,
    });
  };
  return { shares, idle };
}
