import { type Fault, type Netlist, templateById } from '@orthos/core/circuit';
import { few } from '@orthos/core/ground';
import { expressBoard } from '@orthos/core/rework';
import { v7 } from 'uuid';
import { describe, expect, it } from 'vitest';
import { modeName, placeOfProbe, probeName, probeOfReading, shown } from '../src/lib/diagnose/probes.ts';
import { faultWords, percent, ruledOut, storyLines } from '../src/lib/diagnose/words.ts';
import { isRunning, runFirstPower, runStartUp, takeReading } from '../src/lib/server/meter.ts';
import { createBoardModel } from '../src/lib/server/repositories/boardModels.ts';
import {
  addCircuit,
  circuitById,
  circuitsOf,
  removeCircuit,
  saveCircuit,
} from '../src/lib/server/repositories/circuits.ts';
import { ConflictError } from '../src/lib/server/repositories/conflict.ts';
import { addGoodReadings, goodReadingsOf } from '../src/lib/server/repositories/goodReadings.ts';
import { hiddenFaultsOf, hideFault } from '../src/lib/server/repositories/hiddenFaults.ts';
import { addMeter, listMeters, saveMeter } from '../src/lib/server/repositories/meters.ts';
import { SimulatedSupply } from '@orthos/instruments';
import { demoCircuits } from '../src/lib/server/demo/circuits.ts';
import { testDatabase } from './database.ts';

const { db } = testDatabase();
const doc = expressBoard({ package: 'SOIC-8', boardKind: 'thin', plastic: 'pbt', distance_mm: 4 });
const netlistOf = (id: string): Netlist => {
  const t = templateById(id);
  if (!t) throw new Error(id);
  return t.netlist;
};

describe('circuits of a kind of board', () => {
  it('are kept once, saved by version, and taken away', async () => {
    const { modelId } = await createBoardModel(db(), { doc });
    const id = v7();
    const circuit = { id, modelId, name: 'Rail', netlist: netlistOf('ldo') };
    await addCircuit(db(), circuit);
    await addCircuit(db(), { ...circuit, name: 'sent twice' });
    expect((await circuitsOf(db(), modelId)).map((c) => c.name)).toEqual(['Rail']);
    expect(await saveCircuit(db(), id, 1, { name: 'Rail 1.8 V', netlist: netlistOf('buck') })).toBe(2);
    await expect(saveCircuit(db(), id, 1, { name: 'late', netlist: netlistOf('ldo') })).rejects.toBeInstanceOf(
      ConflictError,
    );
    expect(await circuitById(db(), id)).toMatchObject({ name: 'Rail 1.8 V', version: 2, netlist: netlistOf('buck') });
    await removeCircuit(db(), id);
    expect(await circuitsOf(db(), modelId)).toEqual([]);
  });
  it('stand beside what good boards read, each reading once', async () => {
    const { modelId } = await createBoardModel(db(), { doc });
    const reading = { id: v7(), unit: 'hall', type: 'ohm' as const, red: '3V3', black: 'GND', state: '', value: 2400 };
    await addGoodReadings(db(), modelId, [reading, { ...reading, id: v7(), value: 'OL' }]);
    await addGoodReadings(db(), modelId, [reading]);
    expect((await goodReadingsOf(db(), modelId)).map((r) => r.value)).toEqual([2400, 'OL']);
  });
});

describe('meters', () => {
  it('are saved by version', async () => {
    const id = await addMeter(db(), { name: 'Bench', simulated: true });
    const meter = (await listMeters(db())).find((m) => m.id === id);
    expect(meter).toMatchObject({ port: 5025, simulated: true });
    const change = {
      name: 'Left bench',
      bench: '',
      host: '',
      port: 5025,
      ohmPercent: 1,
      voltPercent: 0.5,
      leadsOhm: 0.3,
    };
    await saveMeter(db(), id, 1, change);
    await expect(saveMeter(db(), id, 1, change)).rejects.toBeInstanceOf(ConflictError);
  });
  it('read a hidden fault through the simulated one, the same each time', async () => {
    const ticketId = v7();
    await hideFault(db(), ticketId, [{ ref: 'C3', mode: 'short', r: 1.5 }]);
    const faults = await hiddenFaultsOf(db(), ticketId);
    expect(faults).toEqual([{ ref: 'C3', mode: 'short', r: 1.5 }]);
    expect(await hiddenFaultsOf(db(), v7())).toBeNull();
    const [meter] = await listMeters(db());
    const probe = { type: 'ohm' as const, red: '1V8', black: 'GND', state: null };
    const board = { netlist: netlistOf('ldo'), faults: faults ?? [], ticketId };
    const first = await takeReading(meter, probe, board);
    // two wires: the leads are in it
    expect(first.value).toBeCloseTo(1.5 + meter.leadsOhm, 1);
    expect(await takeReading(meter, probe, board)).toEqual(first);
    expect((await takeReading(meter, probe, null)).value).toBe('OL');
  });
});

describe('a start-up on the simulated supply', () => {
  it('goes through the circuit with its hidden fault, one run after the other', async () => {
    await addMeter(db(), { kind: 'supply', name: 'Bench supply', simulated: true });
    const [supply] = await listMeters(db(), 'supply');
    expect((await listMeters(db())).every((m) => m.kind === 'meter')).toBe(true);
    const settings = { volts: 12, limit_A: 0.5, at_s: [0.1, 0.6] };
    const { signal } = new AbortController();
    const run = (faults: Fault[]) => runStartUp(supply, settings, { netlist: netlistOf('buck'), faults }, signal);
    const [well, short] = await Promise.all([run([]), run([{ ref: 'D1', mode: 'short', r: 0.5 }])]);
    expect(well.moments.map((m) => m.current_A < 0.5)).toEqual([true, true]);
    expect(well.moments[1].current_A).toBeGreaterThan(10 * well.moments[0].current_A);
    expect(short.moments.map((m) => Number(m.current_A.toFixed(2)))).toEqual([0.5, 0.5]);
    // nothing connected draws nothing
    const bare = await runStartUp(supply, settings, null, signal);
    expect(bare.moments.map((m) => m.current_A)).toEqual([0, 0]);
  });
});

describe('first power', () => {
  const plan = { volts: 12, stages: [{ limit_A: 0.5, for_s: 1 }] };
  const told = { signal: new AbortController().signal, tell: () => undefined };
  it('has a meter on a rail of the circuit: an output that follows its input is seen at once', async () => {
    const [supply] = await listMeters(db(), 'supply');
    const [meter] = await listMeters(db());
    const run = (faults: Fault[]) =>
      runFirstPower(
        { supply, watched: { meter, net: '5V' } },
        plan,
        (_, samples) => samples.find((s) => (s.rail_V ?? 0) > 5.5) ?? null,
        { netlist: demoCircuits.Quillon.netlist, faults },
        told,
      );
    expect((await run([])).stop).toBeNull();
    expect((await run([{ ref: 'U3', mode: 'short', pins: ['1', '5'], r: 0.5 }])).stop?.rail_V).toBeGreaterThan(10);
  });
  it('has a supply for itself: nobody else starts on it meanwhile', async () => {
    const bench = await SimulatedSupply.start();
    try {
      bench.load = (volts) => ({ volts, current_A: 0.01 });
      const id = await addMeter(db(), { kind: 'supply', name: 'Real', simulated: false });
      const meter = (await listMeters(db(), 'supply')).find((m) => m.id === id);
      if (!meter) throw new Error('no supply');
      const supply = { ...meter, host: '127.0.0.1', port: bench.port };
      expect(isRunning(supply)).toBe(false);
      const run = runFirstPower({ supply, watched: null }, plan, () => null, null, told);
      expect(isRunning(supply)).toBe(true);
      await run;
      expect([isRunning(supply), bench.on]).toEqual([false, false]);
    } finally {
      bench.stop();
    }
  });
});

describe('words of a fault', () => {
  it('are those of the bench, not of the model', () => {
    const of = (mode: string, where: string) => faultWords({ mode, where });
    expect([
      of('short', 'pin VIN'),
      of('joint', 'joint'),
      of('joint', 'joint 3'),
      of('drift', 'output too low'),
      of('drift', 'too high'),
      of('dead', 'inside'),
      of('asleep', 'does not start'),
    ]).toEqual([
      'short pin VIN',
      'joint or track',
      'joint or track at 3',
      'output too low',
      'drift too high',
      'dead inside',
      'does not start',
    ]);
    expect(ruledOut({ mode: 'short', refs: ['C1', 'C2'] })).toBe('no short: C1, C2');
    expect(ruledOut({ mode: 'new', refs: ['U1'] })).toBe('not new: U1');
    const read = { type: 'ohm' as const, red: '3V3', black: 'GND', state: null, value: 2270, first: 'U1', p: 0.4 };
    const story = [
      { ...read, out: [{ mode: 'short', refs: ['C1', 'C2'] }] },
      { ...read, out: [] },
    ];
    expect(storyLines(story, 'GND')).toEqual([
      '3V3 to ground, ohms: 2.27 kΩ. no short: C1, C2',
      '3V3 to ground, ohms: 2.27 kΩ. ruled nobody out',
    ]);
  });
});

describe('words of a reading', () => {
  const netlist = netlistOf('ldo');
  const ohm = { type: 'ohm' as const, red: '1V8', black: 'GND', state: null };
  it('say where the probes go and how the meter stands', () => {
    expect(probeName(ohm, 'GND')).toBe('1V8 to ground');
    expect(probeName({ ...ohm, red: 'GND', black: '1V8' }, 'GND')).toBe('red on ground, black on 1V8');
    expect(probeName({ ...ohm, black: '5V' }, 'GND')).toBe('across 1V8 and 5V');
    expect(probeName({ ...ohm, type: 'isup' }, 'GND')).toBe('supply current');
    expect(modeName({ type: 'dcv', state: 'awake' })).toBe('volts, awake');
    expect(shown('diode', 0.487)).toBe('0.487 V');
    expect(shown('dcv', 1e-9)).toBe('0 V');
    expect([percent(0.999), percent(0.001), percent(0.42)]).toEqual(['> 99 %', '< 1 %', '42 %']);
    expect(few(['a', 'b', 'c', 'd', 'e', 'f'])).toBe('a, b, c, d and 2 more');
  });
  it('keep a net that the board does not know', () => {
    const place = placeOfProbe(ohm, doc, netlist);
    expect(place.partId).toBeUndefined();
    const reading = { type: 'reading' as const, place, quantity: 'ohm' as const, value: 4, good: null, powered: false };
    expect(probeOfReading({ ...reading, probe: ohm }, doc, netlist)).toEqual(ohm);
    expect(probeOfReading(reading, doc, netlist)).toBeNull();
  });
});
