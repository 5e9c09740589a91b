import { orConflict, readBody } from '$lib/server/body';
import { listKit } from '$lib/server/repositories/kit';
import { savePlanSettings, ticketById } from '$lib/server/repositories/tickets';
import { planSettingsSchema } from '$lib/plan/stored';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';

const bodySchema = z.strictObject({
  version: z.int32().positive(),
  /** A page that was open since before methods had ids sends them as it knows them. */
  settings: planSettingsSchema,
});

/** Changes what plans of this job are computed from; a plan already stored becomes stale. */
export const PUT = async ({ locals, params, request }) => {
  const { version, settings } = await readBody(request, bodySchema);
  if (!(await ticketById(locals.db, params.id))) error(404, { message: 'There is no such job.' });
  const kit = await listKit(locals.db);
  for (const [key, kind] of [
    ['stationId', 'air'],
    ['ironId', 'iron'],
  ] as const)
    // a bench may have none
    if (settings[key] !== '' && !kit.some((k) => k.id === settings[key] && k.kind === kind))
      error(400, { message: `settings.${key}: is not a tool of this shop` });
  return json({ version: await orConflict(savePlanSettings(locals.db, params.id, version, settings)) });
};
