/**
 * Times of the hands: what a task takes that neither heats nor waits. Medians of general bench experience, none measured here, with spreads as factors
 * (68 % lie between median ÷ spread and × spread); docs/physics/hands.md. A person is slow or quick in all of them together: one factor, the pace.
 */
import type { PackageModel } from '../packages/index.ts';

export const PACES = { novice: 1.8, usual: 1, expert: 0.75 } as const;
export type Pace = keyof typeof PACES;

/** Within what factor 19 of 20 people's pace lies round the one that is counted on. */
export const PACE_WITHIN = 1.7;
/** Spread of a single task of one person. */
export const TASK_SPREAD = 1.5;

/** Getting a tool ready, before the clock starts, s. */
export const SET_UP = { iron: 25, air: 45, vacuum: 45, tweezers: 25, below: 60, hand: 5 } as const;
/** Board into its frame; flux on; a cover laid and taken off; one site washed, s. */
export const BOARD_HOLD_S = 40;
export const FLUX_S = { part: 3, land: 0.25 } as const;
export const COVER_S = { tape: 33, foil: 53, 'foil-off': 53, strip: 33, thick: 53 } as const;
export const WASH_S = 45;
/** One round of flood and braid, a row. */
export const ROUND_S = { row: 6, mm: 0.7 } as const;

/** Pin by pin under suction: travel and seat, fresh solder fed, sucked until daylight shows, cleaned every so many pins, s. */
export const SUCTION = {
  move_s: 1.6,
  feed_s: 2.5,
  feedWide_s: 4,
  wide_mm: 1.3,
  suck_s: 1.2,
  /** Longer on a pin that stayed plugged, from both faces. */
  again_s: 6,
  clean_s: 8,
  every: 10,
} as const;
/** Share of pins not free at once, by copper, and what each costs again, s. */
export const STUCK = { light: 0.08, planes: 0.2, ground: 0.35, again_s: 18 } as const;

/** A bead along a row, s: to start it, and a millimetre; worked in to and fro. */
export const BEAD_S = { row: 15, mm: 0.4 } as const;
/** Wire of a diameter goes into joints at most so fast, mm/s: the hand limits it. */
const FEED_MM_S = [
  [0.5, 5],
  [0.7, 4],
  [1, 2.5],
] as const;
/** Wire fed by hand, mm³/s, by the diameter nearest to one that is known. */
export function feed_mm3_s(dia_mm: number): number {
  const [, rate] = FEED_MM_S.reduce((a, b) => (Math.abs(b[0] - dia_mm) < Math.abs(a[0] - dia_mm) ? b : a));
  return (rate * Math.PI * dia_mm ** 2) / 4;
}

/** What has been warmed until it gives, taken off, s. */
export const BARE_S = { label: 12, coating: 45, glue: 30 } as const;

/** Legs: cut one by one, s a leg and to start a row; lifted one by one with braid, coarse and fine pitch. */
export const CUT_S = { leg: 4, row: 20 } as const;
export const LIFT_LEG_S = { leg: 15, fine: 25, fine_mm: 0.5 } as const;
/** A pool made over a small part, s. */
export const POOL_S = 6;
/** Putting a part on, s. Lands tinned: to start, and a land; paste from a needle alike. */
export const TIN_S = { start: 4, land: 0.8 } as const;
/** A part picked, turned, laid on its lands and aligned: ends by size, legs by number (tweezers and two corners), hidden joints, pins that find their holes. */
const PLACING_S = {
  end: [
    [1.5, 7],
    [0.9, 10],
    [0, 18],
  ],
  legs: [
    [16, 20],
    [64, 45],
    [Infinity, 75],
  ],
  hidden: 25,
  balls: 180,
  pins: [
    [3, 8],
    [8, 20],
    [Infinity, 60],
  ],
} as const;
export function placing_s({ terminals, body }: Pick<PackageModel, 'terminals' | 'body'>): number {
  const upTo = (rows: readonly (readonly [number, number])[]) =>
    (rows.find(([most]) => terminals.length <= most) ?? rows[rows.length - 1])[1];
  if (terminals.some((t) => t.drill_mm)) return upTo(PLACING_S.pins);
  if (terminals.some((t) => t.kind === 'ball')) return PLACING_S.balls;
  if (terminals.some((t) => t.kind === 'pad' || t.kind === 'leadless')) return PLACING_S.hidden;
  if (terminals.length > 2) return upTo(PLACING_S.legs);
  const long_mm = Math.max(body.l, body.w);
  return (PLACING_S.end.find(([least]) => long_mm >= least) ?? PLACING_S.end[2])[1];
}
/** Its mark looked at against photo and board; set down on molten lands and nudged to its middle. */
export const ORIENT_S = 8;
export const SET_DOWN_S = 4;
/** Joint by joint: on to the next with wire and tip, and until fresh solder has run once it is fed. */
export const JOINT_S = { move: 1.5, flows: 0.6 } as const;
/** Dragging: to start a side. */
export const DRAG_SIDE_S = 5;
/** A joint looked at. */
export const LOOK_JOINT_S = 0.8;

/** A can twisted off; a tail's pull built up, and peeled, mm/s. */
export const TWIST_S = 30;
export const PEEL = { start_s: 7, mm_s: 1.5 } as const;
