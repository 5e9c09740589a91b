/** A procedure as set, and the same with everything uncertain off by the rows of a design. */
import { type CalcContext, type Helper, inShares } from '../ground/index.ts';
import type { PlanRun } from './bench/runForm.ts';
import { designFor } from './design.ts';
import type { PlanInput } from './planForm.ts';
import { runPlan } from './planRun.ts';
import { uncertainOf } from './uncertainty.ts';

export interface Ensemble {
  inputs: readonly string[];
  nominal: PlanRun;
  /** As set, as coarse as the members. */
  centre: PlanRun;
  members: readonly PlanRun[];
  limit_s: number;
}

interface Fineness {
  /** Of the members. */
  quality: PlanInput['quality'];
  /** Members at least. */
  least?: number;
  /** Quick runs that the run as set takes as long as. */
  nominalCosts: number;
  /** Whether the run as set says all there is to say: no member is computed, none of it counts as uncertain. */
  settled?: (nominal: PlanRun) => boolean;
}

/** Part of a calculation's progress. */
export const partOf = (context: CalcContext, from: number, share: number): CalcContext => ({
  ...context,
  progress: (done, partial) => context.progress?.(from + share * done, partial),
});

/** One of them: everything uncertain of `input` off by a row of its design. */
export function memberOf(input: PlanInput, row: readonly number[], context: CalcContext): Promise<PlanRun> {
  const off = uncertainOf(input.phases).reduce((i, u, k) => u.off(i, row[k]), input);
  return runPlan(off, context);
}

/** Computes all of them, the run as set first: it is told as soon as it is there. */
export async function ensembleOf(
  input: PlanInput,
  { quality, least, nominalCosts, settled }: Fineness,
  context: CalcContext,
): Promise<Ensemble> {
  const uncertain = uncertainOf(input.phases);
  const design = designFor(uncertain.length, least);
  const same = input.quality === quality;
  const each = 1 / (nominalCosts + design.length + (same ? 0 : 1));
  const nominal = await runPlan(input, partOf(context, 0, nominalCosts * each));
  context.progress?.(nominalCosts * each, nominal);
  const limit_s = input.phases.reduce((sum, p) => sum + p.giveUp_s, 0);
  if (settled?.(nominal)) return { inputs: [], nominal, centre: nominal, members: [], limit_s };
  const quickly: PlanInput = { ...input, quality, frames: false, books: false };
  let done = nominalCosts;
  const counted = <R>(run: R): R => {
    if (run !== undefined) context.progress?.(++done * each);
    return run;
  };
  const member = async (row: readonly number[]) =>
    counted(await memberOf(quickly, row, { ...context, progress: (d) => context.progress?.((done + d) * each) }));
  const { idle } = context;
  const members = await inShares(
    design,
    member,
    idle &&
      (async () => {
        const helper = (await idle(quickly)) as Helper<readonly number[], PlanRun> | undefined;
        return helper && { ask: async (row) => counted(await helper.ask(row)), done: () => helper.done() };
      }),
  );
  const centre = same ? nominal : await runPlan(quickly, partOf(context, 1 - each, each));
  return {
    inputs: uncertain.map((u) => u.name),
    nominal,
    centre,
    members,
    limit_s,
  };
}

/** 1/s; nothing where it never happens. Heat acts evenly on rates. */
export const rateOf = (t: number | null | undefined): number => (t ? 1 / t : 0);
/** s; null beyond what was looked at. */
export const timeOf = (rate: number, limit_s: number): number | null => (rate > 1 / limit_s ? 1 / rate : null);
