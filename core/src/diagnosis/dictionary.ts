/**
 * The fault dictionary: what every reading would show under every single fault, and how far that follows
 * the ohms of a short or a leak (one more solve with the same factors).
 */
import {
  asChange,
  assemble,
  type Base,
  type Change,
  diodeStimulus,
  type Fault,
  isPowered,
  type MeterType,
  type Netlist,
  netsOf,
  type Network,
  NetworkSolver,
  OHM_RANGES,
  ohmsAt,
  ohmStimulus,
  probeNode,
  railsOf,
  readOhms,
  type Solution,
  sourcesOf,
  statesOf,
  type Stimulus,
  voltStimulus,
} from '../circuit/index.ts';
import { type CalcContext, CancelledError } from '../ground/index.ts';
import { healthySpread, onScale, scaleSlope } from './evidence.ts';
import { isBlind, type Hypothesis } from './hypotheses.ts';

/** A reading that could be taken. */
export interface Test {
  type: MeterType;
  red: string;
  black: string;
  /** State of power; null unpowered. */
  state: string | null;
}

export const testKey = (t: Test): string => `${t.type}|${t.red}|${t.black}|${t.state ?? ''}`;

export interface Dictionary {
  netlist: Netlist;
  tests: Test[];
  hypotheses: Hypothesis[];
  /** Column of a test by `testKey`. */
  column: Map<string, number>;
  /** What the healthy circuit reads, on the scale of `evidence`. */
  healthy: Float64Array;
  /** Tests of a voltage that something regulates. */
  regulated: Uint8Array;
  /** hypotheses × tests, on the scale; NaN where the circuit did not settle. */
  expected: Float64Array;
  /** Spread of the same, all causes together. */
  spread: Float64Array;
  /** How far the reading moves when ln r of the fault moves by its own spread; 0 without an r. */
  bend: Float64Array;
}

/** Every reading worth offering: ohms and both diode polarities at each point, pairs, volts and supply current. */
export function testsOf(netlist: Netlist): Test[] {
  const { ground } = netlist;
  const points = (netlist.tp ?? netsOf(netlist).filter((n) => !(n in netlist.alias))).filter((n) => n !== ground);
  return [
    ...points.map((red): Test => ({ type: 'ohm', red, black: ground, state: null })),
    ...points.flatMap((net): Test[] => [
      { type: 'diode', red: net, black: ground, state: null },
      { type: 'diode', red: ground, black: net, state: null },
    ]),
    ...netlist.pairs.map(([red, black]): Test => ({ type: 'ohm', red, black, state: null })),
    ...statesOf(netlist).flatMap((state): Test[] => [
      ...points.map((red): Test => ({ type: 'dcv', red, black: ground, state })),
      { type: 'isup', red: '', black: '', state },
    ]),
  ];
}

/** A rail that something regulates stays closer to what it should be than a point inside of the circuit, on the scale of volts. */
const REGULATED = 0.035;
/** Below this a rail is not regulated, it is down, on the scale of volts. */
const DOWN = 0.9;

const spreadOf = (type: MeterType, y: number, regulated: boolean): number =>
  regulated && y > DOWN ? REGULATED : healthySpread(type, y);

/** What healthy boards differ by in test `t` where the model says `y`, on the scale of `evidence`. */
export const spreadAt = ({ tests, regulated }: Dictionary, t: number, y: number): number =>
  spreadOf(tests[t].type, y, regulated[t] === 1);

function regulatedTests(netlist: Netlist, tests: readonly Test[]): Uint8Array {
  const fed = new Set(sourcesOf(netlist));
  const rails = new Set(railsOf(netlist).filter((net) => !fed.has(net)));
  return Uint8Array.from(tests, (t) => (t.type === 'dcv' && t.black === netlist.ground && rails.has(t.red) ? 1 : 0));
}

interface Row {
  y: Float64Array;
  s: Float64Array;
  bend: Float64Array;
}

/** What the meter made of a solved network: the value and how it follows the voltage across the probes. */
interface Seen {
  value: number;
  perVolt: number;
}

/** The healthy circuit under one test. */
interface Start {
  base: Base;
  range: number;
}

/** The circuit in one state of power, healthy, with everything kept that faulty ones are computed from. */
interface Setup {
  state: string | null;
  network: Network;
  solver: NetworkSolver;
  columns: number[];
  /** Powered: the circuit with no meter on it. */
  alone: Base | null;
  starts: Map<number, Start>;
}

/**
 * Reads all tests on faulty circuits. A fault that changes one conductance is a rank-one change of the
 * healthy circuit's factors; one that does more, or drives junctions into another state, is solved anew.
 */
class Reader {
  private readonly netlist: Netlist;
  private readonly tests: Test[];
  private readonly setups: Setup[];
  private readonly network: Network;
  private readonly regulated: Uint8Array;

  constructor(netlist: Netlist, tests: Test[], regulated: Uint8Array) {
    this.regulated = regulated;
    this.netlist = netlist;
    this.tests = tests;
    this.network = assemble(netlist, [], null);
    this.setups = [null, ...statesOf(netlist)].flatMap((state) => {
      const columns = tests.flatMap((t, i) => ((isPowered(t.type) ? t.state : null) === state ? [i] : []));
      return columns.length ? [this.setup(state, columns)] : [];
    });
  }

  private setup(state: string | null, columns: number[]): Setup {
    const network = assemble(this.netlist, [], state);
    const solver = new NetworkSolver(network, this.probes(network, columns));
    const alone = state === null ? null : solver.solved(null);
    const setup: Setup = { state, network, solver, columns, alone, starts: new Map() };
    for (const i of columns) {
      const { type } = this.tests[i];
      if (type === 'isup') continue;
      const [red, black] = this.nodes(network, i);
      let range = 0;
      let solution: Solution;
      if (type === 'ohm' || type === 'cont') {
        const shown = readOhms(solver, red, black);
        range = shown.range ?? 0;
        // the range that was tried last need not be the one shown
        solution = solver.solve(ohmStimulus(red, black, range), shown.solution.v);
      } else solution = solver.solve(stimulusOf(type, red, black), alone?.v);
      const base = solution.converged ? solver.keep(solution.v) : null;
      if (base) setup.starts.set(i, { base, range });
    }
    return setup;
  }

  private nodes(network: Network, column: number): [number, number] {
    const { red, black } = this.tests[column];
    return [probeNode(network, red), probeNode(network, black)];
  }

  private probes(network: Network, columns: number[]): [number, number][] {
    return columns.filter((i) => this.tests[i].type !== 'isup').map((i) => this.nodes(network, i));
  }

  /** Equal for faults that no reading can tell apart: shorts of parallel parts, an open part and its cracked joint. */
  signature(faults: readonly Fault[]): string {
    const change = faults.length === 1 ? asChange(this.netlist, faults[0], this.network) : null;
    if (!change) return JSON.stringify(faults);
    const { a, b, dg, g } = change;
    return `${Math.min(a, b)} ${Math.max(a, b)} ${dg} ${g}`;
  }

  /** Fills `row` for a fault (none: the healthy circuit); `vague`: spread of ln r of the fault's ohms. */
  read(faults: readonly Fault[], vague: number, row: Row): void {
    for (const setup of this.setups) {
      const { network, solver } = setup;
      const whole = faults.length === 1 ? asChange(this.netlist, faults[0], network) : null;
      const change = whole && solver.couples(whole.a, whole.b) ? whole : null;
      const left = setup.columns.filter((i) => !change || !this.readNearby(setup, change, i, vague, row));
      if (left.length === 0) continue;
      if (change && change.g > 0) {
        solver.alter(change);
        this.readAnew(setup, { network, solver, fault: change }, left, vague, row);
        solver.alter(null);
      } else {
        // what is taken away whole would leave the rounding of a difference behind
        const faulty = assemble(this.netlist, faults, setup.state);
        const fresh = new NetworkSolver(faulty, this.probes(faulty, left), solver);
        const fault = faulty.faulty === null ? null : faulty.conductors[faulty.faulty];
        this.readAnew(setup, { network: faulty, solver: fresh, fault }, left, vague, row);
      }
    }
  }

  private spread(column: number, y: number): number {
    return spreadOf(this.tests[column].type, y, this.regulated[column] === 1);
  }

  private put(row: Row, column: number, seen: Seen | null, change_V: number, vague: number): void {
    const { type } = this.tests[column];
    const y = seen ? onScale(type, seen.value) : NaN;
    const bend = seen && vague > 0 ? scaleSlope(type, seen.value) * seen.perVolt * change_V * vague : 0;
    row.y[column] = y;
    row.bend[column] = Math.max(-3, Math.min(3, bend));
    row.s[column] = Math.hypot(this.spread(column, y), row.bend[column]);
  }

  /** One test by a rank-one change; false when that does not do. */
  private readNearby(setup: Setup, change: Change, column: number, vague: number, row: Row): boolean {
    const { solver, network, alone } = setup;
    const { type } = this.tests[column];
    if (type === 'isup') {
      const near = alone && solver.nearby(alone, change);
      if (!near) return false;
      const z = solver.response(alone, change.a, change.b);
      this.put(row, column, supplySeen(solver, near.v), near.follow * supplyChange(network, z), vague);
      return true;
    }
    const start = setup.starts.get(column);
    if (!start) return false;
    const z = solver.response(start.base, change.a, change.b);
    const near = solver.nearby(start.base, change, z);
    if (!near) return false;
    const [red, black] = this.nodes(network, column);
    const across = near.v[red] - near.v[black];
    const { range } = start;
    if (type === 'ohm' || type === 'cont') {
      const ohms = ohmsAt(range, across);
      const lower = range > 0 ? OHM_RANGES[range - 1].full : 0;
      // another range would have been taken, or might show something else
      if (ohms === null ? range < OHM_RANGES.length - 1 : ohms < 1.3 * lower) return false;
    }
    this.put(row, column, seenBy(type, range, across), near.follow * (z[red] - z[black]), vague);
    return true;
  }

  /** Tests on the faulty circuit, solved from where the healthy one was. `fault`: the conductor of the fault's ohms. */
  private readAnew(
    setup: Setup,
    {
      network,
      solver,
      fault,
    }: { network: Network; solver: NetworkSolver; fault: { a: number; b: number; g: number } | null },
    columns: number[],
    vague: number,
    row: Row,
  ): void {
    const alone = setup.state === null ? null : solver.solved(null, setup.alone?.v);
    const follow = (base: Base): Float64Array | null => {
      if (!fault || vague === 0) return null;
      const z = solver.response(base, fault.a, fault.b);
      const drop = fault.g * (base.v[fault.a] - base.v[fault.b]);
      return z.map((x) => x * drop);
    };
    for (const i of columns) {
      const { type } = this.tests[i];
      if (setup.state !== null && !alone) {
        this.put(row, i, null, 0, 0);
        continue;
      }
      if (type === 'isup') {
        if (!alone) continue;
        const slopes = follow(alone);
        this.put(row, i, supplySeen(solver, alone.v), slopes ? supplyChange(network, slopes) : 0, vague);
        continue;
      }
      const [red, black] = this.nodes(network, i);
      const start = setup.starts.get(i);
      let range = start?.range ?? 0;
      let v: Float64Array | null;
      let base: Base | null = null;
      if (alone) {
        // the voltmeter is one more small conductance
        const g = voltStimulus(red, black).g;
        v = solver.nearby(alone, { a: red, b: black, dg: g, g })?.v ?? null;
        base = alone;
        if (!v) {
          const solution = solver.solve(voltStimulus(red, black), alone.v);
          v = solution.converged ? solution.v : null;
        }
      } else {
        let solution: Solution;
        if (type === 'ohm' || type === 'cont') {
          const shown = readOhms(solver, red, black, { guess: range, start: start?.base.v });
          range = shown.range ?? 0;
          solution = shown.solution;
        } else solution = solver.solve(stimulusOf(type, red, black), start?.base.v);
        v = solution.converged ? solution.v : null;
        if (v && vague > 0) base = solver.keep(v);
      }
      const slopes = base && v ? follow(base) : null;
      this.put(row, i, v && seenBy(type, range, v[red] - v[black]), slopes ? slopes[red] - slopes[black] : 0, vague);
    }
  }
}

const stimulusOf = (type: MeterType, red: number, black: number): Stimulus =>
  type === 'dcv' ? voltStimulus(red, black) : diodeStimulus(red, black);

/** The reading without its "over range", so that near misses count as such. */
function seenBy(type: MeterType, range: number, across_V: number): Seen {
  if (type !== 'ohm' && type !== 'cont') return { value: across_V, perVolt: 1 };
  const { behind } = OHM_RANGES[range];
  const left = Math.max(0.6 - across_V, 1e-12);
  return { value: (behind * across_V) / left, perVolt: (behind * 0.6) / (left * left) };
}

const supplySeen = (solver: NetworkSolver, v: Float64Array): Seen => ({ value: solver.supplyCurrent(v), perVolt: 1 });
const supplyChange = (network: Network, slopes_V: Float64Array): number =>
  network.supplies.reduce((sum, s) => sum + (slopes_V[s.o] - slopes_V[s.p]) / s.rout, 0);

/** Computes the dictionary. Throws `NetlistError` for a circuit that does not hang together, `CancelledError` when told to stop. */
export function buildDictionary(
  netlist: Netlist,
  hypotheses: Hypothesis[],
  tests: Test[] = testsOf(netlist),
  context: Pick<CalcContext, 'signal' | 'progress'> = {},
): Dictionary {
  const wide = tests.length;
  const expected = new Float64Array(hypotheses.length * wide);
  const spread = new Float64Array(hypotheses.length * wide);
  const bend = new Float64Array(hypotheses.length * wide);
  const regulated = regulatedTests(netlist, tests);
  const reader = new Reader(netlist, tests, regulated);
  const healthy: Row = { y: new Float64Array(wide), s: new Float64Array(wide), bend: new Float64Array(wide) };
  reader.read([], 0, healthy);
  const known = new Map<string, Row>();
  hypotheses.forEach((h, k) => {
    if (context.signal?.aborted) throw new CancelledError();
    const row: Row = {
      y: expected.subarray(k * wide, (k + 1) * wide),
      s: spread.subarray(k * wide, (k + 1) * wide),
      bend: bend.subarray(k * wide, (k + 1) * wide),
    };
    const twin = isBlind(netlist, h) ? healthy : known.get(reader.signature(h.faults));
    if (twin) {
      row.y.set(twin.y);
      row.s.set(twin.s);
      row.bend.set(twin.bend);
    } else {
      reader.read(h.faults, h.vague, row);
      known.set(reader.signature(h.faults), row);
    }
    if (k % 8 === 7) context.progress?.((k + 1) / hypotheses.length);
  });
  return {
    netlist,
    tests,
    hypotheses,
    column: new Map(tests.map((t, i) => [testKey(t), i])),
    healthy: healthy.y,
    regulated,
    expected,
    spread,
    bend,
  };
}
