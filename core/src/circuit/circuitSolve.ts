/** `circuit.solve`: what meters show on a circuit, healthy or with a fault, and its voltages under power. */
import { z } from 'zod';
import type { Measured } from '../ground/index.ts';
import { BEEP_OHM, isPowered, METER_TYPES, readMeter, type MeterType } from './meters.ts';
import { assemble } from './network.ts';
import {
  faultSchema,
  modelNet,
  NetlistError,
  netlistSchema,
  netsOf,
  statesOf,
  type Fault,
  type Netlist,
} from './netlist.ts';
import { NetworkSolver } from './solver.ts';

const net = z.string().trim().min(1).max(80);
export const circuitReadingSchema = z.strictObject({
  type: z.enum(METER_TYPES),
  red: net.optional(),
  black: net.optional(),
  /** State of power, for `dcv` and `isup`; the first one without it. */
  state: net.nullish(),
  value: z.union([z.number(), z.literal('OL')]).nullish(),
});
export type CircuitReading = z.infer<typeof circuitReadingSchema>;

export const circuitSolveInput = z.strictObject({
  netlist: netlistSchema,
  fault: z.union([faultSchema.transform((f) => [f]), z.array(faultSchema).max(10)]).nullish(),
  readings: z.array(circuitReadingSchema).max(2000).default([]),
  states: z.array(net).max(20).optional(),
});
export type CircuitSolveInput = z.infer<typeof circuitSolveInput>;

export const circuitSolveOutput = z.strictObject({
  readings: z.array(
    circuitReadingSchema.extend({
      value: z.union([z.number(), z.literal('OL')]),
      converged: z.boolean(),
      /** `cont`: whether it beeps. */
      beep: z.boolean().optional(),
      /** Capacitors behind enough resistance need longer than 0.3 s before the reading stands. */
      settles_s: z.number().optional(),
    }),
  ),
  /** State → net → V, nothing attached but the supplies and loads. */
  powered_node_voltages: z.record(z.string(), z.record(z.string(), z.number())),
  supply_current_A: z.record(z.string(), z.number()),
  converged: z.boolean(),
  /** What was noticed: nets that hang on nothing, and the like. */
  notes: z.array(z.string()),
});

/** Nets that only one pin is on: a slip of the pen, most often. */
export function looseNets(netlist: Netlist): string[] {
  const pins = new Map<string, number>();
  const held = new Set([
    ...(netlist.tp ?? []),
    ...netlist.jopen,
    ...Object.values(netlist.power?.states ?? {}).flatMap((s) => s.sources.map((q) => q.p)),
    ...(netlist.power?.sources ?? []).map((q) => q.p),
  ]);
  for (const part of netlist.parts) for (const n of Object.values(part.pins)) pins.set(n, (pins.get(n) ?? 0) + 1);
  return [...pins].filter(([n, count]) => count === 1 && n !== netlist.ground && !held.has(n)).map(([n]) => n);
}

/** Seconds until a reading on this net stands: five time constants of what hangs there, Ω × F. */
function settling(netlist: Netlist, red: string | undefined, ohm: number | 'OL'): number | undefined {
  const farads = netlist.parts.reduce(
    (sum, p) => sum + (p.kind === 'C' && Object.values(p.pins).includes(red ?? '') ? (p.value ?? 0) : 0),
    0,
  );
  const tau = farads * (ohm === 'OL' ? 1e7 : Math.min(ohm, 1e7));
  return tau > 0.3 ? 5 * tau : undefined;
}

/** Throws `NetlistError` with a sentence for nets, parts, pins or states that are not there. */
export function solveCircuit(input: CircuitSolveInput): z.infer<typeof circuitSolveOutput> {
  const { netlist } = input;
  const faults = input.fault ?? [];
  const states = input.states ?? statesOf(netlist);
  const known = statesOf(netlist);
  const resolve = (n: string | undefined, path: string) => {
    if (n === undefined) return n;
    const model = modelNet(netlist, n);
    if (model !== netlist.ground && !netsOf(netlist).includes(model))
      throw new NetlistError(`${path}: no part is connected to the net ${n}`);
    return model;
  };
  const solvers = new Map<string | null, NetworkSolver>();
  const probes = (network: { node(net: string): number | undefined }) =>
    input.readings.flatMap((r): [number, number][] => {
      const [a, b] = [network.node(r.red ?? ''), network.node(r.black ?? netlist.ground)];
      return a === undefined || b === undefined ? [] : [[a, b]];
    });
  const solverFor = (state: string | null) => {
    let solver = solvers.get(state);
    if (!solver) {
      const network = assemble(netlist, faults, state);
      solvers.set(state, (solver = new NetworkSolver(network, probes(network))));
    }
    return solver;
  };
  // faults that name what is not there are refused even when nothing is read
  solverFor(null);
  const bare = new Map<string, Float64Array>();
  let converged = true;
  const voltages: Record<string, Record<string, number>> = {};
  const currents: Record<string, number> = {};
  for (const state of states) {
    const solver = solverFor(state);
    const solution = solver.solve();
    converged &&= solution.converged;
    bare.set(state, solution.v);
    voltages[state] = Object.fromEntries([
      [netlist.ground, 0],
      ...netsOf(netlist).map((n): [string, number] => [n, solution.v[solver.network.node(n) ?? solver.network.size]]),
    ]);
    currents[state] = solver.supplyCurrent(solution.v);
  }
  const readings = input.readings.map((r, i) => {
    const red = resolve(r.red, `readings.${i}.red`);
    const black = resolve(r.black, `readings.${i}.black`);
    if (r.type !== 'isup' && red === undefined)
      throw new NetlistError(`readings.${i}.red: say which net the red probe is on`);
    const powered = isPowered(r.type);
    const state = powered ? (r.state ?? known[0]) : null;
    if (state === undefined)
      throw new NetlistError(`readings.${i}: ${r.type} needs power, and the circuit has no power.sources`);
    const shown = readMeter(
      solverFor(state),
      { type: r.type, red, black },
      powered ? bare.get(state ?? '') : undefined,
    );
    converged &&= shown.converged;
    const settles = r.type === 'ohm' ? settling(netlist, red, shown.value) : undefined;
    return {
      ...r,
      value: shown.value,
      converged: shown.converged,
      ...(r.type === 'cont' ? { beep: shown.value !== 'OL' && shown.value < BEEP_OHM } : {}),
      ...(settles === undefined ? {} : { settles_s: settles }),
    };
  });
  const notes = looseNets(netlist).map((n) => `only one pin is on ${n}`);
  return { readings, powered_node_voltages: voltages, supply_current_A: currents, converged, notes };
}

/** What a meter shows on a circuit with these faults; throws `NetlistError` where the probes find no net. */
export function readCircuit(
  netlist: Netlist,
  fault: Fault[],
  { type, red, black, state }: { type: MeterType; red: string; black: string; state: string | null },
): Measured {
  const probe = type === 'isup' ? {} : { red, black };
  return solveCircuit({ netlist, fault, readings: [{ type, ...probe, state }], states: [] }).readings[0].value;
}
