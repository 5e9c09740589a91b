import { boardView } from '$lib/server/jobs/jobView';
import { logOf } from '$lib/server/jobs/logs';
import { partRecordOf } from '@orthos/core/job';
import { error, json } from '@sveltejs/kit';

/** What a part of this job's board brings with it, as far as is known now; `part` names it. */
export const GET = async ({ locals: { db }, params, url }) => {
  const { board } = await boardView(db, params.id);
  const part = board.parts.find((p) => p.partId === url.searchParams.get('part'));
  if (!part) error(404, { message: 'The board has no such part.' });
  return json(partRecordOf((await logOf(db, params.id)).state, part));
};
