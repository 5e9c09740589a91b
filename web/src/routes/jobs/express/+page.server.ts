import { readForm } from '$lib/server/body';
import { now } from '$lib/server/clock';
import { formIssues } from '$lib/server/forms';
import { createBoardModel } from '$lib/server/repositories/boardModels';
import { appendEvents } from '$lib/server/repositories/jobEvents';
import { addKitItem, listKit } from '$lib/server/repositories/kit';
import { createTicket, savePlanSettings } from '$lib/server/repositories/tickets';
import { EVENT_VERSION } from '@orthos/core/job';
import { parseDecimal } from '@orthos/core/ground';
import { packageById } from '@orthos/core/packages';
import {
  DEFAULT_STATION,
  expressBoard,
  expressSchema,
  methodsFor,
  pieceOn,
  type Surroundings,
} from '@orthos/core/rework';
import { fail, redirect } from '@sveltejs/kit';
import { v7 } from 'uuid';

export const load = async ({ locals }) => ({
  stations: (await listKit(locals.db))
    .filter((k) => k.kind === 'air')
    .map(({ id, name, bench }) => ({ id, name, bench })),
});

/** What is known of the part: whether it has to live, and in what state its joints are. */
function found({ again, metal }: Record<string, unknown>): { surroundings?: Surroundings } {
  const surroundings: Surroundings = {
    ...(again === 'again' ? { reused: true } : {}),
    ...(metal === 'corroded' ? { joints: [{ corroded: true }] } : {}),
    ...(metal === 'leaking' ? { joints: [{ leaking: true }] } : {}),
  };
  return Object.keys(surroundings).length > 0 ? { surroundings } : {};
}

export const actions = {
  default: async ({ request, locals }) => {
    const { station, again, metal, ...values } = await readForm(request);
    const parsed = expressSchema.safeParse({
      ...values,
      distance_mm: values.plastic === 'none' ? 30 : (parseDecimal(String(values.distance_mm)) ?? undefined),
    });
    if (!parsed.success)
      return fail(400, { values: { ...values, station, again, metal }, issues: formIssues(parsed.error) });
    const kit = await listKit(locals.db);
    const stationId =
      kit.find((k) => k.id === station && k.kind === 'air')?.id ??
      (await addKitItem(locals.db, { kind: 'air', name: 'Air station', bench: '', doc: DEFAULT_STATION }));
    const ironId =
      kit.find((k) => k.kind === 'iron')?.id ??
      (await addKitItem(locals.db, { kind: 'iron', name: 'Iron', bench: '', doc: DEFAULT_STATION }));
    const doc = expressBoard(parsed.data);
    const { modelId, versionId } = await createBoardModel(locals.db, { doc, express: true });
    const part = packageById(parsed.data.package);
    const ticket = await createTicket(locals.db, {
      kind: 'express',
      customer: 'counter',
      device: doc.name,
      complaint: `Take off one ${part.label}`,
      modelId,
      boardVersionId: versionId,
    });
    await savePlanSettings(locals.db, ticket.id, ticket.version, {
      v: 2,
      stationId,
      ironId,
      ambient_C: 22,
      ...found({ again, metal }),
      methods: methodsFor(part.id, pieceOn(doc, doc.parts[0])).map((m) => m.method),
    });
    await appendEvents(locals.db, ticket.id, [
      {
        id: v7(),
        at: now().getTime(),
        actor: 'unsigned',
        v: EVENT_VERSION,
        body: { type: 'suspect', partId: 'target', why: 'express job: this part comes off' },
      },
    ]);
    redirect(303, `/jobs/${ticket.id}/plan`);
  },
};
