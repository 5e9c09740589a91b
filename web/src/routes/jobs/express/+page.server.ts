import { readForm } from '$lib/server/body';
import { now } from '$lib/server/clock';
import { formIssues } from '$lib/server/forms';
import { createBoardModel } from '$lib/server/repositories/boardModels';
import { appendEvents } from '$lib/server/repositories/jobEvents';
import { benchFor, benchNames } from '$lib/server/jobs/bench';
import { asLastTime, lastTimes } from '$lib/server/jobs/lastTime';
import { listKit } from '$lib/server/repositories/kit';
import { createTicket, savePlanSettings } from '$lib/server/repositories/tickets';
import { EVENT_VERSION } from '@orthos/core/job';
import { parseDecimal } from '@orthos/core/ground';
import { packageById } from '@orthos/core/packages';
import { expressBoard, expressSchema, type Surroundings } from '@orthos/core/rework';
import { fail, redirect } from '@sveltejs/kit';
import { v7 } from 'uuid';
import { z } from 'zod';

/** Benches with what lies there, the one that jobs are done on unasked first. */
export const load = async ({ locals }) => {
  const kit = await listKit(locals.db);
  const usual = benchFor(kit, {}).name;
  const names = [usual, ...benchNames(kit).filter((name) => name !== usual)];
  return {
    benches: names.map((name) => {
      const { kit: there, model } = benchFor(kit, { bench: name });
      return { name, kit: there, dials: { air: model.air } };
    }),
    lastTimes: await lastTimes(locals.db),
  };
};

/** What is known of the part: whether it has to live, in what state its joints are, whether its board can be reached from below. */
function found({ again, metal, housed }: Record<string, unknown>): { surroundings?: Surroundings } {
  const surroundings: Surroundings = {
    ...(again === 'again' ? { reused: true } : {}),
    ...(housed === 'in' ? { held: { kind: 'housing' } } : {}),
    ...(metal === 'corroded' ? { joints: [{ corroded: true }] } : {}),
    ...(metal === 'leaking' ? { joints: [{ leaking: true }] } : {}),
  };
  return Object.keys(surroundings).length > 0 ? { surroundings } : {};
}

export const actions = {
  /** The same again, in one tap. */
  again: async ({ request, locals }) => {
    const { id = '' } = await readForm(request);
    const made = z.uuid().safeParse(id).success ? await asLastTime(locals.db, id, now().getTime()) : null;
    if (!made) return fail(404, { values: {}, issues: { again: 'That job is not there any more, or found nothing.' } });
    redirect(303, `/jobs/${made.id}/plan${made.methodId ? `?method=${made.methodId}` : ''}`);
  },
  fresh: async ({ request, locals }) => {
    const { bench, again, metal, housed, ...values } = await readForm(request);
    const parsed = expressSchema.safeParse({
      ...values,
      distance_mm: values.plastic === 'none' ? 30 : (parseDecimal(String(values.distance_mm)) ?? undefined),
    });
    if (!parsed.success)
      return fail(400, { values: { ...values, bench, again, metal, housed }, issues: formIssues(parsed.error) });
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
      ...(bench ? { bench: String(bench).slice(0, 100) } : {}),
      stationId: '',
      ironId: '',
      ambient_C: 22,
      ...found({ again, metal, housed }),
      methods: [],
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
