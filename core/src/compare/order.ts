/** Rows of a comparison in order: what each costs by what counts how much, which is recommended, and why. */
import type { OnOrOff } from '../rework/index.ts';
import type { Comparison, Row, Weights } from './forms.ts';

/** Everything counts alike. */
export const EVEN: Weights = { pads: 1, neighbours: 1, part: 1, minutes: 1 };

/** A window open in this share of all benches works. */
export const WORKS = 0.9;

/** What a way costs, by what counts how much: less is better. */
export const scoreOf = (
  c: { p_open: number; p_torn: number; p_hurt: number; p_part: number; minutes: number },
  w: Weights,
): number =>
  w.pads * c.p_torn +
  w.neighbours * c.p_hurt +
  w.part * c.p_part +
  (w.minutes * c.minutes) / 60 +
  (c.p_open < WORKS ? 1 : 0);

const ORDER: Record<Row['verdict'], number> = { works: 0, tight: 1, no: 2, 'not here': 3 };

/** By verdict, then score; what is a last resort behind all else of its verdict. */
function inOrder<R extends Row>(rows: readonly R[]): R[] {
  const rank = (r: Row) => [ORDER[r.verdict], r.lastResort ? 1 : 0, r.score ?? Infinity];
  return [...rows].sort((a, b) => {
    const [x, y] = [rank(a), rank(b)];
    const at = x.findIndex((v, i) => v !== y[i]);
    return at < 0 ? 0 : x[at] - y[at];
  });
}

/** A row as other weights score it. */
export function weighed(row: Row, weights: Weights): Row {
  const { window, land, worst, part, minutes } = row;
  if (!window || minutes === null) return row;
  const costs = {
    p_open: window.p_open,
    p_torn: land?.p_torn ?? 0,
    p_hurt: worst?.p_hurt ?? 0,
    p_part: part?.p_hurt ?? 0,
    minutes,
  };
  return { ...row, score: scoreOf(costs, weights) };
}

export interface Compared<R extends Row> extends Omit<Comparison, 'rows'> {
  rows: R[];
}

/** What is told of rows, by what hands are about. */
const WORDS = {
  remove: { does: 'take it off', done: 'all is loose' },
  fit: { does: 'put it on', done: 'every joint is made' },
} as const;

/** Rows in order, with the one that is recommended and why. */
export function inTheEnd<R extends Row>(rows: readonly R[], op: OnOrOff = 'remove'): Compared<R> {
  const ordered = inOrder(rows);
  const usable = ordered.filter((r) => r.verdict === 'works' || r.verdict === 'tight');
  const recommended = usable.find((r) => !r.lastResort) ?? usable.at(0) ?? null;
  return {
    rows: ordered,
    recommended: recommended?.id ?? null,
    reasons: reasonsFor(recommended, ordered, WORDS[op]),
  };
}

const percent = (p: number): string => `${Math.round(100 * p)} %`;

/** Three lines for the one that is recommended: what it does, what it spares, against what. */
function reasonsFor(row: Row | null, rows: readonly Row[], words: (typeof WORDS)[OnOrOff]): string[] {
  if (!row?.window || !row.loose_s) {
    const best = rows.find((r) => r.verdict === 'no');
    return [
      rows.length === 0 ? `Nothing on this bench can ${words.does}.` : 'No way on this bench leaves a safe window.',
      best ? `Nearest: ${best.name.toLowerCase()}, but ${best.why}.` : 'Tools are missing for all of them.',
      best?.cheapest ?? rows.find((r) => r.cheapest)?.cheapest ?? 'Send it to somebody with more tools.',
    ];
  }
  const { window, loose_s, worst, land, minutes } = row;
  const heat = row.heat_s?.p50;
  const next = rows.find((r) => r.id !== row.id && r.verdict !== 'not here');
  const of = heat === null || heat === undefined ? '' : `, of it ${Math.round(heat)} s under heat`;
  const spared = worst
    ? `worst neighbour ${worst.margin_K === null ? 'is never near its limit' : `stays ${Math.round(worst.margin_K)} K from its limit`}`
    : 'no neighbour is near a limit';
  return [
    `About ${Math.round(loose_s.p50 ?? 0)} s until ${words.done}${of}; the window is open on ${percent(window.p_open)} of benches.`,
    `Land torn: ${percent(land?.p_torn ?? 0)}; ${spared}.`,
    next
      ? `${Math.round(minutes ?? 0)} min in all; next best, ${next.name.toLowerCase()}: ${next.why}.`
      : `${Math.round(minutes ?? 0)} min in all; nothing else here does it.`,
  ];
}
