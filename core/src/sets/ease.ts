/** What would hurt a neighbour is done from its good side, or with the neighbour covered: whichever is enough, tried by computing it. */
import { coversOf, LEAN_DEG } from '../compare/index.ts';
import { COVER_S, type Kit, type Phase } from '../rework/index.ts';
import { type Bench, type Heated, RESERVE_K, worstOf } from './heat.ts';
import type { Leg } from './legs.ts';

interface Eased {
  leg: Leg;
  heated: Heated;
}

const marginOf = (heated: Heated): number => worstOf(heated)?.margin_K ?? Infinity;
/** Better is what comes loose at all, then what leaves more to the limit. */
const better = (a: Eased, b: Eased): boolean =>
  (a.heated.loose_s === null) === (b.heated.loose_s === null)
    ? marginOf(a.heated) > marginOf(b.heated)
    : a.heated.loose_s !== null;

/** The leg as it is set, or the first of its easings that keeps everybody clear; the best of them where none does. */
export async function eased(
  bench: Bench,
  leg: Leg,
  kit: Kit | undefined,
  heat: (leg: Leg) => Promise<Heated>,
): Promise<Eased> {
  let best: Eased = { leg, heated: await heat(leg) };
  const worst = worstOf(best.heated);
  if (!worst || worst.margin_K >= RESERVE_K) return best;
  for (const other of easings(bench, leg, worst.partId, kit)) {
    const tried = { leg: other, heated: await heat(other) };
    if (better(tried, best)) best = tried;
    if (best.heated.loose_s !== null && marginOf(best.heated) >= RESERVE_K) break;
  }
  return best;
}

/** Leaning from one side and from the other, the worst neighbour covered, both. */
function easings({ board }: Bench, leg: Leg, partId: string, kit: Kit | undefined): Leg[] {
  const { part, phases = [] } = leg;
  const worst = board.parts.find((p) => p.partId === partId);
  if (!worst) return [];
  const across = part.side === 'bottom' ? -1 : 1;
  const towards = (Math.atan2(part.y_mm - worst.y_mm, across * (worst.x_mm - part.x_mm)) * 180) / Math.PI;
  const leans = phases.some((p) => p.kind === 'air')
    ? [towards, towards + 180].map((deg) => ({ ...leg, phases: phases.map((p) => leaning(p, deg)) }))
    : [];
  const [best] = coversOf(kit);
  const covered = (l: Leg): Leg[] =>
    best && worst.side === part.side
      ? [{ ...l, covers: [...(l.covers ?? []), { kind: best, partId }], before_s: l.before_s + COVER_S[best] }]
      : [];
  return [...leans, ...covered(leg), ...leans.flatMap(covered)];
}

function leaning(phase: Phase, deg: number): Phase {
  if (phase.kind !== 'air') return phase;
  const approach_deg = Math.round(((deg % 360) + 360) % 360);
  return { ...phase, settings: { ...phase.settings, tilt_deg: LEAN_DEG, approach_deg } };
}
