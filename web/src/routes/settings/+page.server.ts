import { formIssues } from '$lib/server/forms';
import { ConflictError } from '$lib/server/repositories/conflict';
import { saveShopSettings, shopSettings, shopSettingsSchema } from '$lib/server/repositories/settings';
import { fail } from '@sveltejs/kit';

export const load = async ({ locals }) => ({ settings: await shopSettings(locals.db) });

export const actions = {
  default: async ({ request, locals }) => {
    const { version, ...values } = Object.fromEntries(await request.formData());
    const parsed = shopSettingsSchema.safeParse({ v: 1, ...values });
    if (!parsed.success) return fail(400, { values, issues: formIssues(parsed.error) });
    try {
      await saveShopSettings(locals.db, parsed.data, Number(version) || 0);
    } catch (e) {
      if (!(e instanceof ConflictError)) throw e;
      return fail(409, { values, issues: { name: `${e.message} Yours is still here; save again to keep it.` } });
    }
    return { saved: true };
  },
};
