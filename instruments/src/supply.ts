/** A start-up on a bench supply by SCPI-99: limit and voltage set, output on, current read at its moments, output off again. */
import { parseMeterAnswer } from './meterAnswer.ts';
import { InstrumentError, ScpiClient, type Address } from './scpiClient.ts';

interface SupplyMoment {
  /** s since the output came on, as it was read. */
  at_s: number;
  volts: number;
  current_A: number;
}

export interface SupplyRun {
  moments: SupplyMoment[];
  /** What the instrument says it is. */
  identity: string;
}

const wait = (ms: number, signal?: AbortSignal) =>
  new Promise<void>((ready) => {
    const done = () => {
      clearTimeout(timer);
      signal?.removeEventListener('abort', done);
      ready();
    };
    // timers leave fractions out, and come early by as much
    const timer = setTimeout(done, Math.max(0, Math.ceil(ms)));
    // called off while something was read
    if (signal?.aborted) done();
    else signal?.addEventListener('abort', done);
  });

/** A current counts as held by the limit from this share of it. */
const HELD = 0.97;

/** A supply that answers, its output off, with a way to set it and to read it. */
async function supplyAt(address: Address, timeout_ms: number) {
  const client = await ScpiClient.open(address, timeout_ms);
  const number = async (question: string): Promise<number> => {
    const answer = await client.ask(question);
    const value = parseMeterAnswer(answer);
    if (typeof value === 'number') return value;
    throw new InstrumentError(`the supply answered "${answer.slice(0, 60)}" to ${question}, which is no number`);
  };
  return {
    client,
    number,
    /** The limit before the voltage, both before the output. */
    async set(volts: number, limit_A: number) {
      client.send('*CLS');
      client.send(`CURR ${limit_A}`);
      client.send(`VOLT ${volts}`);
      const complaint = await client.ask('SYST:ERR?');
      if (!/^[+]?0\b/.test(complaint)) throw new InstrumentError(`the supply does not take ${volts} V at ${limit_A} A`);
      if (Math.abs((await number('CURR?')) - limit_A) > 0.02 * limit_A + 1e-3)
        throw new InstrumentError(`the supply did not take the limit of ${limit_A} A`);
    },
    /** Output off, and gone, whatever happened before. */
    async leave() {
      try {
        client.send('OUTP OFF');
        await client.ask('*OPC?');
      } catch {
        // gone: what failed before is what is told
      }
      client.close();
    },
  };
}

/**
 * Runs a start-up. What its limit holds twice in a row is not heated any further. The output is switched off at the end, after any failure and when `signal` is aborted. Throws `InstrumentError` when nobody
 * answers, the supply does not take the settings, or an answer is no number.
 */
export async function startUpOn(
  address: Address,
  { volts, limit_A, at_s }: { volts: number; limit_A: number; at_s: readonly number[] },
  { timeout_ms = 3000, signal }: { timeout_ms?: number; signal?: AbortSignal } = {},
): Promise<SupplyRun> {
  const supply = await supplyAt(address, timeout_ms);
  const { client, number } = supply;
  try {
    const identity = await client.ask('*IDN?');
    client.send('OUTP OFF');
    await supply.set(volts, limit_A);
    client.send('OUTP ON');
    const begun = performance.now();
    const moments: SupplyMoment[] = [];
    for (const at of [...at_s].sort((a, b) => a - b)) {
      await wait(1000 * at - (performance.now() - begun), signal);
      if (signal?.aborted) break;
      const current_A = await number('MEAS:CURR?');
      const shown = await number('MEAS:VOLT?');
      moments.push({ at_s: (performance.now() - begun) / 1000, volts: shown, current_A });
      const held = moments.slice(-2).filter((m) => m.current_A >= HELD * limit_A);
      if (held.length === 2) break;
    }
    return { moments, identity };
  } finally {
    await supply.leave();
  }
}

export interface PowerSample {
  /** s since this stage began. */
  at_s: number;
  volts: number;
  current_A: number;
  /** Of the rail that is watched, V. */
  rail_V?: number;
}

/** Readings are taken no more often than this, ms. */
const POLL_MS = 120;

/**
 * First power in stages of one output: each has its limit and its time, and what `judge` says after a reading switches the output off at once. `rail` reads the rail that is
 * watched. The output is off at the end, after any failure and when `signal` is aborted. Throws `InstrumentError` as `startUpOn` does.
 */
export async function powerInStages<Stop>(
  address: Address,
  { volts, stages }: { volts: number; stages: readonly { limit_A: number; for_s: number }[] },
  judge: (stage: number, samples: readonly PowerSample[]) => Stop | null,
  {
    timeout_ms = 3000,
    signal,
    rail,
    tell,
  }: {
    timeout_ms?: number;
    signal?: AbortSignal;
    rail?: () => Promise<number | undefined>;
    tell?: (stage: number, sample: PowerSample) => void;
  } = {},
): Promise<{ stop: Stop | null; identity: string }> {
  const supply = await supplyAt(address, timeout_ms);
  const { client, number } = supply;
  try {
    const identity = await client.ask('*IDN?');
    client.send('OUTP OFF');
    for (const [n, { limit_A, for_s }] of stages.entries()) {
      await supply.set(volts, limit_A);
      if (n === 0) client.send('OUTP ON');
      const begun = performance.now();
      const samples: PowerSample[] = [];
      while (performance.now() - begun < 1000 * for_s && !signal?.aborted) {
        const turn = performance.now();
        const current_A = await number('MEAS:CURR?');
        const shown = await number('MEAS:VOLT?');
        const rail_V = await rail?.();
        const sample = {
          at_s: (performance.now() - begun) / 1000,
          ...{ volts: shown, current_A },
          ...(rail_V === undefined ? {} : { rail_V }),
        };
        samples.push(sample);
        const stop = judge(n, samples);
        if (stop !== null) {
          client.send('OUTP OFF');
          tell?.(n, sample);
          return { stop, identity };
        }
        tell?.(n, sample);
        await wait(POLL_MS - (performance.now() - turn), signal);
      }
      if (signal?.aborted) break;
    }
    return { stop: null, identity };
  } finally {
    await supply.leave();
  }
}
