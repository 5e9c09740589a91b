/** A set as it really goes: every leg from what the last one left, on a board that cools while hands are busy. */
import type { CalcContext } from '../ground/index.ts';
import { type PlanRun, WholeBoard } from '../rework/index.ts';
import { type Bench, heatLeg, watchedOn, worstOf } from './heat.ts';
import { type Leg, workTime } from './legs.ts';
import { Hands, MOST_REST_S, type Timed, type Went } from './schedule.ts';
import { BOARD_MOST_C, type Single } from './single.ts';

/** A leg that was run: besides its times, how warm the board was, and who came near a limit. */
export interface Ran extends Timed {
  /** Until the heat comes on, from when the hands began on this leg: s on the clock, °C where this part stands. */
  curve: { s: number; C: number }[];
  worst: { partId: string; margin_K: number } | null;
  /** What the run told, watched on past the lift. */
  told: Omit<PlanRun, 'frames'> | null;
}

export interface ChainOptions {
  pace: number;
  /** Parts off the board from the beginning. */
  absent: readonly string[];
  lives(leg: Leg): boolean;
  did?: Went;
}

/** How often the warmth of the board is noted, s. */
const NOTE_S = 5;

/** `singles`: who may not be how warm when a leg begins. */
export async function realise(
  bench: Bench,
  order: readonly Leg[],
  singles: ReadonlyMap<Leg, Single>,
  { pace, absent, lives, did }: ChainOptions,
  context: CalcContext,
): Promise<Ran[]> {
  const board = new WholeBoard(bench, { absent: [...(bench.absent ?? []), ...absent] });
  const hands = new Hands(pace);
  const off = new Set(absent);
  const ran: Ran[] = [];
  let t = 0;
  for (const [n, leg] of order.entries()) {
    const curve: Ran['curve'] = [];
    const note = () => curve.push({ s: t, C: board.temperatureOf(leg.part) });
    const pass = (s: number) => {
      for (let left = s; left > 1e-9; left -= NOTE_S) {
        board.cool(Math.min(NOTE_S, left));
        t += Math.min(NOTE_S, left);
        note();
      }
    };
    note();
    const { flip, s } = hands.next(leg);
    const went = did?.legs.get(leg);
    pass(went ? Math.max(0, went.start_s - t) : Math.max(s, (did?.resume_s ?? 0) - t));
    const one = singles.get(leg);
    if (!one) {
      const start_s = t;
      const start_C = board.temperatureOf(leg.part);
      pass(leg.after_s);
      ran.push({ leg, start_s, end_s: t, start_C, rest_s: 0, flip, loose_s: null, curve, worst: null, told: null });
      continue;
    }
    const fits = () =>
      board.temperatureOf(leg.part) <= BOARD_MOST_C &&
      one.watched.every((w) => board.temperatureOf(w.part) <= w.most_C);
    const from = t;
    while (!went && n > 0 && t < from + MOST_REST_S && !fits()) pass(NOTE_S);
    const start_s = t;
    const start_C = board.temperatureOf(leg.part);
    const start = n > 0 || absent.length > 0 ? board.state(leg.part.partId) : undefined;
    // what went quicker than computed leaves less heat, what took longer lets the board cool meanwhile
    const real_s = went && workTime(leg, went.loose_s);
    const at = {
      ...{ start, absent: [...off].filter((id) => id !== leg.part.partId), lives: lives(leg) },
      ...(real_s === undefined ? {} : { most_s: real_s }),
    };
    const heated = await heatLeg(bench, leg, at, context);
    const { run, loose_s, neighbours } = heated;
    const ran_s = run.time;
    board.take(run);
    t += ran_s;
    const told = await watchedOn(heated, context);
    if (real_s !== undefined && real_s > ran_s) pass(real_s - ran_s);
    board.change(leg.part.partId, leg.op === 'fit');
    if (leg.op === 'fit') off.delete(leg.part.partId);
    else off.add(leg.part.partId);
    pass(leg.after_s);
    ran.push({
      ...{ leg, start_s, end_s: t, start_C, rest_s: start_s - from, flip, curve },
      loose_s: went?.loose_s ?? loose_s,
      worst: worstOf({ neighbours }),
      told,
    });
    context.progress?.((n + 1) / order.length);
  }
  return ran;
}
