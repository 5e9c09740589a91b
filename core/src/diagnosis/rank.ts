/**
 * Bayesian ranking of single faults (and a chosen pair, and "none of these") from what was read, seen,
 * tested off the board and swapped. Source: Bayes with the likelihoods of `evidence`; weights of `priors`.
 */
import { isPowered, type MeterType, modelNet } from '../circuit/index.ts';
import type { Measured } from '../ground/index.ts';
import { flat, likelihood, onScale, twinSpread, type Expected } from './evidence.ts';
import { spreadAt, testKey, type Dictionary, type Test } from './dictionary.ts';
import type { Hypothesis } from './hypotheses.ts';
import { placeFactor, type OnRail } from './onRail.ts';
import {
  BESIDE_ACQUITTED_FACTOR,
  NONE,
  NONE_PRIOR,
  shopFactor,
  SIGNS,
  VICTIM_FACTOR,
  type Sign,
  type Swap,
} from './priors.ts';

/** A reading that was taken. */
export interface Taken {
  type: MeterType;
  red: string;
  black: string;
  state: string | null;
  value: Measured;
  /** What the meter showed, leads and all; `value` without. */
  shown?: Measured;
  /** What a good board, or the other channel, reads there. */
  good?: Measured;
  /** What the meter may be off by, on the scale of `evidence`. */
  error?: number;
}

/** All that is known besides the readings. */
export interface Circumstances {
  seen?: { ref: string; sign: Sign }[];
  /** Parts taken off and tested alone; `recovered`: the board's line came back without it. */
  offBoard?: { ref: string; result: 'bad' | 'good'; recovered?: boolean }[];
  /** Parts swapped for good ones, or with a leg in the air: did the fault go with the part? */
  swapped?: { ref: string; followed: boolean; how?: Swap | undefined }[];
  /** Culprits of earlier jobs on this kind of board. */
  shop?: { jobs: number; culprits: Record<string, number> };
  /** Parts whose failure tends to come with a culprit that was found. */
  companions?: string[];
  /** Parts that feed or command one that was acquitted. */
  besideAcquitted?: string[];
  /** Millivolts along rails. */
  onRails?: readonly OnRail[];
  /** Whether software can imitate the complaint. */
  software?: 'possible' | 'ruled out';
}

interface Suspect {
  ref: string;
  mode: string;
  where: string;
  p: number;
}

export interface Ranking {
  /** Probability of each hypothesis of the dictionary, in its order, and whose it is. */
  p: Float64Array;
  refs: readonly string[];
  none: number;
  software: number;
  suspects: Suspect[];
  parts: { ref: string; p: number }[];
  /** Readings that no test of the dictionary stands for. */
  unused: Taken[];
  /** All hypotheses find the readings so unlikely that something is amiss with them. */
  contradiction: boolean;
}

/** Name under which a fault of software stands in a ranking. */
export const SOFTWARE = 'software';
const SOFTWARE_PRIOR = 0.08;
/** P(short off the board): of a culprit, of an innocent part. */
const OFF_BOARD = { culprit: 0.97, innocent: 0.01 };
/** Chance that a fault is gone without the part: of a culprit, of an innocent part. A new part may be bad itself, a lifted leg may have been the joint. */
const GONE: Record<Swap, { culprit: number; innocent: number }> = {
  'good board': { culprit: 0.97, innocent: 0.0097 },
  'new part': { culprit: 0.97, innocent: 0.0097 },
  'leg lifted': { culprit: 0.97, innocent: 0.0194 },
};

/** Column of a reading, with its nets as the model names them; −1 when the dictionary has none. */
export function columnOf(dictionary: Dictionary, reading: Pick<Taken, keyof Test>): number {
  const { netlist, column } = dictionary;
  const [red, black] = [modelNet(netlist, reading.red), modelNet(netlist, reading.black)];
  return column.get(testKey({ ...reading, red, black })) ?? -1;
}

/** How far readings stray, on the scale of `evidence`, where each of several faults has ohms of its own. */
const OWN_OHMS: Record<MeterType, number> = { ohm: 1, cont: 1, diode: 0.05, dcv: 1, isup: 1 };

/** What a hypothesis expects of a reading: where, how wide, and how that moves with the ohms of its short. */
interface Forecast extends Expected {
  bend: number;
}

/**
 * What hypothesis `h` expects in column `t`. With a good board's value beside the reading, the model is
 * moved to where that board stands, as far as the fault leaves the reading alone, and trusted more closely. Null where nothing can be said: the
 * circuit could not be solved, or a good board shows that it knows too little of the net that the fault is on.
 */
function forecast(dictionary: Dictionary, h: number, t: number, taken: Pick<Taken, 'good' | 'error'>): Forecast | null {
  const { good, error = 0 } = taken;
  const { tests, healthy, expected, bend: bends, hypotheses } = dictionary;
  const at = h * tests.length + t;
  const y = expected[at];
  if (Number.isNaN(y)) return null;
  const { type } = tests[t];
  const { loose } = hypotheses[h];
  if (loose) {
    const s = spreadAt(dictionary, t, y);
    // what the faults move follows the ohms of whichever of them is near
    const moved = Math.abs(y - healthy[t]) > 2 * s;
    const stray = type === 'dcv' ? (loose.by ?? OWN_OHMS.dcv) : OWN_OHMS[type];
    return { y, s: Math.hypot(s, error, moved ? stray : 0), bend: 0 };
  }
  const bend = bends[at];
  if (good === undefined || good === 'OL') return { y, s: Math.hypot(spreadAt(dictionary, t, y), error), bend };
  const base = healthy[t];
  const kept = keptAt(dictionary, t, y);
  if (isFarFromGood(dictionary, t, good) && kept > 0.5 && touches(dictionary, h, t)) return null;
  const s = kept * twinSpread(type) + (1 - kept) * spreadAt(dictionary, t, y);
  return { y: y + kept * (onScale(type, good) - base), s: Math.hypot(s, error), bend };
}

/** How far a fault leaves a reading where the healthy circuit has it: 1 where it is, towards 0 where it is moved. */
function keptAt(dictionary: Dictionary, t: number, y: number): number {
  const base = dictionary.healthy[t];
  const far = Math.abs(y - base) / spreadAt(dictionary, t, base);
  return Math.exp(-0.5 * far * far);
}

/** A good board this many spreads from the healthy circuit has something on the net that the circuit does not know, a source of its own say. */
const UNKNOWN = 4;

function isFarFromGood(dictionary: Dictionary, t: number, good: Measured): boolean {
  const base = dictionary.healthy[t];
  if (good === 'OL') return false;
  return Math.abs(onScale(dictionary.tests[t].type, good) - base) > UNKNOWN * spreadAt(dictionary, t, base);
}

/** Whether a fault may move what is read at nets of its part: under power any of them, without only those of its faulty pins. */
function touches({ netlist, tests, hypotheses }: Dictionary, h: number, t: number): boolean {
  const { ref, mode, faults } = hypotheses[h];
  const { type, red, black } = tests[t];
  if (!isPowered(type) && (mode === 'dead' || mode === 'asleep')) return false;
  const parts = new Map(netlist.parts.map((p) => [p.ref, p.pins]));
  const whole =
    isPowered(type) && ref !== NONE ? ref.split(' + ').flatMap((r) => Object.values(parts.get(r) ?? {})) : [];
  const own = faults.flatMap(({ ref: r, pin, pins }) => {
    const named = pins ?? (pin === undefined ? Object.keys(parts.get(r) ?? {}) : [pin]);
    return named.map((p) => parts.get(r)?.[p] ?? p);
  });
  return [red, black].some((net) => net !== netlist.ground && (own.includes(net) || whole.includes(net)));
}

/** Chance that a fault leaves alone what the circuit knows too little of to say. */
const LEFT_ALONE = 0.5;

/** Nodes and weights over the spread of ln r, in units of it (a standard normal in seven steps). */
const NODES = [-2.4, -1.6, -0.8, 0, 0.8, 1.6, 2.4].map((x) => ({ x, w: Math.exp(-0.5 * x * x) }));
const NODE_SUM = NODES.reduce((sum, { w }) => sum + w, 0);
/** A reading that moves less than this with the ohms of the fault does not care about them. */
const STIFF = 0.05;

/**
 * ln of the chance of all readings under one hypothesis. A short has the same ohms in every reading: they
 * are averaged over once for all of them, not reading by reading.
 */
function lnRecord(dictionary: Dictionary, h: number, record: readonly (readonly [number, Taken])[]): number {
  const { tests, hypotheses } = dictionary;
  const { spared = 0 } = hypotheses[h].loose ?? {};
  let ln = 0;
  const moving: { taken: Taken; f: Forecast }[] = [];
  for (const [t, taken] of record) {
    const f = forecast(dictionary, h, t, taken);
    if (f && Math.abs(f.bend) > STIFF) moving.push({ taken, f });
    else {
      const { type } = tests[t];
      const hit = f ? likelihood(type, taken.value, f) : flat(type);
      const unknown = f === null && taken.good !== undefined && isFarFromGood(dictionary, t, taken.good);
      const left = unknown ? LEFT_ALONE : spared;
      const well = left > 0 ? likelihood(type, taken.value, asHealthy(dictionary, t, taken)) : 0;
      ln += Math.log((1 - left) * hit + left * well);
    }
  }
  if (moving.length === 0) return ln;
  let sum = 0;
  for (const { x, w } of NODES) {
    let product = w / NODE_SUM;
    for (const { taken, f } of moving)
      product *= likelihood(taken.type, taken.value, { y: f.y + x * f.bend, s: Math.hypot(f.s, 0.4 * f.bend) });
    sum += product;
  }
  return ln + Math.log(sum);
}

/** What the healthy circuit shows, moved to where a good board stands. */
function asHealthy(dictionary: Dictionary, t: number, { good, error = 0 }: Pick<Taken, 'good' | 'error'>): Expected {
  const { type } = dictionary.tests[t];
  const y = dictionary.healthy[t];
  if (good === undefined || good === 'OL') return { y, s: Math.hypot(spreadAt(dictionary, t, y), error) };
  return { y: onScale(type, good), s: Math.hypot(twinSpread(type), error) };
}

/** What a hypothesis expects of one reading, all causes of spread together. */
function expectation(
  dictionary: Dictionary,
  h: number,
  t: number,
  taken: Pick<Taken, 'good' | 'error'>,
): Expected | null {
  const f = forecast(dictionary, h, t, taken);
  return f && { y: f.y, s: Math.hypot(f.s, f.bend) };
}

/** What earlier jobs of the shop make of each part's weight: a factor, by name. */
export function shopFactors(
  hypotheses: readonly Hypothesis[],
  { jobs, culprits }: NonNullable<Circumstances['shop']>,
): Map<string, number> {
  const perRef = new Map<string, number>();
  for (const h of hypotheses) perRef.set(h.ref, (perRef.get(h.ref) ?? 0) + h.weight);
  const total = [...perRef.values()].reduce((sum, w) => sum + w, 0);
  return new Map([...perRef].map(([ref, w]) => [ref, shopFactor(w / total, culprits[ref] ?? 0, jobs)]));
}

/** Share of each part before any reading: weights, shop's history, what goes together with a known culprit. */
function priors(
  hypotheses: readonly Hypothesis[],
  { shop, companions = [], besideAcquitted = [] }: Circumstances,
): Float64Array {
  const total = hypotheses.reduce((sum, h) => sum + h.weight, 0);
  const raisedBy = shop && shopFactors(hypotheses, shop);
  const p = Float64Array.from(hypotheses, (h) => {
    const own = raisedBy?.get(h.ref) ?? 1;
    const raised = companions.includes(h.ref)
      ? VICTIM_FACTOR
      : besideAcquitted.includes(h.ref)
        ? BESIDE_ACQUITTED_FACTOR
        : 1;
    return (h.weight / total) * own * raised;
  });
  const sum = p.reduce((a, b) => a + b, 0);
  return p.map((x) => x / sum);
}

/** ln of what eyes, tests off the board and swaps say about a hypothesis. */
function circumstantial(h: Hypothesis, c: Circumstances): number {
  let ln = 0;
  for (const { ref, sign } of c.seen ?? []) if (ref === h.ref) ln += Math.log(SIGNS[sign]);
  for (const { ref, result, recovered } of c.offBoard ?? []) {
    const conducts = h.mode === 'short' || h.mode === 'leaky';
    if (ref === h.ref && h.mode !== 'joint' && h.mode !== 'bridge') {
      // a part that tests well is cleared of its shorts only: it may still be silent or fail under voltage
      const judged = result === 'bad' || conducts;
      const p = result === 'bad' ? OFF_BOARD.culprit : 1 - OFF_BOARD.culprit;
      if (judged) ln += Math.log(p);
      else ln += Math.log(0.6);
      if (recovered === false && conducts) ln += Math.log(0.05);
      if (recovered === true) ln += Math.log(0.95);
    } else {
      ln += Math.log(result === 'bad' ? OFF_BOARD.innocent : 1 - OFF_BOARD.innocent);
      // without the part the line is still bad, or well again
      if (recovered === true) ln += Math.log(ref === h.ref ? 0.6 : 0.03);
    }
  }
  for (const { ref, followed, how = 'good board' } of c.swapped ?? []) {
    const own = ref === h.ref && h.mode !== 'joint' && h.mode !== 'bridge';
    // a leg in the air says nothing of a part that pulls nothing down
    if (how === 'leg lifted' && own && h.mode !== 'short' && h.mode !== 'leaky') continue;
    const p = own ? GONE[how].culprit : GONE[how].innocent;
    ln += Math.log(followed ? p : 1 - p);
  }
  return ln;
}

/** Ranks the dictionary's hypotheses. A later reading of the same test replaces the earlier one. */
export function rank(dictionary: Dictionary, readings: readonly Taken[], circumstances: Circumstances = {}): Ranking {
  const { hypotheses, tests } = dictionary;
  const unused: Taken[] = [];
  const last = new Map<number, Taken>();
  for (const r of readings) {
    const t = columnOf(dictionary, r);
    if (t < 0) unused.push(r);
    else last.set(t, r);
  }
  const prior = priors(hypotheses, circumstances);
  const software = circumstances.software === 'possible' ? SOFTWARE_PRIOR : 0;
  const rest = 1 - NONE_PRIOR - software;
  const { onRails = [] } = circumstances;
  const ln = Float64Array.from(
    hypotheses,
    (h, k) =>
      Math.log(rest * prior[k]) +
      circumstantial(h, circumstances) +
      Math.log(placeFactor(dictionary.netlist, h, onRails)),
  );
  let lnNone = Math.log(NONE_PRIOR);
  let lnSoftware = software > 0 ? Math.log(software) : -Infinity;
  const innocent = circumstantial({ ref: '', mode: 'dead', where: '', faults: [], weight: 0, vague: 0 }, circumstances);
  lnNone += innocent;
  lnSoftware += innocent;
  for (const [t, r] of last) {
    const { type } = tests[t];
    lnNone += Math.log(flat(type));
    // software leaves a healthy circuit
    const y = dictionary.healthy[t];
    lnSoftware += Math.log(likelihood(type, r.value, { y, s: spreadAt(dictionary, t, y) }));
  }
  const record = [...last];
  hypotheses.forEach((_, h) => (ln[h] += lnRecord(dictionary, h, record)));
  let most = Math.max(lnNone, lnSoftware);
  for (const x of ln) most = Math.max(most, x);
  const p = ln.map((x) => Math.exp(x - most));
  let none = Math.exp(lnNone - most);
  let soft = Math.exp(lnSoftware - most);
  const sum = p.reduce((a, b) => a + b, none + soft);
  for (let h = 0; h < p.length; h++) p[h] /= sum;
  const unexplained = none / sum;
  soft /= sum;
  const perRef = new Map<string, number>([[NONE, unexplained]]);
  const perFault = new Map<string, Suspect>();
  hypotheses.forEach(({ ref, mode, where }, k) => {
    perRef.set(ref, (perRef.get(ref) ?? 0) + p[k]);
    const name = `${ref}|${mode}|${where}`;
    const known = perFault.get(name);
    if (known) known.p += p[k];
    else perFault.set(name, { ref, mode, where, p: p[k] });
  });
  none = perRef.get(NONE) ?? 0;
  const suspects: Suspect[] = [...perFault.values(), { ref: NONE, mode: '', where: '', p: unexplained }];
  const parts = [...perRef].map(([ref, share]) => ({ ref, p: share }));
  if (soft > 0) {
    suspects.push({ ref: SOFTWARE, mode: '', where: '', p: soft });
    parts.push({ ref: SOFTWARE, p: soft });
  }
  suspects.sort((a, b) => b.p - a.p);
  parts.sort((a, b) => b.p - a.p);
  return {
    p,
    refs: hypotheses.map((h) => h.ref),
    none,
    software: soft,
    suspects,
    parts,
    unused,
    contradiction: unexplained > 0.5 && last.size >= 2,
  };
}

/** Share of a part that a strong reading contradicts: no more, however far the others are behind. */
const MOST_IN_DOUBT = 0.9;

/** The ranking with its first part held down; what is taken from it goes to "none of these". */
export function heldDown(ranking: Ranking): Ranking {
  const [top] = ranking.parts;
  if (!top || top.ref === NONE || top.ref === SOFTWARE || top.p <= MOST_IN_DOUBT) return ranking;
  const f = MOST_IN_DOUBT / top.p;
  const taken = top.p - MOST_IN_DOUBT;
  const change = <T extends { ref: string; mode?: string; p: number }>(rows: T[]) =>
    rows
      .map((row) => {
        if (row.ref === top.ref) return { ...row, p: f * row.p };
        return row.ref === NONE && !row.mode ? { ...row, p: row.p + taken } : row;
      })
      .sort((a, b) => b.p - a.p);
  return {
    ...ranking,
    none: ranking.none + taken,
    p: ranking.p.map((p, h) => (ranking.refs[h] === top.ref ? f * p : p)),
    suspects: change(ranking.suspects),
    parts: change(ranking.parts),
  };
}

/** What one reading says about a part, against another. */
export interface Voice {
  reading: Taken;
  /** ln of the ratio: above 0 speaks for the part, below 0 against it. */
  weight: number;
  /** What the part's likeliest fault would show there, on the scale of `evidence`. */
  expected: Expected;
}

/** The likeliest fault of a part; null for what is none of the dictionary's. */
function likeliest({ hypotheses }: Dictionary, { p }: Ranking, ref: string): number | null {
  let best: number | null = null;
  hypotheses.forEach((h, k) => {
    if (h.ref === ref && (best === null || p[k] > p[best])) best = k;
  });
  return best;
}

/** Which readings tell a part from its `rival`, strongest first; none for what is no part of the dictionary. */
export function explain(
  dictionary: Dictionary,
  ranking: Ranking,
  readings: readonly Taken[],
  { ref, rival }: { ref: string; rival: string | null },
): Voice[] {
  const best = likeliest(dictionary, ranking, ref);
  if (best === null) return [];
  const other = rival === null ? null : likeliest(dictionary, ranking, rival);
  const last = new Map(readings.map((r) => [columnOf(dictionary, r), r]));
  return [...last]
    .flatMap(([t, reading]): Voice[] => {
      const mine = t < 0 ? null : expectation(dictionary, best, t, reading);
      if (!mine) return [];
      const { type } = dictionary.tests[t];
      const theirs = other === null ? null : expectation(dictionary, other, t, reading);
      const against = theirs ? likelihood(type, reading.value, theirs) : flat(type);
      return [{ reading, weight: Math.log(likelihood(type, reading.value, mine) / against), expected: mine }];
    })
    .sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight));
}
