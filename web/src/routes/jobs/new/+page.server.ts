import { NOT_HERE } from '$lib/boards/notHere';
import { calendarDate, formIssues, millimetres, readPosted } from '$lib/server/forms';
import { createBoardModel, latestVersion, listBoardModels } from '$lib/server/repositories/boardModels';
import { createTicket } from '$lib/server/repositories/tickets';
import { blankBoard } from '@orthos/core/board';
import { JOB_TYPE_IDS } from '@orthos/core/job';
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
  modelId: z.union([z.uuid(), z.literal(NOT_HERE)], 'Choose the kind of board'),
  promisedOn: z.union([z.literal(''), calendarDate('A date, or leave it empty')]),
});

/** A board that nobody has drawn yet: a name and a size are enough to take it in. */
const blankSchema = z.object({
  /** As the device is called where nothing is said. */
  board: z.string().trim().max(120),
  width: millimetres(5, 1500),
  height: millimetres(5, 1500),
});

/** Jobs are pinned to a published version: a draft alone cannot be chosen. `board` in the address chooses one. */
export const load = async ({ locals, url }) => ({
  models: (await listBoardModels(locals.db)).filter((m) => m.version !== null),
  chosen: url.searchParams.get('board') ?? '',
});

export const actions = {
  default: async ({ request, locals }) => {
    const { values, data, issues } = await readPosted(request, schema);
    if (!data) return fail(400, { values, issues });
    const { promisedOn, ...t } = data;
    let pinned: { modelId: string; versionId: string };
    if (t.modelId === NOT_HERE) {
      const blank = blankSchema.safeParse(values);
      if (!blank.success) return fail(400, { values, issues: formIssues(blank.error) });
      const { board, width, height } = blank.data;
      const doc = blankBoard(board || t.device.slice(0, 120), width, height);
      pinned = await createBoardModel(locals.db, { doc, origin: 'taken in, nothing placed yet' });
    } else {
      const version = await latestVersion(locals.db, t.modelId);
      if (!version) return fail(400, { values, issues: { modelId: 'This kind of board is not known' } });
      pinned = { modelId: t.modelId, versionId: version.id };
    }
    const ticket = await createTicket(locals.db, {
      ...t,
      modelId: pinned.modelId,
      boardVersionId: pinned.versionId,
      promisedOn: promisedOn || null,
    });
    redirect(303, `/jobs/${ticket.id}`);
  },
};
