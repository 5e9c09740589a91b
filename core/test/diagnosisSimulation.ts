/**
 * Technicians who look for faults that a simulated board hides: one who follows the advice, one who measures
 * in random order, one with a fixed checklist. Used by the test and by the notes.
 */
import { isPowered, readMeter } from '../src/circuit/meters.ts';
import { assemble } from '../src/circuit/network.ts';
import { NetworkSolver } from '../src/circuit/solver.ts';
import { tidied } from '../src/circuit/fromBoard.ts';
import { netsOf, type Netlist } from '../src/circuit/netlist.ts';
import { TEMPLATES } from '../src/circuit/templates.ts';
import { doubtOf } from '../src/diagnosis/conviction.ts';
import { buildDictionary, type Dictionary, type Test } from '../src/diagnosis/dictionary.ts';
import { healthySpread, offScale, onScale } from '../src/diagnosis/evidence.ts';
import { hypothesesOf, type Beside, type Hypothesis } from '../src/diagnosis/hypotheses.ts';
import { ambiguityGroups, nextTests, verdict, wantedTest } from '../src/diagnosis/next.ts';
import { powerVerdict } from '../src/diagnosis/power.ts';
import { NONE } from '../src/diagnosis/priors.ts';
import { classOf } from '../src/circuit/classOf.ts';
import { rank, type Taken } from '../src/diagnosis/rank.ts';

type Way = 'advice' | 'random' | 'checklist';

/** Uniform 0 … 1 from a seed (mulberry32). */
export function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
const normal = (random: () => number) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** Noise on every reading, in spreads of healthy boards. */
const NOISE = 1;

/** The board on the bench: its fault, its own noise. */
class HiddenBoard {
  private readonly solvers = new Map<string | null, NetworkSolver>();
  private readonly netlist: Netlist;
  private readonly fault: Hypothesis['faults'];
  private readonly random: () => number;
  constructor(netlist: Netlist, h: Hypothesis, random: () => number) {
    this.netlist = netlist;
    this.random = random;
    // a short is as good or bad as it happens to be
    const hit = h.faults.filter((_, i) => i < 2 || random() >= (h.loose?.spared ?? 0));
    this.fault = hit.map((f) => (f.r === undefined ? f : { ...f, r: f.r * Math.exp(0.7 * h.vague * normal(random)) }));
  }
  read(test: Test): Taken {
    const state = isPowered(test.type) ? test.state : null;
    let solver = this.solvers.get(state);
    if (!solver) {
      const network = assemble(this.netlist, this.fault, state);
      const pairs = [...(this.netlist.tp ?? []).map((n) => [n, this.netlist.ground]), ...this.netlist.pairs];
      solver = new NetworkSolver(
        network,
        pairs.map(([a, b]): [number, number] => [network.node(a) ?? 0, network.node(b) ?? 0]),
      );
      this.solvers.set(state, solver);
    }
    const probe = { type: test.type, ...(test.type === 'isup' ? {} : { red: test.red, black: test.black }) };
    const { value } = readMeter(solver, probe);
    if (value === 'OL') return { ...test, value };
    const y = onScale(test.type, value);
    const noisy = offScale(test.type, y + NOISE * healthySpread(test.type, y) * normal(this.random));
    const over = (test.type === 'ohm' && noisy > 6e7) || (test.type === 'diode' && noisy > 2.8);
    return { ...test, value: over ? 'OL' : noisy };
  }
}

interface Outcome {
  template: string;
  fault: string;
  readings: number;
  /** The true part is first, or in the first group. */
  hit: boolean;
  /** The first group. */
  group: string[];
  /** Why the part that would be convicted is not to be; null where nothing is said. */
  doubt: string | null;
  /** Powered although a rail was short. */
  unsafe: boolean;
  /** The share that is stated for the first group. */
  stated: number;
  /** After every reading: what is stated for the first part, and whether it is the true one. */
  steps: { stated: number; right: boolean }[];
}

const MOST = 45;

/** A board with its fault, and what is known of it. */
interface Case {
  template: string;
  board: Netlist;
  truth: Hypothesis;
  /** The dictionary of the circuit as it is drawn, which may lack the culprit. */
  d: Dictionary;
  beside?: readonly Beside[];
  seed: number;
}

/** One search from the first reading to a verdict. */
function search({ template, board: netlist, truth, d, beside = [], seed }: Case, way: Way): Outcome {
  const random = seeded(seed);
  const board = new HiddenBoard(netlist, truth, random);
  const taken: Taken[] = [];
  const order = d.tests.map((t) => ({ t, at: way === 'random' ? random() : 0 })).sort((a, b) => a.at - b.at);
  let before = 0;
  let unsafe = false;
  // of two parts together one may be all that shows
  const named = (found: string) =>
    found === truth.ref || truth.ref.split(' + ').includes(found) || found.split(' + ').includes(truth.ref);
  const steps: Outcome['steps'] = [];
  for (;;) {
    const ranking = rank(d, taken);
    const { power, unread } = powerVerdict(d, ranking, taken);
    const allowPower = power === 'allowed';
    const groups = ambiguityGroups(d, ranking, true);
    const stated = groups[0]?.p ?? 0;
    steps.push({ stated: ranking.parts[0].p, right: named(ranking.parts[0].ref) });
    const next = way === 'advice' ? nextTests(d, ranking, taken, { allowPower, unread, most: 1 }) : [];
    const goOn = { ...d.tests[0], bits: 1, minutes: 1, healthy: 0, expects: [] };
    const { done: settled } = verdict(groups, way === 'advice' ? next : [goOn], before);
    const doubt = settled ? doubtOf(d, ranking, { readings: taken, outside: [], circumstances: {}, beside }) : null;
    const nets = doubt?.unread;
    const wanted = way === 'advice' && nets ? wantedTest(d, ranking, taken, { nets, allowPower, unread }) : undefined;
    const untaken = ({ t }: { t: Test }) =>
      !taken.some((r) => r.type === t.type && r.red === t.red && r.black === t.black && r.state === t.state);
    const choice = wanted ?? (settled ? undefined : way === 'advice' ? next[0] : order.find(untaken)?.t);
    if (!choice || taken.length >= MOST) {
      const { ref, mode, where } = truth;
      const group = groups[0]?.refs ?? [];
      const hit = group.some(named) || named(ranking.parts[0].ref);
      const why = doubt?.why ?? null;
      return {
        ...{ template, fault: `${ref} ${mode} ${where}`, readings: taken.length },
        hit,
        group,
        steps,
        doubt: why,
        unsafe,
        stated,
      };
    }
    before = groups[0]?.p ?? 0;
    if (isPowered(choice.type) && !allowPower) unsafe = true;
    taken.push(board.read(choice));
  }
}

/** True when some reading shows the fault at all. */
function shows(d: Dictionary, h: number): boolean {
  const wide = d.tests.length;
  return d.tests.some((_, t) => {
    const away = Math.abs(d.expected[h * wide + t] - d.healthy[t]);
    return away > 2 * Math.hypot(d.spread[h * wide + t], healthySpread(d.tests[t].type, d.healthy[t]));
  });
}

export interface Simulation {
  faults: number;
  ways: Record<Way, { readings: number; hits: number; unsafe: number; outcomes: Outcome[] }>;
}

/** A hypothesis, drawn by weight; `of` chooses among them. */
function drawn(d: Dictionary, random: () => number, of: (h: Hypothesis, k: number) => boolean): Hypothesis | undefined {
  const pool = d.hypotheses.map((h, k) => (of(h, k) ? h.weight : 0));
  let at = random() * pool.reduce((a, b) => a + b, 0);
  return d.hypotheses[pool.findIndex((w) => (at -= w) < 0)];
}

const dictionaryOf = (netlist: Netlist, beside: readonly Beside[] = []) =>
  buildDictionary(netlist, hypothesesOf(netlist, [], beside));
const seedFrom = (random: () => number) => Math.floor(random() * 2 ** 31);

/** `count` faults drawn by their weights over all templates; `all`: also those that no reading shows. */
function casesOf(count: number, seed: number, all: boolean): Case[] {
  const random = seeded(seed);
  const known = TEMPLATES.map((t) => ({ template: t.id, board: t.netlist, d: dictionaryOf(t.netlist) }));
  return Array.from({ length: count }, (_, n): Case => {
    const one = known[n % known.length];
    const truth = drawn(one.d, random, (_h, k) => all || shows(one.d, k));
    if (!truth) throw new Error(`${one.template} shows no fault`);
    return { ...one, truth, seed: seedFrom(random) };
  });
}

/** Faults that readings show, looked for in three ways: all of them by the advice, the first third in the other ways. */
export function simulate(count: number, seed: number): Simulation {
  const cases = casesOf(count, seed, false);
  const run = (way: Way) => {
    const mine = way === 'advice' ? cases : cases.slice(0, Math.ceil(count / 3));
    const outcomes = mine.map((x) => search(x, way));
    return {
      readings: outcomes.reduce((sum, o) => sum + o.readings, 0) / mine.length,
      hits: outcomes.filter((o) => o.hit).length / mine.length,
      unsafe: outcomes.filter((o) => o.unsafe).length,
      outcomes,
    };
  };
  return { faults: count, ways: { advice: run('advice'), random: run('random'), checklist: run('checklist') } };
}

/**
 * Searches with a circuit that lacks the culprit; `known`: the board says what else stands on its nets. Those who are named alone, more than
 * 95 % and with nothing said against it, are convicted wrongly.
 */
export function simulateLacking(count: number, seed: number, known: boolean) {
  const random = seeded(seed);
  const outcomes: Outcome[] = [];
  const whole = TEMPLATES.map((t) => dictionaryOf(t.netlist));
  while (outcomes.length < count) {
    const { id: template, netlist: board } = TEMPLATES[outcomes.length % TEMPLATES.length];
    const full = whole[outcomes.length % TEMPLATES.length];
    const truth = drawn(
      full,
      random,
      (h, k) => shows(full, k) && board.parts.some((p) => p.ref === h.ref && p.kind !== 'J'),
    );
    const culprit = board.parts.find((p) => p.ref === truth?.ref);
    if (!truth || !culprit) throw new Error(`${template} shows no fault`);
    const netlist = tidied({ ...board, parts: board.parts.filter((p) => p !== culprit) });
    const nets = new Set(netsOf(netlist));
    const beside = [...nets].map((net) => ({
      net,
      parts: Object.values(culprit.pins).includes(net) ? [{ ref: culprit.ref, cls: classOf(culprit) }] : [],
    }));
    const said = known ? beside : [];
    outcomes.push(
      search(
        { template, board, truth, d: dictionaryOf(netlist, said), beside: said, seed: seedFrom(random) },
        'advice',
      ),
    );
  }
  const wrong = outcomes.filter(
    (o) => o.doubt === null && o.stated > 0.95 && o.group.length === 1 && o.group[0] !== NONE,
  );
  return { searches: count, outcomes, wrong };
}

/** What is stated for the first part after every reading of `count` searches, against how often it was so, in bins of so much. */
export function calibration(count: number, seed: number, bins: readonly number[]) {
  const steps = casesOf(count, seed, true).flatMap((x) => search(x, 'advice').steps);
  return bins.slice(1).map((to, i) => {
    const from = bins[i];
    const mine = steps.filter((o) => o.stated > from && o.stated <= to);
    const mean = (f: (o: { stated: number; right: boolean }) => number) =>
      mine.reduce((sum, o) => sum + f(o), 0) / Math.max(1, mine.length);
    return { from, to, readings: mine.length, stated: mean((o) => o.stated), right: mean((o) => (o.right ? 1 : 0)) };
  });
}
