/**
 * One leg by itself, from cold and from a warm board: how much sooner it is done for every kelvin it finds, whom it would hurt then, and what warmth it
 * leaves where and for how long. A whole order is estimated from these by adding up: board and air are nearly linear.
 */
import type { PlacedPart } from '../board/index.ts';
import type { CalcContext } from '../ground/index.ts';
import { type Kit, WholeBoard } from '../rework/index.ts';
import { eased } from './ease.ts';
import { type Bench, type Heated, heatLeg, RESERVE_K, worstOf } from './heat.ts';
import { type Leg, putOn, workTime } from './legs.ts';

/** How much warmer than the room the warm run begins, K. */
const WARM_K = 60;
/** Nobody waits until a neighbour is cooler than this over the room, K: what is hurt then is hurt from cold. */
const COOL_K = 15;
/** A neighbour takes over at least so much of what it is warmer by. */
const LEAST_PER_K = 0.05;
/** However warm the board: some time it takes, as a share. */
const LEAST_SHARE = 0.2;
/** No work begins on a board that is hotter than this there: its laminate is near its softening, °C. */
export const BOARD_MOST_C = 120;
/** When warmth is looked at after a leg, s; further out there is none. */
const AFTER_S = [0, 5, 10, 20, 40, 80, 160, 320, 640] as const;
const GONE_S = 1280;

/** A part that may not be warmer than this when a leg begins. */
interface Watched {
  part: PlacedPart;
  most_C: number;
}

export interface Single {
  leg: Leg;
  /** From cold; null where it never comes loose. */
  cold_s: number | null;
  warm_s: number | null;
  watched: readonly Watched[];
  /** Who is nearest to its limit from cold, and by how much, K. */
  worst: { partId: string; margin_K: number } | null;
  /** Rise by place and time after it, K: rows as `AFTER_S`, by the place's key. */
  leaves: ReadonlyMap<string, readonly number[]>;
}

/** Computes every leg by itself; what would hurt a neighbour from cold is eased where it can be. Throws `OutOfBoundsError` rather than tell what is not possible. */
export async function singlesOf(
  bench: Bench,
  legs: readonly Leg[],
  { lives, kit }: { lives: (leg: Leg) => boolean; kit: Kit | undefined },
  context: CalcContext,
): Promise<Single[]> {
  const warmBoard = new WholeBoard(bench, { from_C: bench.ambient_C + WARM_K, fineness: 'rough' });
  const alone: { leg: Leg; cold: Heated; warm: Heated; watched: Watched[] }[] = [];
  for (const [n, listed] of legs.entries()) {
    const at = { absent: absentFor(listed, legs), lives: lives(listed) };
    const { leg, heated: cold } = await eased(bench, listed, kit, (l) => heatLeg(bench, l, at, context));
    const warm = await heatLeg(bench, leg, { ...at, start: warmBoard.state(leg.part.partId) }, context);
    alone.push({ leg, cold, warm, watched: watchedBy(bench, cold, warm) });
    context.progress?.((n + 1) / legs.length);
  }
  const places = new Set([...legs.map((l) => l.part), ...alone.flatMap((a) => a.watched.map((w) => w.part))]);
  return alone.map(({ leg, cold, warm, watched }) => ({
    ...{ leg, watched, cold_s: cold.loose_s, warm_s: warm.loose_s, worst: worstOf(cold) },
    leaves: leavesOf(bench, leg, cold.run, [...places]),
  }));
}

/** Off the board while a leg is on by itself: what goes on does so where nothing stands. */
const absentFor = (leg: Leg, legs: readonly Leg[]): string[] =>
  leg.op === 'fit' ? legs.filter((l) => l.op === 'fit' && l !== leg).map((l) => l.part.partId) : putOn(legs);

/** Who would be hurt on a warm board, and how warm he may be when it begins. */
function watchedBy({ board, ambient_C }: Bench, cold: Heated, warm: Heated): Watched[] {
  return warm.neighbours.flatMap(({ partId, margin_K }): Watched[] => {
    const part = board.parts.find((p) => p.partId === partId);
    if (!part || margin_K === null || margin_K === undefined || margin_K >= RESERVE_K) return [];
    const from = cold.neighbours.find((n) => n.partId === partId)?.margin_K ?? Infinity;
    const perK = Math.max(LEAST_PER_K, (Math.min(from, margin_K + WARM_K) - margin_K) / WARM_K);
    const rise = Math.min(WARM_K, Math.max(COOL_K, (from - RESERVE_K) / perK));
    return [{ part, most_C: ambient_C + rise }];
  });
}

function leavesOf(bench: Bench, leg: Leg, run: Heated['run'], places: readonly PlacedPart[]): Map<string, number[]> {
  const board = new WholeBoard(bench, { fineness: 'rough' });
  board.take(run);
  board.change(leg.part.partId, leg.op === 'fit');
  const rows = new Map(places.map((p) => [p.partId, [] as number[]]));
  for (const [n, at] of AFTER_S.entries()) {
    board.cool(at - (AFTER_S[n - 1] ?? 0));
    for (const p of places) rows.get(p.partId)?.push(board.riseAt(p.x_mm, p.y_mm));
  }
  return rows;
}

/** What a leg leaves at a place so long after it, K. */
export function leftAt({ leaves }: Single, partId: string, after_s: number): number {
  const row = leaves.get(partId);
  if (!row || after_s >= GONE_S) return 0;
  const n = AFTER_S.findLastIndex((s) => s <= after_s);
  const [from, to] = [AFTER_S[n], AFTER_S[n + 1] ?? GONE_S];
  return row[n] + (((row[n + 1] ?? 0) - row[n]) * (after_s - from)) / (to - from);
}

/** When it comes loose from a board that is warmer by so much, s; what never does takes until it is given up. */
export function looseFrom({ leg, cold_s, warm_s }: Single, rise_K: number): number {
  const never = workTime(leg, null);
  const [cold, warm] = [cold_s ?? never, warm_s ?? never];
  const share = Math.min(1.5, Math.max(0, rise_K) / WARM_K);
  return Math.max(LEAST_SHARE * cold, cold + (warm - cold) * share);
}
