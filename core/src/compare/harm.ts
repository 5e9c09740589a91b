/** Harm over draws: to neighbours and to the part's own body. */
import { harmOf, type PlanRun } from '../rework/index.ts';
import type { Draws } from './draws.ts';
import { percentile, shareOf } from './draws.ts';

/** A body nobody ever came near, K. */
const FAR_K = 500;
/** What the part's own limit may be off by where nothing says it, K. */
const OWN_K = 8;

type Word = 'hurts' | 'may hurt' | 'near' | 'clear';

export interface HarmSpread {
  partId: string;
  margin_K: number | null;
  p_hurt: number;
  word: Word;
  /** Whether it is hurt, by draw. */
  hurt: readonly boolean[];
}

/** What becomes of a body with a margin in every run, K, and a limit known to `limit_K`. */
function harmBy(
  draws: Draws,
  partId: string,
  margin: (run: PlanRun) => number | null | undefined,
  limit_K: number,
  near: boolean,
): HarmSpread {
  const { nominal } = draws.ensemble;
  const margin_K = margin(nominal) ?? null;
  const margins = draws.values((r) => margin(r) ?? FAR_K, FAR_K);
  const limit = draws.noise();
  // a plus-minus is two standard deviations
  const hurt = margins.map((m, n) => m + (limit_K / 2) * limit[n] < 0);
  const hurts = margin_K !== null && margin_K <= 0;
  const mayHurt = percentile(margins, 0.05) <= limit_K;
  return {
    partId,
    margin_K,
    p_hurt: shareOf(hurt),
    word: hurts ? 'hurts' : mayHurt ? 'may hurt' : near ? 'near' : 'clear',
    hurt,
  };
}

/** Every neighbour within reach of any run, the worst first. */
export function neighbourHarms(draws: Draws): HarmSpread[] {
  const { nominal, members } = draws.ensemble;
  const known = new Map(nominal.neighbours.map((n) => [n.partId, n]));
  for (const n of members.flatMap((m) => m.neighbours)) if (!known.has(n.partId)) known.set(n.partId, n);
  return [...known.values()]
    .filter((n) => n.limit_C !== null)
    .map((n) => {
      const margin = (run: PlanRun) => run.neighbours.find((o) => o.partId === n.partId)?.margin_K;
      return harmBy(draws, n.partId, margin, n.limitPlusMinus_C, harmOf(n).says === 'near');
    })
    .sort((a, b) => b.p_hurt - a.p_hurt || (a.margin_K ?? FAR_K) - (b.margin_K ?? FAR_K));
}

/** The part's own body, where it has to live. */
export function bodyHarm(draws: Draws, partId: string): HarmSpread {
  const near = draws.ensemble.nominal.outcomes?.body.says === 'near';
  return harmBy(draws, partId, (r) => r.outcomes?.body.margin_K, OWN_K, near);
}
