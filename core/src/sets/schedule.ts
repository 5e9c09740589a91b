/** An order on a clock, estimated from single legs: warmth that was left adds up, what is too warm rests, boards are turned and tools changed. */
import type { PlacedPart } from '../board/index.ts';
import type { Tool } from '../compare/index.ts';
import { between_s, type Leg, workTime } from './legs.ts';
import { BOARD_MOST_C, leftAt, looseFrom, type Single } from './single.ts';

/** One leg on the clock, s from the beginning; `loose_s` counts from when its heat comes on. */
export interface Timed {
  leg: Leg;
  /** Its heat comes on, or its work begins. */
  start_s: number;
  end_s: number;
  start_C: number;
  rest_s: number;
  flip: boolean;
  loose_s: number | null;
}

/** What was done already: by leg, when its heat came on and how long until it was loose, s. It goes as it went; hands go on no sooner than `resume_s`. */
export interface Went {
  legs: ReadonlyMap<Leg, { start_s: number; loose_s: number }>;
  resume_s?: number;
}

/** Longer than this nobody waits for a board, s. */
export const MOST_REST_S = 600;
const REST_STEP_S = 2;

/** Hands on a set: which tools are warm, which side is up. */
export class Hands {
  private readonly ready = new Set<Tool>();
  private side: PlacedPart['side'] | undefined;
  private before: Leg | undefined;
  private readonly pace: number;

  constructor(pace: number) {
    this.pace = pace;
  }

  /** What is done before the next leg begins, s. */
  next(leg: Leg): { flip: boolean; s: number } {
    const { flip_s, tool_s } = between_s(leg, this.before, { side: this.side, ready: this.ready, pace: this.pace });
    // the first side is put up once, whichever it is
    const flip = this.side !== undefined && flip_s > 0;
    this.side = leg.side;
    this.before = leg;
    for (const t of leg.tools) this.ready.add(t);
    return { flip, s: flip_s + tool_s + leg.before_s };
  }
}

/** Legs in an order, each by what it is alone. `singles`: of those with heat. */
export function estimate(
  order: readonly Leg[],
  singles: ReadonlyMap<Leg, Single>,
  { ambient_C, pace, did }: { ambient_C: number; pace: number; did?: Went },
): Timed[] {
  const hands = new Hands(pace);
  const done: { single: Single; end_s: number; share: number }[] = [];
  const rise = (partId: string, t: number) =>
    done.reduce((sum, d) => sum + d.share * leftAt(d.single, partId, t - d.end_s), 0);
  const told: Timed[] = [];
  let t = 0;
  for (const leg of order) {
    const { flip, s } = hands.next(leg);
    const went = did?.legs.get(leg);
    t = went ? Math.max(t, went.start_s) : Math.max(t + s, did?.resume_s ?? 0);
    const one = singles.get(leg);
    if (!one) {
      told.push({ leg, start_s: t, end_s: t + leg.after_s, start_C: ambient_C, rest_s: 0, flip, loose_s: null });
      t += leg.after_s;
      continue;
    }
    const fits = () =>
      ambient_C + rise(leg.part.partId, t) <= BOARD_MOST_C &&
      one.watched.every((w) => ambient_C + rise(w.part.partId, t) <= w.most_C);
    const from = t;
    while (!went && done.length > 0 && t < from + MOST_REST_S && !fits()) t += REST_STEP_S;
    const warm = rise(leg.part.partId, t);
    const loose_s = went?.loose_s ?? looseFrom(one, warm);
    const cold = one.cold_s ?? workTime(leg, null);
    const start_s = t;
    t += workTime(leg, loose_s);
    // what is done sooner leaves less
    done.push({ single: one, end_s: t, share: Math.min(1.2, loose_s / cold) });
    t += leg.after_s;
    told.push({ leg, start_s, end_s: t, start_C: ambient_C + warm, rest_s: start_s - from, flip, loose_s });
  }
  return told;
}

export const minutesOf = (told: readonly Timed[]): number => (told.at(-1)?.end_s ?? 0) / 60;
