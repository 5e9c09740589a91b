import { circuitOf } from '$lib/diagnose/circuitOf';
import { readBody } from '$lib/server/body';
import { standingOf } from '$lib/server/jobs/standing';
import { isRunning, runFirstPower } from '$lib/server/meter';
import { circuitsOf } from '$lib/server/repositories/circuits';
import { goodStartUpsOf } from '$lib/server/repositories/goodStartUps';
import { hiddenFaultsOf } from '$lib/server/repositories/hiddenFaults';
import { listMeters } from '$lib/server/repositories/meters';
import { modelOfTicket, ticketById } from '$lib/server/repositories/tickets';
import type { FirstPowerLine } from '$lib/verify/firstPower';
import { NetlistError } from '@orthos/core/circuit';
import { blocks, firstPower, judgeStage } from '@orthos/core/job';
import { InstrumentError } from '@orthos/instruments';
import { error } from '@sveltejs/kit';
import { z } from 'zod';

const body = z.strictObject({
  volts: z.number().positive().max(60),
  /** A rail that the meter lies on, by its net, and what it is meant to be. */
  watch: z.strictObject({ net: z.string().min(1).max(80), volts: z.number().positive().max(1000) }).optional(),
});

/**
 * First power on the bench supply, stage by stage; each reading is a line of JSON as it is taken, the last line says how it ended. The output goes off when too much is read, when
 * nobody listens any more, and at the end. Stores nothing; hard gates that are open refuse it.
 */
export const POST = async ({ locals, params, request }) => {
  const { volts, watch } = await readBody(request, body);
  const ticket = await ticketById(locals.db, params.id);
  const modelId = ticket && (await modelOfTicket(locals.db, params.id));
  if (!ticket || !modelId) error(404, { message: 'There is no such job.' });
  const { state, gates } = await standingOf(locals.db, ticket);
  const shut = gates.find((g) => (g.id === 'short-check' || g.id === 'restored') && blocks(g));
  if (shut) error(409, { message: `${shut.label}: ${shut.why}.` });
  const [supply] = await listMeters(locals.db, 'supply');
  if (!supply) error(409, { message: 'There is no supply in the kit. Add one under Kit, or type what yours shows.' });
  if (isRunning(supply)) error(409, { message: `${supply.name} runs for somebody else. Try again when it is done.` });
  const [meter] = await listMeters(locals.db);
  const circuit = circuitOf(await circuitsOf(locals.db, modelId), state);
  const faults = supply.simulated ? await hiddenFaultsOf(locals.db, params.id) : [];
  if (supply.simulated && (faults === null || !circuit))
    error(409, { message: `${supply.name} is simulated and knows nothing of this board. Type what your own shows.` });
  const board = circuit && faults ? { netlist: circuit.netlist, faults } : null;
  const good = (await goodStartUpsOf(locals.db, modelId))[0]?.stages ?? [];
  const plan = firstPower(volts, good);

  const gone = new AbortController();
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const encoder = new TextEncoder();
      const say = (line: FirstPowerLine) => {
        if (!gone.signal.aborted) controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      const simulated = supply.simulated ? { simulated: true as const } : {};
      try {
        const { stop } = await runFirstPower(
          { supply, watched: watch && meter ? { meter, net: watch.net } : null },
          plan,
          (n, samples) => judgeStage(plan.stages[n], plan, samples, watch?.volts ?? null),
          board,
          { signal: gone.signal, tell: (n, sample) => say({ stage: plan.stages[n].stage, ...sample }) },
        );
        say({ end: stop ?? 'passed', supply: supply.name, ...simulated });
      } catch (e) {
        if (!(e instanceof InstrumentError || e instanceof NetlistError)) {
          console.error(e);
          say({ trouble: 'It failed on the server. The output was switched off.' });
        } else say({ trouble: `${supply.name}: ${e.message}. Its output was switched off.` });
      }
      if (!gone.signal.aborted) controller.close();
    },
    cancel: () => gone.abort(),
  });
  return new Response(stream, { headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' } });
};
