/**
 * Readings from a meter on the bench. The simulated one is reached the same way, over TCP; only where its
 * probes lie is told to it beforehand, which a real one sees for itself.
 */
import { type Fault, type Netlist, readCircuit, supplyShows } from '@orthos/core/circuit';
import type { Test } from '@orthos/core/diagnosis';
import type { Measured } from '@orthos/core/ground';
import {
  measure,
  powerInStages,
  type PowerSample,
  SimulatedMeter,
  SimulatedSupply,
  startUpOn,
  type MeterReading,
  type SupplyRun,
} from '@orthos/instruments';
import type { Meter } from './repositories/meters.ts';

let simulated: Promise<SimulatedMeter> | null = null;

/** What a hand-held meter adds: half a percent and its last digit, the same each time for the same reading. */
function withNoise(value: Measured, key: string): Measured {
  if (value === 'OL') return value;
  let h = 2166136261;
  for (const ch of key) h = Math.imul(h ^ ch.charCodeAt(0), 16777619) >>> 0;
  const unit = (h / 2 ** 32) * 2 - 1;
  return Number((value * (1 + 0.005 * unit)).toPrecision(4));
}

/** Takes one reading of a board, real or simulated. Throws `InstrumentError` or `NetlistError` with a sentence. */
export async function takeReading(
  meter: Meter,
  probe: Test,
  board: { netlist: Netlist; faults: Fault[]; ticketId: string } | null,
): Promise<MeterReading> {
  if (!meter.simulated) return measure({ host: meter.host, port: meter.port }, probe.type);
  simulated ??= SimulatedMeter.start();
  const bench = await simulated;
  if (board) {
    const read = readCircuit(board.netlist, board.faults, probe);
    // two wires: the leads are measured along
    const leads = probe.type === 'ohm' || probe.type === 'cont' ? meter.leadsOhm : 0;
    const value = read === 'OL' ? read : read + leads;
    bench.probes = () => withNoise(value, `${board.ticketId} ${JSON.stringify(probe)}`);
  } else bench.probes = null;
  return measure({ host: '127.0.0.1', port: bench.port }, probe.type);
}

/** Supplies on the bench that run for somebody: one output takes one run at a time. */
const running = new Set<string>();
/** The simulated one waits instead. */
export const isRunning = ({ id, simulated }: Meter): boolean => !simulated && running.has(id);

async function alone<T>({ id }: Meter, work: () => Promise<T>): Promise<T> {
  running.add(id);
  try {
    return await work();
  } finally {
    running.delete(id);
  }
}

let supply: Promise<SimulatedSupply> | null = null;
/** Runs on the simulated supply come one after the other: it has one output. */
let busy: Promise<unknown> = Promise.resolve();

/** The simulated supply for as long as one works with it: runs come one after the other. */
async function onSimulatedSupply<T>(work: (bench: SimulatedSupply) => Promise<T>): Promise<T> {
  supply ??= SimulatedSupply.start();
  const bench = await supply;
  const run = busy.then(() => work(bench));
  busy = run.catch(() => null);
  return run;
}

/** Runs a start-up, real or simulated. Throws `InstrumentError` or `NetlistError` with a sentence. */
export async function runStartUp(
  meter: Meter,
  settings: Parameters<typeof startUpOn>[1],
  board: { netlist: Netlist; faults: Fault[] } | null,
  signal: AbortSignal,
): Promise<SupplyRun> {
  if (!meter.simulated)
    return alone(meter, () => startUpOn({ host: meter.host, port: meter.port }, settings, { signal }));
  return onSimulatedSupply((bench) => {
    bench.load =
      board && ((volts, limit_A, on_s) => supplyShows(board.netlist, board.faults, { volts, limit_A, on_s }));
    return startUpOn({ host: '127.0.0.1', port: bench.port }, settings, { signal });
  });
}

/** A rail that a meter lies on during first power. */
interface Watched {
  meter: Meter;
  net: string;
}

/** First power in stages, real or simulated, with a meter on a rail where there is one. Throws `InstrumentError` or `NetlistError` with a sentence. */
export async function runFirstPower<Stop>(
  { supply: source, watched }: { supply: Meter; watched: Watched | null },
  settings: Parameters<typeof powerInStages>[1],
  judge: (stage: number, samples: readonly PowerSample[]) => Stop | null,
  board: { netlist: Netlist; faults: Fault[] } | null,
  how: { signal: AbortSignal; tell: (stage: number, sample: PowerSample) => void },
): Promise<{ stop: Stop | null; identity: string }> {
  if (!source.simulated) {
    const real = watched && !watched.meter.simulated ? watched.meter : null;
    const rail = async () => {
      const { value } = await measure({ host: real?.host ?? '', port: real?.port ?? 0 }, 'dcv');
      return value === 'OL' ? undefined : value;
    };
    return alone(source, () =>
      powerInStages({ host: source.host, port: source.port }, settings, judge, { ...how, ...(real ? { rail } : {}) }),
    );
  }
  return onSimulatedSupply((bench) => {
    bench.load =
      board && ((volts, limit_A, on_s) => supplyShows(board.netlist, board.faults, { volts, limit_A, on_s }));
    const rail = () => {
      const { given } = bench;
      const net = watched?.net;
      if (!board || !given || net === undefined) return Promise.resolve(undefined);
      return Promise.resolve(supplyShows(board.netlist, board.faults, { ...given, rail: net }).rail_V);
    };
    return powerInStages({ host: '127.0.0.1', port: bench.port }, settings, judge, {
      ...how,
      ...(watched ? { rail } : {}),
    });
  });
}
