import { readForm } from '$lib/server/body';
import { addOwnPackage, listOwnPackages, removeOwnPackage } from '$lib/server/repositories/ownPackages';
import { packageTrouble } from '@orthos/core/packages';
import { fail } from '@sveltejs/kit';
import { z } from 'zod';

export const load = async ({ locals }) => ({ own: await listOwnPackages(locals.db) });

const made = z.object({
  label: z.string().trim().min(1, 'Give it a name.').max(60),
  designation: z.string().max(300),
});

export const actions = {
  add: async ({ request, locals }) => {
    const parsed = made.safeParse(await readForm(request));
    if (!parsed.success) return fail(400, { message: parsed.error.issues[0].message });
    const trouble = packageTrouble(parsed.data.designation);
    if (trouble) return fail(400, { message: trouble });
    if (!(await addOwnPackage(locals.db, parsed.data.label, parsed.data.designation)))
      return fail(409, { message: `There is a package called ${parsed.data.label} already.` });
    return { added: parsed.data.label };
  },
  remove: async ({ request, locals }) => {
    const id = z.uuid().safeParse((await readForm(request)).id);
    if (!id.success) return fail(400, { message: 'Which one?' });
    await removeOwnPackage(locals.db, id.data);
    return {};
  },
};
