import { listBoardModels } from '$lib/server/repositories/boardModels';

export const load = async ({ locals }) => ({ boards: await listBoardModels(locals.db) });
