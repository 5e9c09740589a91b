/** The meter on the bench, asked for what it shows now. */
import { send } from '$lib/jobs/send';
import type { Measured } from '@orthos/core/ground';
import type { Probe } from './probes';

export interface MeterAnswer {
  value: Measured;
  meter: string;
  /** The value comes from the simulated meter. */
  simulated?: true;
}

/** What a reading keeps of the meter it came from. */
export const sourceOf = ({ meter, simulated }: MeterAnswer): { meter: string; simulated?: true } => ({
  meter,
  ...(simulated ? { simulated } : {}),
});

/** Throws a `SendError` with a sentence when there is no meter or it does not answer. */
export async function askMeter(ticketId: string, { type, red, black, state }: Probe): Promise<MeterAnswer> {
  return (await send('POST', `/api/jobs/${ticketId}/meter`, { type, red, black, state })) as MeterAnswer;
}
