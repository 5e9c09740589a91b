import { circuitOf } from '$lib/diagnose/circuitOf';
import { readBody } from '$lib/server/body';
import { logOf } from '$lib/server/jobs/logs';
import { isRunning, runStartUp } from '$lib/server/meter';
import { circuitsOf } from '$lib/server/repositories/circuits';
import { hiddenFaultsOf } from '$lib/server/repositories/hiddenFaults';
import { listMeters } from '$lib/server/repositories/meters';
import { modelOfTicket } from '$lib/server/repositories/tickets';
import { whileWanted } from '$lib/server/wanted';
import { NetlistError } from '@orthos/core/circuit';
import { InstrumentError } from '@orthos/instruments';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

/** A start-up waits no longer than this for its last stage, s. */
const LONGEST_S = 30;
const body = z.strictObject({
  volts: z.number().positive().max(60),
  limit_A: z.number().min(0.001).max(10),
  at_s: z.array(z.number().min(0).max(LONGEST_S)).min(1).max(20),
});

/** Starts the board on the bench supply: limit first, output on, currents read, output off. Stores nothing. */
export const POST = async ({ locals, params, request, platform }) => {
  const settings = await readBody(request, body);
  const modelId = await modelOfTicket(locals.db, params.id);
  if (!modelId) error(404, { message: 'There is no such job.' });
  const [supply] = await listMeters(locals.db, 'supply');
  if (!supply) error(409, { message: 'There is no supply in the kit. Add one under Kit, or type the stages.' });
  if (isRunning(supply)) error(409, { message: `${supply.name} runs for somebody else. Try again when it is done.` });
  const { state } = await logOf(locals.db, params.id);
  const circuit = circuitOf(await circuitsOf(locals.db, modelId), state);
  const faults = supply.simulated ? await hiddenFaultsOf(locals.db, params.id) : [];
  if (supply.simulated && (faults === null || !circuit))
    error(409, { message: `${supply.name} is simulated and knows nothing of this board. Type what your own shows.` });
  try {
    const board = circuit && faults ? { netlist: circuit.netlist, faults } : null;
    const { moments, identity } = await whileWanted({ request, platform }, (signal) =>
      runStartUp(supply, settings, board, signal),
    );
    return json({ moments, supply: supply.name, identity, ...(supply.simulated ? { simulated: true } : {}) });
  } catch (e) {
    if (e instanceof InstrumentError || e instanceof NetlistError)
      error(502, { message: `${supply.name}: ${e.message}. Its output was switched off; nothing was stored.` });
    throw e;
  }
};
