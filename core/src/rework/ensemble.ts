/** A procedure as set, and the same with everything uncertain off by the rows of a design. */
import type { CalcContext } from '../ground/index.ts';
import type { PlanRun } from './bench/runForm.ts';
import { designFor } from './design.ts';
import type { PlanInput } from './planForm.ts';
import { runPlan } from './planRun.ts';
import { runAll } from './runAsked.ts';
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
  /** What is added to the run as set while others work at the members, and how many quick runs that takes as long as. */
  completed?: { costs: number; by: (nominal: PlanRun, context: CalcContext) => Promise<PlanRun> };
}

/** Part of a calculation's progress. */
export const partOf = (context: CalcContext, from: number, share: number): CalcContext => ({
  ...context,
  progress: (done, partial) => context.progress?.(from + share * done, partial),
});

/** Computes all of them, in shares where somebody is idle; the run as set first: it is told as soon as it is there. */
export async function ensembleOf(
  input: PlanInput,
  { quality, least, nominalCosts, settled, completed }: Fineness,
  context: CalcContext,
): Promise<Ensemble> {
  const uncertain = uncertainOf(input.phases);
  const design = designFor(uncertain.length, least);
  const same = input.quality === quality;
  // as coarse as its members and nothing off
  const rows = same ? design : [...design, uncertain.map(() => 0)];
  const quickly: PlanInput = { ...input, quality, frames: false, books: false };
  const limit_s = input.phases.reduce((sum, p) => sum + p.giveUp_s, 0);
  const costs = nominalCosts + (completed?.costs ?? 0) + rows.length;
  let done = 0;
  const share = (of: number): CalcContext => ({
    ...context,
    progress: (d, partial) => context.progress?.((done + d * of) / costs, partial),
  });
  const asSet = async () => {
    const run = await runPlan(input, share(nominalCosts));
    context.progress?.((done += nominalCosts) / costs, run);
    if (!completed) return run;
    const whole = await completed.by(run, share(completed.costs));
    done += completed.costs;
    return whole;
  };
  const first = settled && (await asSet());
  if (first && settled?.(first)) return { inputs: [], nominal: first, centre: first, members: [], limit_s };
  const members = rows.map((row) => ({ row }));
  const runs = await runAll(quickly, first ? members : [asSet, ...members], share(1), () =>
    context.progress?.((done += 1) / costs),
  );
  const [nominal, ...others] = first ? [first, ...runs] : runs;
  return {
    inputs: uncertain.map((u) => u.name),
    nominal,
    centre: same ? nominal : others[design.length],
    members: others.slice(0, design.length),
    limit_s,
  };
}

/** 1/s; nothing where it never happens. Heat acts evenly on rates. */
export const rateOf = (t: number | null | undefined): number => (t ? 1 / t : 0);
/** s; null beyond what was looked at. */
export const timeOf = (rate: number, limit_s: number): number | null => (rate > 1 / limit_s ? 1 / rate : null);
