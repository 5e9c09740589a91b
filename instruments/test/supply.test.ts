import { afterEach, describe, expect, it } from 'vitest';
import {
  InstrumentError,
  powerInStages,
  type PowerSample,
  ScpiClient,
  SimulatedSupply,
  startUpOn,
} from '../src/index.ts';

const running: { stop(): void }[] = [];
afterEach(() => {
  for (const r of running.splice(0)) r.stop();
});
async function simulated(): Promise<SimulatedSupply> {
  const supply = await SimulatedSupply.start();
  running.push(supply);
  return supply;
}
const at = (port: number) => ({ host: '127.0.0.1', port });

describe('a start-up on a supply over TCP', () => {
  it('sets limit and voltage, reads at its moments in order, and switches off', async () => {
    const supply = await simulated();
    const seen: [number, number][] = [];
    supply.load = (volts, limit_A, on_s) => {
      seen.push([volts, limit_A]);
      return { volts, current_A: on_s < 0.15 ? 0.02 : 0.3 };
    };
    const run = await startUpOn(at(supply.port), { volts: 12, limit_A: 0.5, at_s: [0.3, 0.05] });
    expect(run.identity).toContain('simulator');
    expect(run.moments.map((m) => m.current_A)).toEqual([0.02, 0.3]);
    expect(run.moments[0].at_s).toBeGreaterThanOrEqual(0.05);
    expect(run.moments[1].at_s).toBeGreaterThanOrEqual(0.3);
    expect(seen.every(([volts, limit]) => volts === 12 && limit === 0.5)).toBe(true);
    expect(supply.on).toBe(false);
  });
  it('never switches on what does not take its settings', async () => {
    const supply = await simulated();
    let asked = 0;
    supply.load = (volts) => {
      asked++;
      return { volts, current_A: 0 };
    };
    await expect(startUpOn(at(supply.port), { volts: 500, limit_A: 0.5, at_s: [0] })).rejects.toThrow(
      'does not take 500 V at 0.5 A',
    );
    expect([supply.on, asked]).toEqual([false, 0]);
  });
  it('does not go on heating what its limit holds', async () => {
    const supply = await simulated();
    supply.load = (_volts, limit_A) => ({ volts: 0.2, current_A: limit_A });
    const run = await startUpOn(at(supply.port), { volts: 12, limit_A: 0.5, at_s: [0, 0.05, 20] });
    expect(run.moments.map((m) => m.current_A)).toEqual([0.5, 0.5]);
    expect(supply.on).toBe(false);
  });
  it('switches off when it is called off or what it reads is no number', async () => {
    const supply = await simulated();
    // called off while its current is read, not only while it waits
    const stop = new AbortController();
    supply.load = (volts) => {
      stop.abort();
      return { volts, current_A: 0.1 };
    };
    const begun = performance.now();
    const run = await startUpOn(at(supply.port), { volts: 5, limit_A: 1, at_s: [0, 20] }, { signal: stop.signal });
    expect(run.moments).toHaveLength(1);
    expect(performance.now() - begun).toBeLessThan(5000);
    expect(supply.on).toBe(false);
    supply.load = (volts) => ({ volts, current_A: NaN });
    await expect(startUpOn(at(supply.port), { volts: 5, limit_A: 1, at_s: [0] })).rejects.toThrow(InstrumentError);
    expect(supply.on).toBe(false);
  });
  it('speaks long and short forms and keeps its errors', async () => {
    const supply = await simulated();
    const client = await ScpiClient.open(at(supply.port));
    running.push({ stop: () => client.close() });
    client.send('SOURCE:VOLTAGE 3.3');
    client.send(':SOUR:CURR 0.2;OUTPUT 1');
    expect([Number(await client.ask('VOLT?')), Number(await client.ask('CURR?'))]).toEqual([3.3, 0.2]);
    expect(await client.ask('OUTP?')).toBe('1');
    expect(Number(await client.ask('MEAS:CURR?'))).toBe(0);
    client.send('CURR -1');
    expect(await client.ask('SYST:ERR?')).toContain('-113');
    client.send('*RST');
    expect(await client.ask('OUTP?')).toBe('0');
  });
});

describe('first power in stages', () => {
  const stages = [
    { limit_A: 0.02, for_s: 0.4 },
    { limit_A: 0.5, for_s: 0.4 },
  ];
  it('raises the limit with the output on, reads the rail that is watched, and switches off', async () => {
    const supply = await simulated();
    const limits: number[] = [];
    supply.load = (volts, limit_A) => {
      limits.push(limit_A);
      return { volts, current_A: 0.01 };
    };
    const told: [number, PowerSample][] = [];
    const { stop } = await powerInStages(at(supply.port), { volts: 12, stages }, () => null, {
      rail: () => Promise.resolve(5.02),
      tell: (stage, sample) => {
        expect(supply.on).toBe(true);
        told.push([stage, sample]);
      },
    });
    expect(stop).toBeNull();
    expect([...new Set(limits)]).toEqual([0.02, 0.5]);
    expect([...new Set(told.map(([n]) => n))]).toEqual([0, 1]);
    expect(told.every(([, s]) => s.rail_V === 5.02 && s.volts === 12)).toBe(true);
    expect(supply.on).toBe(false);
  });
  it('goes off with the reading that is too much, not with the next', async () => {
    const supply = await simulated();
    supply.load = (volts, _limit, on_s) => ({ volts: on_s > 0.2 ? 14 : volts, current_A: 0.01 });
    const seen: number[] = [];
    const { stop } = await powerInStages(at(supply.port), { volts: 12, stages }, (_, samples) => {
      seen.push(samples[samples.length - 1].volts);
      return samples.some((s) => s.volts > 13.2) ? 'over' : null;
    });
    expect(stop).toBe('over');
    expect(seen.filter((v) => v > 13.2)).toHaveLength(1);
    expect(supply.on).toBe(false);
  });
  it('goes off when it is called off, and when the rail cannot be read', async () => {
    const supply = await simulated();
    supply.load = (volts) => ({ volts, current_A: 0.01 });
    const gone = new AbortController();
    const begun = performance.now();
    await powerInStages(at(supply.port), { volts: 12, stages: [{ limit_A: 0.1, for_s: 20 }] }, () => null, {
      signal: gone.signal,
      tell: () => gone.abort(),
    });
    expect(performance.now() - begun).toBeLessThan(5000);
    expect(supply.on).toBe(false);
    const lost = () => Promise.reject(new InstrumentError('the meter is gone'));
    await expect(powerInStages(at(supply.port), { volts: 12, stages }, () => null, { rail: lost })).rejects.toThrow(
      'the meter is gone',
    );
    expect(supply.on).toBe(false);
    await expect(powerInStages(at(supply.port), { volts: 500, stages }, () => null)).rejects.toThrow(
      'does not take 500 V',
    );
    expect(supply.on).toBe(false);
  });
});
