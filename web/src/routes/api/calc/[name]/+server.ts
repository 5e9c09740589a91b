import { readJson } from '$lib/server/body';
import { calcInThread } from '$lib/server/calcThread';
import { whileWanted } from '$lib/server/wanted';
import { CALCS } from '@orthos/formats';
import { error } from '@sveltejs/kit';

/** Runs a calculation of the registry on the server: at most two at once, ten seconds each. */
export const POST = async (event) => {
  const { params, request } = event;
  if (!CALCS.has(params.name))
    error(404, { message: `No calculation "${params.name}"; known: ${[...CALCS.keys()].join(', ')}.` });
  const input = await readJson(request);
  const answer = await whileWanted(event, (signal) => calcInThread(params.name, input, signal));
  if (answer.kind === 'busy') error(429, { message: 'Two calculations are running already; try again in a moment.' });
  if (answer.kind === 'too-long')
    error(422, { message: 'Stopped after ten seconds: fewer cells, a shorter time or a larger dt_max.' });
  if (answer.kind === 'refused')
    error(400, {
      message: answer.issues.map((i) => (i.field ? `${i.field}: ${i.message}` : i.message)).join('; '),
      issues: answer.issues,
    });
  return new Response(answer.json, { headers: { 'content-type': 'application/json' } });
};
