/** A plan's result as the hands need it: when to look, when it is over, which joint is last. */
import { type BoardModel, partName, type PlacedPart } from '../board/index.ts';
import type { PlanRun } from './bench/runForm.ts';
import { wetAt } from './bench/runTimes.ts';
import { inTurn } from './guide.ts';
import type { Guide } from './handForms.ts';
import type { Method } from './methods/method.ts';
import { kindOf } from './phases/index.ts';
import { type PlanResult, windowEnd } from './planResult.ts';

/**
 * Times of a run on the clock that hands start with the heat of its last phase: what went before it took them as long as it took. A tool that is
 * in hand already is not taken up again: `method` says which phases go on with one.
 */
export function handsClock(
  { phases = [] }: Pick<PlanRun, 'phases'>,
  method?: Pick<Method, 'phases'>,
): (s: number | null) => number | null {
  const began = beganAt(phases, method);
  return (s) => (s === null ? null : Math.max(0, s - began));
}

function beganAt(phases: NonNullable<PlanRun['phases']>, method: Pick<Method, 'phases'> | undefined): number {
  const toolOf = (id: string | undefined) => {
    const phase = method?.phases.find((p) => p.id === id);
    return phase && kindOf(phase).inTurn ? kindOf(phase).tool : undefined;
  };
  let n = phases.length - 1;
  while (n > 0 && toolOf(phases[n].id) !== undefined && toolOf(phases[n].id) === toolOf(phases[n - 1].id)) n--;
  return n < 0 ? 0 : phases[n].from_s;
}

/** What each joint takes where a tool goes from one to the next, s; null where it does not come loose under that tool. Undefined where none does. */
export function turnsOf(
  { joints, phases = [] }: Pick<PlanRun, 'joints' | 'phases'>,
  method: Pick<Method, 'phases'>,
): Guide['turns'] {
  // a part is tacked before it is gone through joint by joint
  const walks = method.phases.findLastIndex((p) => kindOf(p).inTurn);
  if (walks < 0) return undefined;
  const { from_s, to_s } = phases.find((p) => p.id === method.phases[walks].id) ?? { from_s: 0, to_s: Infinity };
  const within = joints.map((j) => {
    const wet_s = wetAt(j);
    return { terminal: j.terminal, wet_s: wet_s === null || wet_s > to_s ? null : Math.max(0, wet_s - from_s) };
  });
  return [...inTurn(within)].map(([terminal, takes_s]) => ({ terminal, takes_s }));
}

/** `method`: what hands go through now; the plan may have computed what was done before it as well. */
export function guideOf(result: PlanResult, board: BoardModel, method: Pick<Method, 'phases'>): Guide {
  const end = windowEnd(result);
  const onClock = handsClock(result, method);
  const closer = result.closes && result.closes.at_s === end ? result.closes.partId : undefined;
  const part = board.parts.find((p) => p.partId === closer);
  const turns = turnsOf(result, method);
  const { phases = [] } = result;
  // what is done before a part is placed stands on no clock
  const fitting = method.phases.some((p) => p.kind === 'place');
  const starts_s = fitting
    ? 0
    : (phases.at(-1)?.from_s ?? 0) - (phases.find((p) => p.id === method.phases[0].id)?.from_s ?? 0);
  return {
    ...(starts_s > 0 ? { starts_s } : {}),
    ...(turns ? { turns } : {}),
    ...(!fitting && result.sets ? { soft_s: result.sets.frozen_s, warm_s: result.sets.warm_s ?? null } : {}),
    ...(result.outcomes ? { heat: heatIn(result.outcomes) } : {}),
    joints: result.joints.map((j) => ({ terminal: j.terminal, wet_s: onClock(wetAt(j)) })),
    last: result.last?.terminal ?? null,
    allWet_s: onClock(result.allWet_s),
    allWetFrom_s: onClock(result.allWetRange_s.from),
    allWetTo_s: onClock(result.allWetRange_s.to),
    closes_s: onClock(end),
    closesFrom_s: onClock(result.closesRange_s.from),
    closesTo_s: onClock(result.closesRange_s.to),
    closedBy: closerName(part, end, result),
  };
}

const heatIn = ({ lands, body }: NonNullable<PlanResult['outcomes']>): NonNullable<Guide['heat']> => ({
  land_K_s: Math.max(0, ...lands.map((l) => l.exposure_K_s)),
  dose: body.dose ?? null,
});

/** Who ends the window; where only a hotter station would, somebody. */
function closerName(part: PlacedPart | undefined, end: number | null, result: PlanResult): string {
  if (part) return partName(part);
  if (end !== null) return 'joints freeze';
  return result.closesRange_s.from === null ? '' : 'a neighbour';
}
