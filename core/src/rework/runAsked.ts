/** Runs of one board, each asked for in few words, so that they can be computed here or wherever somebody is idle (`ground/shares.ts`). */
import { type CalcContext, type Helper, inShares } from '../ground/index.ts';
import type { PlanRun } from './bench/runForm.ts';
import type { PlanInput } from './planForm.ts';
import { runPlan, type Until } from './planRun.ts';
import { uncertainOf } from './uncertainty.ts';

/** What the runs are about: their board, and what else they have in common. */
export type RunsAbout = Pick<PlanInput, 'board'> & Partial<PlanInput>;

export interface RunAsked {
  /** Besides what it is about, or instead of it. */
  set?: Partial<PlanInput>;
  /** By how much everything uncertain is off: a row of its design. */
  row?: readonly number[];
  until?: Until;
}

/** One of them. */
export function runAsked(about: RunsAbout, { set, row = [], until }: RunAsked, context: CalcContext): Promise<PlanRun> {
  const input = { ...about, ...set } as PlanInput;
  const off = uncertainOf(input.phases).reduce((i, u, k) => (row[k] ? u.off(i, row[k]) : i), input);
  return runPlan(off, context, until);
}

/** Gives somebody idle who was told what it is about, where there may be any. */
export function helpersFor(
  about: RunsAbout,
  { idle }: CalcContext,
): (() => Promise<Helper<RunAsked, PlanRun> | undefined>) | undefined {
  return idle && (async () => (await idle(about)) as Helper<RunAsked, PlanRun> | undefined);
}

/** All of them, in their order, in shares where somebody is idle; each is told as soon as it is there. What is computed in a way of its own is computed here. */
export function runAll(
  about: RunsAbout,
  asked: readonly (RunAsked | (() => Promise<PlanRun>))[],
  context: CalcContext,
  told: (run: PlanRun) => void,
): Promise<PlanRun[]> {
  const heard = (run: PlanRun) => {
    told(run);
    return run;
  };
  const lent = helpersFor(about, context);
  const idle = async () => {
    const helper = await lent?.();
    return (
      helper && {
        async ask(of: (typeof asked)[number]) {
          const run = typeof of === 'function' ? undefined : await helper.ask(of);
          return run && heard(run);
        },
        done: () => helper.done(),
      }
    );
  };
  return inShares(
    asked,
    async (of) => (typeof of === 'function' ? of() : heard(await runAsked(about, of, context))),
    lent && idle,
  );
}
