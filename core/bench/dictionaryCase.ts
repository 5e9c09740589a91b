/**
 * The dictionary's yardstick: 60 nodes, 120 parts with up to three faults each, 40 readings. Runs wherever
 * core runs; the developer scripts time it in Node and in a browser's worker.
 */
import { buildDictionary, testsOf, type Test } from '../src/diagnosis/dictionary.ts';
import { hypothesesOf, type Hypothesis } from '../src/diagnosis/hypotheses.ts';
import { ambiguityGroups, nextTests } from '../src/diagnosis/next.ts';
import { rank, type Taken } from '../src/diagnosis/rank.ts';
import { bigCircuit } from './bigCircuit.ts';

export interface DictionaryTimes {
  faults: number;
  tests: number;
  /** First run and the best of the next two, ms. */
  first_ms: number;
  best_ms: number;
  /** Ranking, groups and next readings after one more reading (ten so far), ms: middle and worst of ten. */
  update_ms: number;
  worstUpdate_ms: number;
  /** Rows that did not converge. */
  lost: number;
}

export function dictionaryTimes(now: () => number): DictionaryTimes {
  const netlist = bigCircuit();
  const perPart = new Map<string, Hypothesis[]>();
  for (const h of hypothesesOf(netlist).toSorted((a, b) => b.weight - a.weight)) {
    const own = perPart.get(h.ref) ?? [];
    if (own.length < 3) perPart.set(h.ref, [...own, h]);
  }
  const hypotheses = [...perPart.values()].flat();
  const all = testsOf(netlist);
  const of = (type: Test['type'], most: number) => all.filter((t) => t.type === type).slice(0, most);
  const tests = [...of('ohm', 16), ...of('diode', 12), ...of('dcv', 11), ...of('isup', 1)];
  const timed = <T>(work: () => T): [number, T] => {
    const from = now();
    const made = work();
    return [now() - from, made];
  };
  const [first_ms, dictionary] = timed(() => buildDictionary(netlist, hypotheses, tests));
  const best_ms = Math.min(...[1, 2].map(() => timed(() => buildDictionary(netlist, hypotheses, tests))[0]));
  const taken: Taken[] = tests.slice(0, 10).map((t, i) => ({ ...t, value: 1000 * (i + 1) }));
  nextTests(dictionary, rank(dictionary, taken), taken, { allowPower: true });
  const updates = Array.from({ length: 10 }, (_, i) => {
    const readings = [...taken, { ...tests[10 + (i % 6)], value: 470 }];
    return timed(() => {
      const ranking = rank(dictionary, readings);
      ambiguityGroups(dictionary, ranking, true);
      nextTests(dictionary, ranking, readings, { allowPower: true });
    })[0];
  }).toSorted((a, b) => a - b);
  return {
    faults: hypotheses.length,
    tests: tests.length,
    first_ms,
    best_ms,
    update_ms: updates[5],
    worstUpdate_ms: updates[9],
    lost: [...dictionary.expected].filter(Number.isNaN).length,
  };
}
