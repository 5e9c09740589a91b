import { shopSettings } from '$lib/server/repositories/settings';

export const load = async ({ locals }) => ({ shop: (await shopSettings(locals.db)).value });
