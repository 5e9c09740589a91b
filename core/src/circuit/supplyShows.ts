/** What a bench supply in front of a circuit shows as time goes on. */
import { NetlistError, statesOf, type Fault, type Netlist } from './netlist.ts';
import { solveCircuit } from './circuitSolve.ts';

/** Chips have been reset and have started by then, s (bench judgement). */
export const STARTED_S = 0.4;

/** The state that a start-up leads to: the first that has a supply. */
export const startState = (netlist: Netlist): string | null =>
  statesOf(netlist).find(
    (state) => (netlist.power?.states[state]?.sources ?? netlist.power?.sources ?? []).length > 0,
  ) ?? null;

/** The circuit with its main supply (the first of the state) at these settings. */
export function suppliedAt(
  netlist: Netlist,
  state: string,
  { volts, limit_A }: { volts: number; limit_A: number },
): Netlist {
  const set = <S extends { v: number; ilim: number }>(sources: readonly S[]): S[] =>
    sources.map((s, i) => (i === 0 ? { ...s, v: Math.max(volts, 1e-6), ilim: limit_A } : s));
  const { power } = netlist;
  if (!power) return netlist;
  const own = power.states[state];
  if (own?.sources.length) {
    const states = { ...power.states, [state]: { ...own, sources: set(own.sources) } };
    return { ...netlist, power: { ...power, states } };
  }
  return { ...netlist, power: { ...power, sources: set(power.sources) } };
}

/**
 * Volts and amperes of the supply so many seconds after it came on, and volts of a `rail` by its net. Until its chips have started, the circuit takes what it takes with all of
 * them asleep: operating points, no transients. Throws `NetlistError` where nothing says what feeds the circuit.
 */
export function supplyShows(
  netlist: Netlist,
  faults: readonly Fault[],
  { volts, limit_A, on_s, rail }: { volts: number; limit_A: number; on_s: number; rail?: string },
): { volts: number; current_A: number; rail_V?: number } {
  const state = startState(netlist);
  if (state === null) throw new NetlistError('the circuit says nothing of what feeds it');
  const supplied = suppliedAt(netlist, state, { volts, limit_A });
  const source = (supplied.power?.states[state]?.sources ?? []).concat(supplied.power?.sources ?? [])[0];
  const asleep: Fault[] =
    on_s < STARTED_S
      ? netlist.parts.flatMap((p) => (p.kind === 'IC' ? [{ ref: p.ref, mode: 'asleep' as const }] : []))
      : [];
  const { readings } = solveCircuit({
    netlist: supplied,
    fault: [...faults, ...asleep],
    readings: [
      { type: 'isup', state },
      { type: 'dcv', red: source.p, state },
      ...(rail === undefined ? [] : [{ type: 'dcv' as const, red: rail, state }]),
    ],
    states: [],
  });
  const number = (value: number | 'OL') => (value === 'OL' ? 0 : value);
  return {
    volts: number(readings[1].value),
    current_A: Math.max(0, number(readings[0].value)),
    ...(rail === undefined ? {} : { rail_V: number(readings[2].value) }),
  };
}
