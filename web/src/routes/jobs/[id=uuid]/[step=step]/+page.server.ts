import { modelHistoryOf } from '$lib/server/modelHistoryOf';
import { modelNames } from '$lib/server/repositories/boardModels';
import { goodReadingsOf } from '$lib/server/repositories/goodReadings';
import { goodStartUpsOf } from '$lib/server/repositories/goodStartUps';
import { listMeters } from '$lib/server/repositories/meters';
import { routinesOf } from '$lib/server/repositories/routines';

/** What a step looks at besides its job, by step: read when one comes to it, not with every entry of the log. */
export const load = async ({ locals, params, parent, depends }) => {
  depends('job:model');
  const { modelId } = (await parent()).fixed;
  const { db } = locals;
  if (params.step === 'intake') {
    const [history, goodStartUps] = await Promise.all([
      modelHistoryOf(db, modelId, params.id),
      goodStartUpsOf(db, modelId),
    ]);
    return { intake: { history, goodStartUps } };
  }
  if (params.step === 'diagnose') {
    const [history, models, goodReadings, goodStartUps, routines, meters] = await Promise.all([
      modelHistoryOf(db, modelId, params.id),
      modelNames(db),
      goodReadingsOf(db, modelId),
      goodStartUpsOf(db, modelId),
      routinesOf(db, modelId),
      listMeters(db),
    ]);
    return { diagnose: { history, models, goodReadings, goodStartUps, routines, meters } };
  }
  if (params.step === 'verify') return { verify: { goodStartUps: await goodStartUpsOf(db, modelId) } };
  return {};
};
