import { readForm } from '$lib/server/body';
import { parseMoney } from '$lib/intake/money';
import { readLimits } from '$lib/settings/limits';
import { formIssues, versionOf } from '$lib/server/forms';
import { ConflictError } from '$lib/server/repositories/conflict';
import { saveShopSettings, shopSettings } from '$lib/server/repositories/settings';
import { shopSettingsSchema } from '$lib/settings/shopSettings';
import { parseDecimal } from '@orthos/core/ground';
import { fail } from '@sveltejs/kit';
import { readdir } from 'node:fs/promises';

export const load = async ({ locals }) => ({ settings: await shopSettings(locals.db) });

const isFolder = (path: string): Promise<boolean> =>
  readdir(path).then(
    () => true,
    () => false,
  );

export const actions = {
  default: async ({ request, locals }) => {
    const { version, ...values } = await readForm(request);
    const { rate, currency, warrantyMonths, limits, photoFolder, rules: _, ...named } = values;
    const folder = String(photoFolder ?? '').trim();
    const rest = Object.fromEntries(Object.entries(named).filter(([key]) => !key.startsWith('never-')));
    const ticked = Object.keys(values).flatMap((key) => (key.startsWith('never-') ? [key.slice(6)] : []));
    // a form that did not get as far as asking leaves them as they are
    const never = 'rules' in values ? ticked : ((await shopSettings(locals.db)).value.never ?? []);
    const own = readLimits(String(limits ?? ''));
    if ('issue' in own) return fail(400, { values, issues: { limits: own.issue } });
    if (folder && !(await isFolder(folder)))
      return fail(400, { values, issues: { photoFolder: 'is no folder that can be read on this machine' } });
    const money = String(currency).trim().toUpperCase();
    const parsed = shopSettingsSchema.safeParse({
      v: 1,
      ...rest,
      currency: money,
      rate_minor_h: /^[A-Z]{3}$/.test(money) ? parseMoney(String(rate), money) : 0,
      warrantyMonths: parseDecimal(String(warrantyMonths)),
      ...(Object.keys(own.limits).length > 0 ? { limits: own.limits } : {}),
      ...(never.length > 0 ? { never } : {}),
      ...(folder ? { photoFolder: folder } : {}),
    });
    if (!parsed.success) return fail(400, { values, issues: formIssues(parsed.error) });
    try {
      await saveShopSettings(locals.db, parsed.data, versionOf(version));
    } catch (e) {
      if (!(e instanceof ConflictError)) throw e;
      return fail(409, { values, issues: { name: `${e.message} Yours is still here; save again to keep it.` } });
    }
    return { saved: true };
  },
};
