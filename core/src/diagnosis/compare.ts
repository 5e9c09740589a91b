/**
 * Suspects from good-board readings alone, when nobody has drawn the circuit: which nets read too low or too
 * high, and which parts stand on them. Coarser than the dictionary, on the same priors.
 */
import { type BoardModel, classOfPart, isGroundNet, type PartClass, type PlacedPart } from '../board/index.ts';
import { compareReading, type Measured, type Quantity } from '../ground/index.ts';
import { NONE, NONE_PRIOR, SIGNS, WEIGHTS, type Sign, type Weights } from './priors.ts';

export interface Compared {
  net: string;
  quantity: Quantity;
  value: Measured;
  good: Measured;
}

export interface ComparedSuspect {
  ref: string;
  partId: string;
  p: number;
  /** Indices of the readings that speak for it, and against it. */
  speaksFor: number[];
  against: number[];
}

/** Parts that carry a net's current on: what is low on one side is low on the other. */
const SERIES = new Set<PartClass>(['coil', 'ferrite', 'fuse', 'shunt']);

/** P(low, same, high) of a reading on a net, by what the hypothesis does there. */
const READS = {
  pulled: [0.86, 0.1, 0.04],
  behind: [0.6, 0.32, 0.08],
  opened: [0.06, 0.44, 0.5],
  untouched: [0.05, 0.9, 0.05],
} as const;
/** A reading this many times too low or too high does not happen by itself. */
const FAR = 5;
const FAR_BY_ITSELF = 0.012;

/** How far a reading is from the good one: OL against a number is far. */
function isFar(value: Measured, good: Measured): boolean {
  if (value === 'OL' || good === 'OL') return value !== good;
  return Math.abs(Math.log(Math.max(value, 0.05) / Math.max(good, 0.05))) > Math.log(FAR);
}

/** Ranks the parts of a board by readings beside a good board's. `seen`: what eyes found. */
export function rankByComparison(
  board: Pick<BoardModel, 'parts'>,
  readings: readonly Compared[],
  seen: readonly { partId: string; sign: Sign }[] = [],
): ComparedSuspect[] {
  // a part whose nets nobody knows is known by what was read at it
  const readAt = new Set(readings.map((r) => r.net));
  const netsOfPart = (p: PlacedPart) => {
    const nets = new Set(Object.values(p.nets ?? {}));
    if (readAt.has(p.partId)) nets.add(p.partId);
    return [...nets].filter((n) => !isGroundNet(n));
  };
  const joined = new Map<string, Set<string>>();
  for (const part of board.parts)
    if (SERIES.has(classOfPart(part)))
      for (const a of netsOfPart(part))
        for (const b of netsOfPart(part)) (joined.get(a) ?? joined.set(a, new Set()).get(a))?.add(b);
  const judged = readings.map((r) => ({ ...r, reads: compareReading(r.value, r.good, r.quantity) }));
  const index = { low: 0, same: 1, high: 2 } as const;
  const lows = judged.flatMap((r) => (r.reads === 'low' && typeof r.value === 'number' ? [r.value] : []));
  const lowest = Math.max(Math.min(...lows), 0.05);

  const judge = (part: PlacedPart, way: 'short' | 'open') => {
    const own = new Set(netsOfPart(part));
    let ln = 0;
    const voices = judged.map((r) => {
      if (r.reads === null) return 0;
      const near = [...own].some((n) => joined.get(n)?.has(r.net));
      const kind = own.has(r.net)
        ? way === 'short'
          ? 'pulled'
          : 'opened'
        : near && way === 'short'
          ? 'behind'
          : 'untouched';
      let p: number = READS[kind][index[r.reads]];
      // of several low places on one line the lowest lies nearest to the short
      if (r.reads === 'low' && kind === 'pulled' && typeof r.value === 'number' && r.quantity === 'ohm')
        p *= 1 / (1 + Math.log(Math.max(r.value, 0.05) / lowest));
      const far = r.reads !== 'same' && isFar(r.value, r.good);
      const byItself = far ? FAR_BY_ITSELF : READS.untouched[index[r.reads]];
      // a short makes nothing read too high, an open path nothing too low
      const besides = kind === 'untouched' || r.reads === (way === 'short' ? 'high' : 'low');
      return besides ? 0 : Math.log(p / byItself);
    });
    for (const v of voices) ln += v;
    return { ln, voices };
  };

  const list = board.parts.flatMap((part) => {
    if (netsOfPart(part).length === 0 && !seen.some((s) => s.partId === part.partId)) return [];
    const weights: Weights = WEIGHTS[classOfPart(part)];
    const short =
      (weights.short ?? 0) +
      (weights.leaky ?? 0) +
      (weights.pins ?? 0) +
      (weights.gs ?? 0) +
      (weights.gd ?? 0) +
      (weights.be ?? 0);
    const open = (weights.open ?? 0) + (weights.up ?? 0);
    const silent = weights.dead ?? 0;
    const signs = seen.filter((s) => s.partId === part.partId).reduce((f, s) => f * SIGNS[s.sign], 1);
    const [s, o] = [judge(part, 'short'), judge(part, 'open')];
    const [ps, po] = [short * Math.exp(s.ln), open * Math.exp(o.ln)];
    return [{ part, score: signs * (ps + po + silent), voices: ps >= po ? s.voices : o.voices }];
  });
  const total = list.reduce((sum, x) => sum + x.score, 0) || 1;
  const suspects = list.map(({ part, score, voices }): ComparedSuspect => ({
    ref: part.ref ?? part.partId,
    partId: part.partId,
    p: (1 - NONE_PRIOR) * (score / total),
    speaksFor: voices.flatMap((v, i) => (v > 0.3 ? [i] : [])),
    against: voices.flatMap((v, i) => (v < -0.3 ? [i] : [])),
  }));
  suspects.push({ ref: NONE, partId: '', p: NONE_PRIOR, speaksFor: [], against: [] });
  return suspects.sort((a, b) => b.p - a.p);
}

/** A plug that all low lines come out at: what hangs on it is off the board before anything on it is suspected. Null without one. */
export function unplugFirst(board: Pick<BoardModel, 'parts'>, readings: readonly Compared[]): string | null {
  const low = readings.filter((r) => compareReading(r.value, r.good, r.quantity) === 'low').map((r) => r.net);
  if (low.length === 0) return null;
  const plug = board.parts.find((p) => {
    const own = new Set(Object.values(p.nets ?? {}));
    return classOfPart(p) === 'conn' && low.every((net) => own.has(net));
  });
  return plug ? (plug.ref ?? plug.partId) : null;
}
