import { shownSettings } from '$lib/server/repositories/settings';

export const load = async ({ locals }) => ({ shop: await shownSettings(locals.db) });
