/**
 * Which reading to take next: expected information per minute, and what no reading can tell apart.
 * Source: expected information gain (Lindley 1956) over the bins of `evidence`.
 */
import { type CircuitPart, isPowered, modelNet, railsOf } from '../circuit/index.ts';
import { entropy, answers, type Expected } from './evidence.ts';
import { testKey, type Dictionary, type Test } from './dictionary.ts';
import { NONE } from './priors.ts';
import { columnOf, type Ranking, type Taken } from './rank.ts';

/** Minutes that measuring costs: the first reading of its kind; one more with the same black probe takes `again`. */
const MINUTES = {
  again: 0.13,
  toGround: 0.4,
  across: 0.5,
  volts: 0.6,
  current: 0.3,
  liftLeg: 4,
  refit: 8,
  warmth: 4,
  profile: 3,
  /** Legs at two sides; at many or fine pitch; with a pad under it. */
  swapIc: { few: 15, many: 22, pad: 35 },
} as const;

/** An IC with more pins than this has them round it or at fine pitch. */
const MANY_PINS = 16;
/** A pad or tab under the body: it goes off and on by air only. So do balls, all named by row and column. */
const PAD_PIN = /^(EP|PAD|TAB)$/i;
const BALL = /^[A-Z]{1,2}\d{1,2}$/;

/** Below this a further reading is not worth its time, bits per minute. */
const WORTH = 0.01;
const SURE = 0.95;

/** What has to be read before a part is named: at a place under power where there is power, else at a place in any way. */
export function wantedTest(
  dictionary: Dictionary,
  ranking: Ranking,
  readings: readonly Taken[],
  { nets, ...power }: { nets: ReadonlySet<string>; allowPower: boolean; unread?: readonly string[] },
): NextTest | undefined {
  const { netlist } = dictionary;
  const offered = nextTests(dictionary, ranking, readings, { ...power, most: Infinity }).filter((t) =>
    [t.red, t.black].some((net) => nets.has(modelNet(netlist, net))),
  );
  return offered.find((t) => t.type === 'dcv') ?? offered[0];
}

export interface NextTest extends Test {
  bits: number;
  minutes: number;
  /** What a healthy board shows there, on the scale of `evidence`. */
  healthy: number;
  /** What the likeliest suspects would show there. */
  expects: { ref: string; p: number; expected: Expected }[];
}

/** What a test may show, for hypotheses that expect the same. */
interface Answer {
  expected: Expected;
  p: Float64Array;
  entropy: number;
}

/** Per test: which answer each hypothesis leads to. Computed once per dictionary. */
interface Outlook {
  of: Int16Array;
  kinds: Answer[];
}

/** A part that is less likely than this, beside all of which anything is known, adds nothing to what a reading tells. */
const NEGLIGIBLE = 1e-7;

const partsKnown = new WeakMap<Dictionary, number[][]>();

/** Hypotheses of each part: what a reading tells of the ohms of its fault, or which of its pins, mends nothing. */
function partsOf(dictionary: Dictionary): number[][] {
  const known = partsKnown.get(dictionary);
  if (known) return known;
  const byRef = new Map<string, number[]>();
  dictionary.hypotheses.forEach(({ ref }, h) => {
    const own = byRef.get(ref);
    if (own) own.push(h);
    else byRef.set(ref, [h]);
  });
  const parts = [...byRef.values()];
  partsKnown.set(dictionary, parts);
  return parts;
}

const outlooks = new WeakMap<Dictionary, Outlook[]>();

function outlooksOf(dictionary: Dictionary): Outlook[] {
  const known = outlooks.get(dictionary);
  if (known) return known;
  const { tests, hypotheses, expected, spread } = dictionary;
  const wide = tests.length;
  const made = tests.map(({ type }, t): Outlook => {
    const kinds: Answer[] = [];
    const index = new Map<string, number>();
    const of = Int16Array.from(hypotheses, (_, h) => {
      const y = expected[h * wide + t];
      const s = spread[h * wide + t];
      if (Number.isNaN(y)) return -1;
      // closer than a sixth of the spread makes no difference to what can be learnt
      const key = `${Math.round((6 * y) / s)} ${Math.round(8 * Math.log(s))}`;
      let k = index.get(key);
      if (k === undefined) {
        const p = answers(type, { y, s });
        k = kinds.push({ expected: { y, s }, p, entropy: entropy(p) }) - 1;
        index.set(key, k);
      }
      return k;
    });
    return { of, kinds };
  });
  outlooks.set(dictionary, made);
  return made;
}

/** Answers in these shares of `sum`. */
function mixedOf(kinds: readonly Answer[], shares: Float64Array, sum: number): Float64Array {
  const mixed = new Float64Array(kinds[0].p.length);
  kinds.forEach(({ p }, k) => {
    const w = shares[k] / sum;
    if (w > 0) for (let b = 0; b < p.length; b++) mixed[b] += w * p[b];
  });
  return mixed;
}

/** Minutes of a reading after `last`. `powered`: whether the board has been under power since it was last worked on. */
function minutesOf(
  test: Test,
  last: Test | undefined,
  { ground, powered, firstPower }: { ground: string; powered: boolean; firstPower: number },
): number {
  if (last && last.type === test.type && last.black === test.black && last.state === test.state) return MINUTES.again;
  if (test.type === 'isup') return MINUTES.current + (powered ? 0 : firstPower);
  if (test.type === 'dcv') return MINUTES.volts + (powered ? 0 : firstPower);
  return test.black === ground || test.red === ground ? MINUTES.toGround : MINUTES.across;
}

/**
 * Readings worth taking, the most information per minute first. `allowPower`: the short check lets power on.
 * `unread`: rails that must be read before it does; reading them is credited with what power would tell then.
 */
export function nextTests(
  dictionary: Dictionary,
  ranking: Ranking,
  readings: readonly Taken[],
  { allowPower, unread = [], most = 8 }: { allowPower: boolean; unread?: readonly string[]; most?: number },
): NextTest[] {
  const { netlist, tests, hypotheses } = dictionary;
  const done = new Set(readings.map((r) => columnOf(dictionary, r)));
  const powered = readings.some((r) => isPowered(r.type));
  const unchecked = railsOf(netlist).filter((net) => !readings.some((r) => r.type === 'ohm' && r.red === net)).length;
  const shorted = hypotheses.reduce((sum, h, k) => sum + (h.mode === 'short' ? ranking.p[k] : 0), 0);
  const firstPower = (2 + 0.4 * unchecked + 0.2 * shorted * 15) / 3;
  const looks = outlooksOf(dictionary);
  const parts = partsOf(dictionary);
  const held = parts.map((part) => part.reduce((sum, h) => sum + ranking.p[h], 0));
  const list: NextTest[] = [];
  tests.forEach((test, t) => {
    if (done.has(t) || (isPowered(test.type) && !allowPower && unread.length === 0)) return;
    const { of, kinds } = looks[t];
    const share = new Float64Array(kinds.length);
    let known = 0;
    for (let h = 0; h < hypotheses.length; h++)
      if (of[h] >= 0) {
        share[of[h]] += ranking.p[h];
        known += ranking.p[h];
      }
    if (known <= 0) return;
    const mixed = mixedOf(kinds, share, known);
    let within = 0;
    const own = new Float64Array(kinds.length);
    for (const [n, part] of parts.entries()) {
      if (held[n] < NEGLIGIBLE * known) continue;
      own.fill(0);
      let sum = 0;
      let most = 0;
      for (const h of part)
        if (of[h] >= 0) {
          own[of[h]] += ranking.p[h];
          sum += ranking.p[h];
          most = Math.max(most, own[of[h]]);
        }
      if (sum < NEGLIGIBLE * known) continue;
      const e = most > 0.999 * sum ? kinds[own.indexOf(most)].entropy : entropy(mixedOf(kinds, own, sum));
      within += (sum / known) * e;
    }
    const bits = Math.max(0, known * (entropy(mixed) - within));
    const minutes = minutesOf(test, readings.at(-1), { ground: netlist.ground, powered, firstPower });
    list.push({ ...test, bits, minutes, healthy: dictionary.healthy[t], expects: [] });
  });
  // the way to power: all unread rails, switching on, one reading
  const powerful = list.filter((n) => isPowered(n.type)).reduce((best, n) => Math.max(best, n.bits), 0);
  const toPower = unread.length * MINUTES.toGround + firstPower + MINUTES.volts;
  const opens = (n: NextTest) => n.type === 'ohm' && n.black === netlist.ground && unread.includes(n.red);
  if (!allowPower && unread.length)
    for (const n of list) if (opens(n)) n.bits += ((1 - shorted) * powerful * n.minutes) / toPower;
  const offered = list.filter((n) => allowPower || !isPowered(n.type));
  const rails = new Set(railsOf(netlist));
  const read = new Set(readings.flatMap((r) => (r.type === 'ohm' ? [r.red, r.black] : [])));
  const worth = (n: NextTest) => (n.bits / n.minutes) * plainness(n, { rails, read });
  const ranked = offered.sort((a, b) => worth(b) - worth(a)).slice(0, most);
  for (const next of ranked) next.expects = expectsOf(dictionary, ranking, next);
  return ranked;
}

/**
 * Ohms before diode mode: what a tester's milliampere drops over a supply's chips is known to a fifth at best, and on a rail it says little that its
 * ohms have not said. Diode mode is for gates and ports.
 */
const PLAIN = { diode: 0.6, diodeOnRail: 0.25 };

function plainness(
  { type, red, black }: Test,
  { rails, read }: { rails: ReadonlySet<string>; read: ReadonlySet<string> },
): number {
  if (type !== 'diode') return 1;
  const fresh = [red, black].find((net) => rails.has(net) && !read.has(net));
  return fresh === undefined ? PLAIN.diode : PLAIN.diodeOnRail;
}

/** What the likeliest faults would show in a test, three at most that differ. */
function expectsOf(dictionary: Dictionary, ranking: Ranking, test: Test): NextTest['expects'] {
  const { tests, hypotheses, expected, spread } = dictionary;
  const t = tests.findIndex((x) => testKey(x) === testKey(test));
  const order = [...hypotheses.keys()].sort((a, b) => ranking.p[b] - ranking.p[a]).slice(0, 24);
  const list: NextTest['expects'] = [];
  for (const h of order) {
    const [y, s] = [expected[h * tests.length + t], spread[h * tests.length + t]];
    if (Number.isNaN(y) || ranking.p[h] < 0.01) continue;
    const alike = list.find((e) => e.ref === hypotheses[h].ref || Math.abs(e.expected.y - y) < 2 * s);
    if (!alike) list.push({ ref: hypotheses[h].ref, p: ranking.p[h], expected: { y, s } });
    if (list.length === 3) break;
  }
  return list;
}

/** True when a test that may be taken tells two hypotheses apart by more than two combined sigma. */
function separable(dictionary: Dictionary, a: number, b: number, allowed: readonly number[]): boolean {
  const { tests, expected, spread } = dictionary;
  const wide = tests.length;
  return allowed.some((t) => {
    const [i, k] = [a * wide + t, b * wide + t];
    const apart = Math.abs(expected[i] - expected[k]);
    return apart > 2 * Math.hypot(spread[i], spread[k]);
  });
}

export interface Group {
  refs: string[];
  p: number;
}

/**
 * Parts whose likely faults no allowed reading tells apart, likeliest group first. Faults below `least` of
 * the best one are left out.
 */
export function ambiguityGroups(dictionary: Dictionary, ranking: Ranking, allowPower: boolean, least = 0.02): Group[] {
  const { tests, hypotheses } = dictionary;
  const allowed = tests.flatMap((t, i) => (isPowered(t.type) && !allowPower ? [] : [i]));
  // one fault in several ranges of ohms is one; where it is likeliest stands for it
  const share = new Map<number, number>();
  const first = new Map<string, number>();
  for (const h of [...hypotheses.keys()].sort((a, b) => ranking.p[b] - ranking.p[a])) {
    const { ref, mode, where } = hypotheses[h];
    const name = `${ref}|${mode}|${where}`;
    const at = first.get(name) ?? h;
    first.set(name, at);
    share.set(at, (share.get(at) ?? 0) + ranking.p[h]);
  }
  const of = (h: number) => share.get(h) ?? 0;
  const order = [...share.keys()].sort((a, b) => of(b) - of(a));
  const top = of(order[0]);
  const open = order.filter((h) => of(h) >= least * top && of(h) > 1e-4);
  const groups: Group[] = [];
  while (open.length && groups.length < 12) {
    const [head] = open;
    const members = open.filter((h) => h === head || !separable(dictionary, head, h, allowed));
    for (const h of members) open.splice(open.indexOf(h), 1);
    const refs = [...new Set(members.map((h) => hypotheses[h].ref))];
    const p = members.reduce((sum, h) => sum + of(h), 0);
    // two ways of the same parts to fail are mended alike
    const same = groups.find((g) => g.refs.length === refs.length && refs.every((ref) => g.refs.includes(ref)));
    if (same) same.p += p;
    else groups.push({ refs, p });
  }
  return groups.sort((a, b) => b.p - a.p);
}

/** Ways to tell parts apart that no reading can. */
export const SPLITS = ['warmth', 'profile', 'lift', 'swap', 'look'] as const;

export interface Split {
  how: (typeof SPLITS)[number];
  minutes: number;
}

/** Minutes to take an IC off and put a good one on, by what its pins say of its kind. */
function swapMinutes({ pins }: CircuitPart): number {
  const names = Object.keys(pins);
  if (names.some((pin) => PAD_PIN.test(pin)) || names.every((pin) => BALL.test(pin))) return MINUTES.swapIc.pad;
  const highest = Math.max(names.length, ...names.flatMap((pin) => (/^\d+$/.test(pin) ? [Number(pin)] : [])));
  return highest > MANY_PINS ? MINUTES.swapIc.many : MINUTES.swapIc.few;
}

/** The ways to tell the members of a group apart, cheapest first. */
export function splitsOf(dictionary: Dictionary, ranking: Ranking, group: Group): Split[] {
  const { hypotheses, netlist } = dictionary;
  if (group.refs.length < 2) return [];
  const likely = hypotheses.filter((h, k) => group.refs.includes(h.ref) && ranking.p[k] > 0.01 * group.p);
  const conducts = likely.some((h) => h.mode === 'short' || h.mode === 'leaky');
  const ics = netlist.parts.filter((p) => p.kind === 'IC' && group.refs.includes(p.ref));
  const legs = group.refs.filter((ref) => ref !== NONE).length - ics.length;
  const splits: Split[] = [{ how: 'look', minutes: 0.5 }];
  if (conducts) splits.push({ how: 'profile', minutes: MINUTES.profile }, { how: 'warmth', minutes: MINUTES.warmth });
  if (legs > 0) splits.push({ how: 'lift', minutes: ((legs + 1) / 2) * MINUTES.liftLeg });
  if (ics.length > 0 && legs === 0)
    splits.push({ how: 'swap', minutes: ics.reduce((sum, ic) => sum + swapMinutes(ic), 0) });
  return splits.sort((a, b) => a.minutes - b.minutes);
}

/** Whether the search is over, and why. `before`: the best group's share one reading earlier. */
export function verdict(
  groups: readonly Group[],
  next: readonly NextTest[],
  before: number,
): { done: boolean; why: string } {
  const best = groups[0]?.p ?? 0;
  if (best > SURE && before > SURE) return { done: true, why: 'the last two readings agree on it' };
  const top = next[0];
  if (!top || top.bits / top.minutes < WORTH) return { done: true, why: 'no further reading would tell more' };
  return { done: false, why: '' };
}
