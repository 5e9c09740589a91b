/**
 * Technicians who look for faults that a simulated board hides: one who follows the advice, one who measures
 * in random order, one with a fixed checklist. Used by the test and by the notes.
 */
import { isPowered, readMeter } from '../src/circuit/meters.ts';
import { assemble } from '../src/circuit/network.ts';
import { NetworkSolver } from '../src/circuit/solver.ts';
import type { Netlist } from '../src/circuit/netlist.ts';
import { TEMPLATES } from '../src/circuit/templates.ts';
import { doubtOf } from '../src/diagnosis/conviction.ts';
import { buildDictionary, type Dictionary, type Test } from '../src/diagnosis/dictionary.ts';
import { healthySpread, offScale, onScale } from '../src/diagnosis/evidence.ts';
import { hypothesesOf, type Hypothesis } from '../src/diagnosis/hypotheses.ts';
import { ambiguityGroups, nextTests, verdict } from '../src/diagnosis/next.ts';
import { powerVerdict } from '../src/diagnosis/power.ts';
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
    const hit = h.faults.filter((_, i) => i < 2 || random() >= (h.several?.spared ?? 0));
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
    const noisy = offScale(test.type, y + 0.5 * healthySpread(test.type, y) * normal(this.random));
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
  /** The part that would be convicted is not to be, for a reason that is said. */
  doubted: boolean;
  /** Powered although a rail was short. */
  unsafe: boolean;
  /** The share that is stated for the first group. */
  stated: number;
}

const MOST = 45;

/** One search from the first reading to a verdict. */
function search(d: Dictionary, template: string, truth: number, way: Way, seed: number): Outcome {
  const random = seeded(seed);
  const board = new HiddenBoard(d.netlist, d.hypotheses[truth], random);
  const taken: Taken[] = [];
  const order = d.tests.map((t) => ({ t, at: way === 'random' ? random() : 0 })).sort((a, b) => a.at - b.at);
  let before = 0;
  let unsafe = false;
  for (;;) {
    const ranking = rank(d, taken);
    const { power, unread } = powerVerdict(d, ranking, taken);
    const allowPower = power === 'allowed';
    const groups = ambiguityGroups(d, ranking, true);
    const next = way === 'advice' ? nextTests(d, ranking, taken, { allowPower, unread, most: 1 }) : [];
    const goOn = { ...d.tests[0], bits: 1, minutes: 1, expects: [] };
    const { done } = verdict(groups, way === 'advice' ? next : [goOn], before);
    const choice =
      way === 'advice'
        ? next[0]
        : order.find(
            ({ t }) =>
              !taken.some((r) => r.type === t.type && r.red === t.red && r.black === t.black && r.state === t.state),
          )?.t;
    if (done || !choice || taken.length >= MOST) {
      const { ref, mode, where } = d.hypotheses[truth];
      // of two parts together one may be all that shows
      const named = (found: string) =>
        found === ref || ref.split(' + ').includes(found) || found.split(' + ').includes(ref);
      const hit = named(ranking.parts[0].ref) || (groups[0]?.refs.some(named) ?? false);
      const doubted = doubtOf(d, ranking, { readings: taken, outside: [], circumstances: {} }) !== null;
      const stated = groups[0]?.p ?? 0;
      return { template, fault: `${ref} ${mode} ${where}`, readings: taken.length, hit, doubted, unsafe, stated };
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

/** `count` faults drawn by their weights over all templates. */
export function simulate(count: number, seed: number): Simulation {
  const random = seeded(seed);
  const dictionaries = TEMPLATES.map((t) => ({ id: t.id, d: buildDictionary(t.netlist, hypothesesOf(t.netlist)) }));
  const drawn = Array.from({ length: count }, (_, n) => {
    const { id, d } = dictionaries[n % dictionaries.length];
    const pool = d.hypotheses.map((h, k) => (shows(d, k) ? h.weight : 0));
    let at = random() * pool.reduce((a, b) => a + b, 0);
    const truth = pool.findIndex((w) => (at -= w) < 0);
    return { id, d, truth, seed: Math.floor(random() * 2 ** 31) };
  });
  const run = (way: Way) => {
    const outcomes = drawn.map((x) => search(x.d, x.id, x.truth, way, x.seed));
    return {
      readings: outcomes.reduce((sum, o) => sum + o.readings, 0) / count,
      hits: outcomes.filter((o) => o.hit).length / count,
      unsafe: outcomes.filter((o) => o.unsafe).length,
      outcomes,
    };
  };
  return { faults: count, ways: { advice: run('advice'), random: run('random'), checklist: run('checklist') } };
}

/** Stated shares against how often they were right, in bins of so much. */
export function calibration(outcomes: readonly Outcome[], bins: readonly number[]) {
  return bins.slice(1).map((to, i) => {
    const from = bins[i];
    const mine = outcomes.filter((o) => o.stated > from && o.stated <= to);
    const mean = (f: (o: Outcome) => number) => mine.reduce((sum, o) => sum + f(o), 0) / Math.max(1, mine.length);
    return { from, to, searches: mine.length, stated: mean((o) => o.stated), right: mean((o) => (o.hit ? 1 : 0)) };
  });
}
