/** What lands and parts have been through over all attempts, by the plans their runs followed, and what they have left. */
import { currentAttempt, isOff, type JobState, type Run } from './jobState.ts';

/**
 * Foil on laminate above its glass transition loses 1/e of its hold in so many K·s, down to half of it; one reflow at the factory is about 12 000 K·s
 * (docs/physics, `tornLand.ts`). Beyond that nothing is computed: a land at the floor has no budget left.
 */
const LANDS = { decay_K_s: 60_000, floor: 0.5 } as const;
/** A heating took longer or shorter than planned by at most so much, as a factor: beyond it the marks are in doubt. */
const LONGER = 3;

export interface Heats {
  /** Times the lands were heated, and what that comes to; `holds` is null where no plan of any of them said. */
  lands: { times: number; K_s: number; holds: number | null; left: number | null };
  /** What the part that is on, or goes on, has taken of what it may take; null where no plan said. */
  part: { times: number; dose: number | null };
}

/** How much longer than planned all joints took to melt, as it was marked. */
function stretch({ guide, marks }: Run): number {
  const [on, wet] = ['heat-on', 'all-wet'].map((what) => marks.find((m) => m.what === what)?.at);
  if (!guide?.allWet_s || on === undefined || wet === undefined || wet <= on) return 1;
  return Math.min(LONGER, Math.max(1 / LONGER, (wet - on) / 1000 / guide.allWet_s));
}

/** Whether hands came as far as the heat. */
const heated = (run: Run): boolean =>
  run.marks.some((m) => ['heat-on', 'all-wet', 'lifted'].includes(m.what)) || run.ended?.outcome === 'finished';

const sum = (doses: readonly (number | null)[]): number | null => {
  const known = doses.filter((d) => d !== null);
  return known.length > 0 ? known.reduce((a, b) => a + b) : null;
};

/** What a part has taken in these runs, but those that only made its lands ready. */
export function heatOfPart(runs: readonly Run[]): Heats['part'] {
  const hot = runs.filter((r) => r.op !== 'prepare' && heated(r));
  const felt = hot.map((r) => (typeof r.guide?.heat?.dose === 'number' ? r.guide.heat.dose * stretch(r) : null));
  return { times: hot.length, dose: sum(felt) };
}

/** Of the part that is worked at now. `left`: more heatings like the last one, until lands are at their floor. */
export function heatsOf(state: JobState): Heats {
  const { suspect, newPart } = currentAttempt(state);
  const mine = state.attempts.filter((a) => a.suspect?.partId === suspect?.partId);
  const runs = mine.flatMap((a) => a.runs).filter((r) => r.op !== 'prepare' && heated(r));
  const K_s = runs.reduce((sum, r) => sum + (r.guide?.heat?.land_K_s ?? 0) * stretch(r), 0);
  const each = runs.findLast((r) => r.guide?.heat)?.guide?.heat?.land_K_s;
  const most_K_s = -LANDS.decay_K_s * Math.log(LANDS.floor);
  // once the old one is off, what goes on has been through its own fitting alone, and through what it brings along
  const attempt = currentAttempt(state);
  const stays = newPart?.origin === 'the old one' || !isOff(attempt);
  const came = suspect && state.came.get(suspect.partId)?.record;
  const own = heatOfPart(came || !stays ? attempt.runs.filter((r) => r.op === 'fit') : runs);
  return {
    lands: {
      times: runs.length,
      K_s,
      holds: runs.length > 0 && each === undefined ? null : Math.max(LANDS.floor, Math.exp(-K_s / LANDS.decay_K_s)),
      left: each ? Math.max(0, Math.floor((most_K_s - K_s) / each)) : null,
    },
    part: came ? { times: own.times + came.times, dose: sum([own.dose, came.dose]) } : own,
  };
}
