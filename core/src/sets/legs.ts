/**
 * What hands do at one part of a set in one go: off, made ready, on. A stage of a set is a list of such legs; part by part, a part has several behind
 * one another.
 */
import type { PlacedPart } from '../board/index.ts';
import { beforeOff_s, beforeOn_s, clean_s, look_s, type Tool, toolsOf } from '../compare/index.ts';
import { BOARD_HOLD_S, LIFT_S, type Method, type Phase, SET_UP, type Surroundings } from '../rework/index.ts';
import type { Op } from './fates.ts';

/** Parts that only go on: they are off the board until then. */
export const putOn = (legs: readonly Leg[]): string[] => {
  const off = new Set(legs.filter((l) => l.op === 'remove').map((l) => l.part.partId));
  return legs.filter((l) => l.op === 'fit' && !off.has(l.part.partId)).map((l) => l.part.partId);
};

/** Put aside, the next one looked up, the hand back at its tool, s (17-hands: estimates). */
const ASIDE_S = 6;
/** Board out of its frame, turned, in again, s. */
const FLIP_S = BOARD_HOLD_S;
/** A tool that is warm already taken up for another; another nozzle, tip or set-point on the same one, s (estimates). */
const TAKE_UP_S = 5;
const SET_ANEW_S = 20;

export interface Leg {
  part: PlacedPart;
  /** The side that is up. */
  side: PlacedPart['side'];
  op: Op;
  method?: Method['id'];
  /** Heat on a clock; nothing where lands are made ready, whose heat stays where the braid is. */
  phases?: readonly Phase[];
  covers?: Surroundings['covers'];
  /** Hands before and after what is computed, s. */
  before_s: number;
  after_s: number;
  tools: readonly Tool[];
  /** How its tools are set: what differs has to be set anew. */
  setting: string;
}

const settingOf = (phases: readonly Phase[]): string =>
  phases
    .map((p) => {
      const s = p.settings as { set_C?: number; nozzle_mm?: number };
      return `${p.kind} ${s.set_C ?? ''} ${s.nozzle_mm ?? ''}`;
    })
    .join(', ');

/** `pace` multiplies what hands do; `rounds` of solder and braid where lands are made ready. */
export function legOf(
  part: PlacedPart,
  op: Op,
  {
    side,
    pace,
    method,
    covers,
    rounds = 1,
  }: { side: PlacedPart['side']; pace: number; method?: Method; covers?: Surroundings['covers']; rounds?: number },
): Leg {
  if (op === 'prepare' || !method) {
    const after_s = pace * (clean_s(part.package, rounds) + ASIDE_S);
    return { part, side, op, before_s: 0, after_s, tools: ['iron'], setting: 'braid' };
  }
  const { phases } = method;
  const before = op === 'remove' ? beforeOff_s(part.package, covers) : beforeOn_s(phases, part.package, covers);
  return {
    ...{ part, side, op, method: method.id, phases },
    ...(covers?.length ? { covers } : {}),
    before_s: pace * before,
    after_s: pace * (ASIDE_S + (op === 'fit' ? look_s(part.package) : 0)),
    tools: toolsOf(phases),
    setting: settingOf(phases),
  };
}

/** What hands do between two legs besides, s: the board turned, a tool made ready, taken up, or set anew. `ready`: tools that are warm. */
export function between_s(
  leg: Leg,
  before: Leg | undefined,
  { side, ready, pace }: { side: PlacedPart['side'] | undefined; ready: ReadonlySet<Tool>; pace: number },
): { flip_s: number; tool_s: number } {
  const flips = side !== leg.side;
  const cold = leg.tools.filter((t) => !ready.has(t)).reduce((sum, t) => sum + SET_UP[t], 0);
  const other = before !== undefined && before.tools.at(-1) !== leg.tools[0];
  const anew = before !== undefined && !other && before.setting !== leg.setting;
  return {
    flip_s: flips ? pace * FLIP_S : 0,
    tool_s: pace * (cold + (other && cold === 0 ? TAKE_UP_S : 0) + (anew && cold === 0 ? SET_ANEW_S : 0)),
  };
}

/** From when the heat is on until hands are free again, s; what never comes loose takes until it is given up. */
export const workTime = (leg: Leg, loose_s: number | null): number =>
  (loose_s ?? (leg.phases ?? []).reduce((sum, p) => sum + p.giveUp_s, 0)) + (leg.phases ? LIFT_S : 0);
