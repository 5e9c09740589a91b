import { formIssues } from '$lib/server/forms';
import { latestVersion, listBoardModels } from '$lib/server/repositories/boardModels';
import { createTicket } from '$lib/server/repositories/tickets';
import { JOB_TYPE_IDS } from '@orthos/core';
import { fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';

/** An express job has a page of its own. */
const TAKEN_IN = JOB_TYPE_IDS.filter((t) => t !== 'express');

const schema = z.object({
  customer: z.string().trim().min(1, 'Who brought it?').max(200),
  contact: z.string().trim().max(200),
  device: z.string().trim().min(1, 'What is it?').max(200),
  serial: z.string().trim().max(100),
  complaint: z.string().trim().min(1, "The complaint, in the owner's words").max(2000),
  inBox: z.string().trim().max(500),
  kind: z.enum(TAKEN_IN, 'Choose the kind of job'),
  modelId: z.uuid('Choose the kind of board'),
  promisedOn: z.union([z.literal(''), z.iso.date('A date, or leave it empty')]),
});

/** Jobs are pinned to a published version: a draft alone cannot be chosen. */
export const load = async ({ locals }) => ({
  models: (await listBoardModels(locals.db)).filter((m) => m.version !== null),
});

export const actions = {
  default: async ({ request, locals }) => {
    const values = Object.fromEntries(await request.formData());
    const parsed = schema.safeParse(values);
    if (!parsed.success) return fail(400, { values, issues: formIssues(parsed.error) });
    const { promisedOn, ...t } = parsed.data;
    const version = await latestVersion(locals.db, t.modelId);
    if (!version) return fail(400, { values, issues: { modelId: 'This kind of board is not known' } });
    const ticket = await createTicket(locals.db, {
      ...t,
      boardVersionId: version.id,
      promisedOn: promisedOn || null,
    });
    redirect(303, `/jobs/${ticket.id}`);
  },
};
