/** A set off the main thread: how each part is done and what it is by itself is kept, orders are made of it as often as they are asked for. */
import { parseInput } from '@orthos/core/ground';
import { type Asked, setInput, type SetOrder, SetPlan } from '@orthos/core/sets';
import { expose } from 'comlink';

/** Lets a worker take messages in the middle. */
const breathe = () => new Promise<void>((go) => setTimeout(go));

let kept: { key: string; plan: Promise<SetPlan> } | undefined;

const api = {
  async order(input: unknown, asked: Asked, progress: (done: number, partial?: SetOrder) => void): Promise<SetOrder> {
    const context = { now: () => performance.now(), breathe, progress: (done: number) => progress(done) };
    const key = JSON.stringify(input);
    if (kept?.key !== key) kept = { key, plan: SetPlan.of(parseInput(setInput, input), context) };
    const { plan } = kept;
    try {
      return await (await plan).best(asked, context, (early) => progress(1, early));
    } catch (e) {
      if (kept?.plan === plan) kept = undefined;
      throw e;
    }
  },
};
export type SetWorker = typeof api;
expose(api);
