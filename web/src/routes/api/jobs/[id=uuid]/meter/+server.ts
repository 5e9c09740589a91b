import { circuitOf } from '$lib/diagnose/circuitOf';
import { readBody } from '$lib/server/body';
import { logOf } from '$lib/server/jobs/logs';
import { takeReading } from '$lib/server/meter';
import { hiddenFaultsOf } from '$lib/server/repositories/hiddenFaults';
import { circuitsOf } from '$lib/server/repositories/circuits';
import { listMeters } from '$lib/server/repositories/meters';
import { modelOfTicket } from '$lib/server/repositories/tickets';
import { METER_TYPES, NetlistError } from '@orthos/core/circuit';
import { InstrumentError } from '@orthos/instruments';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const net = z.string().max(80);
const body = z.strictObject({
  type: z.enum(METER_TYPES),
  red: net,
  black: net,
  state: net.nullable(),
  /** Which meter; the first one of the kit without it. */
  meterId: z.uuid().optional(),
});

/** Asks the meter what it shows now, its probes being where the body says. Stores nothing. */
export const POST = async ({ locals, params, request }) => {
  const { meterId, ...probe } = await readBody(request, body);
  const modelId = await modelOfTicket(locals.db, params.id);
  if (!modelId) error(404, { message: 'There is no such job.' });
  const meters = await listMeters(locals.db);
  const meter = meterId ? meters.find((m) => m.id === meterId) : meters[0];
  if (!meter) error(409, { message: 'There is no meter in the kit. Add one under Kit, or type the reading.' });
  const { state } = await logOf(locals.db, params.id);
  const circuit = circuitOf(await circuitsOf(locals.db, modelId), state);
  const faults = meter.simulated ? await hiddenFaultsOf(locals.db, params.id) : [];
  if (meter.simulated && (faults === null || !circuit))
    error(409, {
      message: `${meter.name} is simulated and knows nothing of this board. Type what your own meter shows.`,
    });
  try {
    const { value, identity } = await takeReading(
      meter,
      probe,
      circuit && faults ? { netlist: circuit.netlist, faults, ticketId: params.id } : null,
    );
    return json({ value, meter: meter.name, identity, ...(meter.simulated ? { simulated: true } : {}) });
  } catch (e) {
    if (e instanceof InstrumentError || e instanceof NetlistError)
      error(502, { message: `${meter.name}: ${e.message}. Nothing was stored; type the reading, or try again.` });
    throw e;
  }
};
