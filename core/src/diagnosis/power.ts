/**
 * Whether the board may be powered for a reading: every supply net and IC rail read in ohms, none of them
 * short beside what the healthy circuit, or a good board, reads there; none measured over its nominal voltage; and no likely
 * fault that would put too much on a rail.
 */
import { assemble, NetworkSolver, railsOf, sourcesOf, statesOf } from '../circuit/index.ts';
import { SHORT_SHARE, SURELY_OHM } from './shortCheck.ts';
import { voltsOf } from '../board/index.ts';
import { formatReading } from '../ground/index.ts';
import { offScale } from './evidence.ts';
import type { Dictionary } from './dictionary.ts';
import { columnOf, type Ranking, type Taken } from './rank.ts';

/** Where only the model says what is healthy, a rail that would take less than this at its voltage is not short, A. */
const SHORT_A = 0.01;
/** A regulated rail measured beyond this share of its nominal is too high; one fed from outside may differ more. */
const TOO_HIGH = 1.1;
const TOO_HIGH_FED = 1.3;
/** Voltage beyond this share of the healthy one is too much. */
const TOO_MUCH = 1.3;
/** Where neither the circuit nor a good board says what is healthy, less than this keeps power off, Ω (bench judgement). */
const UNKNOWN_RAIL_OHM = 20;
/** More chance of too much voltage than this keeps power off. */
const RISK = 0.1;

export interface PowerVerdict {
  power: 'allowed' | 'blocked';
  why: string;
  /** Rails that stand between the board and its power because nobody has read them yet. */
  unread: string[];
}

const ohms = (r: number) => formatReading(r, 'ohm');

/** Hypotheses that drive a rail beyond 1.3 × its healthy voltage; once per dictionary. */
const dangerous = new WeakMap<Dictionary, Uint8Array>();

function overVoltage(dictionary: Dictionary): Uint8Array {
  const known = dangerous.get(dictionary);
  if (known) return known;
  const { netlist, tests, hypotheses, expected } = dictionary;
  const flags = new Uint8Array(hypotheses.length);
  for (const state of statesOf(netlist)) {
    const network = assemble(netlist, [], state);
    const { v, converged } = new NetworkSolver(network).solve();
    if (!converged) continue;
    for (const net of railsOf(netlist)) {
      const t = tests.findIndex((x) => x.type === 'dcv' && x.red === net && x.state === state);
      const node = network.node(net);
      if (t < 0 || node === undefined || v[node] < 0.5) continue;
      hypotheses.forEach((_, h) => {
        const y = expected[h * tests.length + t];
        if (!Number.isNaN(y) && offScale('dcv', y) > TOO_MUCH * v[node]) flags[h] = 1;
      });
    }
  }
  dangerous.set(dictionary, flags);
  return flags;
}

/** What to say of a rail measured over its nominal; null where it is not. `fed` from outside it may differ more. */
export function overNominal(net: string, value: number, nominal: number, fed = false): string | null {
  if (nominal < 0.5 || value <= nominal * (fed ? TOO_HIGH_FED : TOO_HIGH) + 0.05) return null;
  return `${net} was measured at ${formatReading(value, 'dcv')} where ${formatReading(nominal, 'dcv')} is right: what feeds it first, its loads unplugged; more power hurts what hangs on it`;
}

/** Highest voltage of every rail in the healthy circuit, V. */
function healthyVolts({ netlist, tests, healthy }: Dictionary): Map<string, number> {
  const map = new Map<string, number>();
  for (const net of railsOf(netlist))
    tests.forEach(({ type, red, black }, t) => {
      if (type !== 'dcv' || red !== net || black !== netlist.ground || Number.isNaN(healthy[t])) return;
      map.set(net, Math.max(map.get(net) ?? 0, offScale('dcv', healthy[t])));
    });
  return map;
}

/** What was measured over its nominal under power, as a sentence; null where nothing was. */
function tooHigh(
  { netlist }: Dictionary,
  readings: readonly Taken[],
  volts: ReadonlyMap<string, number>,
): string | null {
  const fed = new Set(sourcesOf(netlist));
  const seen = new Set<string>();
  for (const r of readings.toReversed()) {
    if (r.type !== 'dcv' || r.black !== netlist.ground || typeof r.value !== 'number' || seen.has(r.red)) continue;
    seen.add(r.red);
    const nominal = (typeof r.good === 'number' ? r.good : undefined) ?? volts.get(r.red) ?? voltsOf(r.red);
    const said = nominal ? overNominal(r.red, r.value, nominal, fed.has(r.red)) : null;
    if (said) return said;
  }
  return null;
}

export function powerVerdict(dictionary: Dictionary, ranking: Ranking, readings: readonly Taken[]): PowerVerdict {
  const { netlist, healthy, hypotheses } = dictionary;
  if (statesOf(netlist).length === 0)
    return { power: 'blocked', why: 'the circuit says nothing of what feeds it', unread: [] };
  const volts = healthyVolts(dictionary);
  const high = tooHigh(dictionary, readings, volts);
  if (high) return { power: 'blocked', why: high, unread: [] };
  const unread: string[] = [];
  for (const net of railsOf(netlist)) {
    const last = readings.findLast((r) => r.type === 'ohm' && r.red === net && r.black === netlist.ground);
    if (!last) {
      unread.push(net);
      continue;
    }
    if (last.value === 'OL') continue;
    const t = columnOf(dictionary, last);
    const model = t >= 0 ? offScale('ohm', healthy[t]) : null;
    const good = typeof last.good === 'number' ? last.good : model;
    const nominal = volts.get(net) ?? voltsOf(net);
    // a model's megohms are no reference for leakage
    const short_ohm = nominal === null ? SURELY_OHM : nominal / SHORT_A;
    const limit = typeof last.good === 'number' ? Infinity : short_ohm;
    if (good === null ? last.value < UNKNOWN_RAIL_OHM : last.value < Math.min(SHORT_SHARE * good, limit)) {
      const shown = typeof last.shown === 'number' ? last.shown : last.value;
      const beside = good === null ? `below ${UNKNOWN_RAIL_OHM} Ω` : `where ${ohms(good)} is healthy`;
      return { power: 'blocked', why: `${net} reads ${ohms(shown)}, ${beside}: find the short first`, unread: [] };
    }
  }
  if (unread.length)
    return { power: 'blocked', why: `not read in ohms since the last work: ${unread.join(', ')}`, unread };
  const flags = overVoltage(dictionary);
  const risk = hypotheses.reduce((sum, _, h) => sum + (flags[h] ? ranking.p[h] : 0), 0);
  if (risk > RISK)
    return {
      power: 'blocked',
      why: `a fault that puts too much voltage on a rail has ${Math.round(100 * risk)} %: unplug the loads first`,
      unread: [],
    };
  const why = `${railsOf(netlist).join(', ')} read as healthy as the circuit wants`;
  return { power: 'allowed', why, unread: [] };
}
