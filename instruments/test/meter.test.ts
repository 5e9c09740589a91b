import { createServer, type Server } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { InstrumentError, measure, ScpiClient, SimulatedMeter } from '../src/index.ts';

const running: { stop(): void }[] = [];
afterEach(() => {
  for (const r of running.splice(0)) r.stop();
});
async function simulated(): Promise<SimulatedMeter> {
  const meter = await SimulatedMeter.start();
  running.push(meter);
  return meter;
}
/** A server that answers every line with the same. */
async function stubborn(answer: string | null): Promise<number> {
  const server: Server = createServer((s) => {
    s.on('error', () => s.destroy());
    s.on('data', () => answer !== null && s.write(answer));
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  running.push({ stop: () => server.close() });
  const address = server.address();
  return typeof address === 'object' && address ? address.port : 0;
}
const at = (port: number) => ({ host: '127.0.0.1', port });

describe('a meter over TCP', () => {
  it('reads what the probes are on', async () => {
    const meter = await simulated();
    meter.probes = (type) => (type === 'ohm' ? 4712.5 : type === 'diode' ? 'OL' : -0.0042);
    expect(await measure(at(meter.port), 'ohm')).toEqual({
      value: 4712.5,
      identity: expect.stringContaining('simulator') as string,
    });
    expect((await measure(at(meter.port), 'diode')).value).toBe('OL');
    expect((await measure(at(meter.port), 'dcv')).value).toBe(-0.0042);
  });
  it('reads open ohms and no volts while its probes hang in the air', async () => {
    const meter = await simulated();
    expect((await measure(at(meter.port), 'ohm')).value).toBe('OL');
    expect((await measure(at(meter.port), 'dcv')).value).toBe(0);
  });
  it('speaks the common commands, several to a line, and keeps its errors', async () => {
    const meter = await simulated();
    meter.probes = (type) => (type === 'isup' ? 0.12 : 7);
    const client = await ScpiClient.open(at(meter.port));
    running.push({ stop: () => client.close() });
    client.send('*RST;*CLS');
    expect(await client.ask('*OPC?')).toBe('1');
    client.send('CONF:CURR:DC');
    expect(Number(await client.ask('READ?'))).toBeCloseTo(0.12, 9);
    client.send('FLY:AWAY');
    expect(await client.ask('SYST:ERR?')).toContain('-113');
    expect(await client.ask(':SYST:ERR?')).toBe('0,"No error"');
  });
  it('says so when nobody is there, nobody answers, or the answer is no number', async () => {
    const gone = await simulated();
    const { port } = gone;
    gone.stop();
    await expect(measure(at(port), 'ohm')).rejects.toThrow(`no instrument answers at 127.0.0.1:${port}`);
    await expect(measure(at(await stubborn(null)), 'ohm', 200)).rejects.toThrow('did not answer *IDN? within 0.2 s');
    await expect(measure(at(await stubborn('hello\n')), 'ohm', 500)).rejects.toThrow('"hello", which is no number');
    await expect(measure(at(await stubborn('x'.repeat(9000))), 'ohm', 500)).rejects.toBeInstanceOf(InstrumentError);
  });
  it('does not mix up two questions', async () => {
    const meter = await simulated();
    const client = await ScpiClient.open(at(meter.port));
    running.push({ stop: () => client.close() });
    const first = client.ask('*IDN?');
    await expect(client.ask('READ?')).rejects.toThrow('not answered the last question');
    expect(await first).toContain('Saltmarsh');
    client.close();
    await expect(client.ask('*IDN?')).rejects.toThrow('closed');
  });
});
