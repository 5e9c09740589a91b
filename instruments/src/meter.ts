/** A multimeter's readings by SCPI-99 measure commands. */
import type { MeterType } from '@orthos/core/circuit';
import type { Measured } from '@orthos/core/ground';
import { parseMeterAnswer } from './meterAnswer.ts';
import { InstrumentError, ScpiClient, type Address } from './scpiClient.ts';

const MEASURE: Record<MeterType, string> = {
  ohm: 'MEAS:RES?',
  cont: 'MEAS:CONT?',
  diode: 'MEAS:DIOD?',
  dcv: 'MEAS:VOLT:DC?',
  isup: 'MEAS:CURR:DC?',
};

export interface MeterReading {
  value: Measured;
  /** What the instrument says it is. */
  identity: string;
}

/**
 * One reading. Throws `InstrumentError` when nobody answers, when the answer is no number, or with the
 * instrument's own complaint.
 */
export async function measure(address: Address, type: MeterType, timeout_ms = 3000): Promise<MeterReading> {
  const client = await ScpiClient.open(address, timeout_ms);
  try {
    const identity = await client.ask('*IDN?');
    const answer = await client.ask(MEASURE[type]);
    const value = parseMeterAnswer(answer);
    if (value === null) {
      const complaint = await client.ask('SYST:ERR?').catch(() => '');
      throw new InstrumentError(
        `the meter answered "${answer.slice(0, 60)}", which is no number${complaint ? ` (${complaint.slice(0, 120)})` : ''}`,
      );
    }
    return { value, identity };
  } finally {
    client.close();
  }
}
