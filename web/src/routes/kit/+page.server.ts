import { readForm } from '$lib/server/body';
import { formIssues, versionOf } from '$lib/server/forms';
import { ConflictError } from '$lib/server/repositories/conflict';
import { addKitItem, listKit, saveKitItem } from '$lib/server/repositories/kit';
import { addMeter, listInstruments, saveMeter } from '$lib/server/repositories/meters';
import { parseDecimal } from '@orthos/core/ground';
import { DEFAULT_STATION, stationSchema } from '@orthos/core/rework';
import { fail } from '@sveltejs/kit';
import { z } from 'zod';

/** A figure of a tool as it is typed, in the unit of the form; its range is that of the tool. */
const typed = (field: z.ZodNumber, unit: '%' | 'K') => {
  const scale = unit === '%' ? 100 : 1;
  const [from, to] = [field.minValue, field.maxValue].map((v) => Math.round(scale * (v ?? NaN)));
  return z
    .string()
    .transform((s) => (parseDecimal(s) ?? NaN) / scale)
    .refine((v) => field.safeParse(v).success, { error: `${from} to ${to} ${unit}` });
};
const tool = stationSchema.shape;

const common = {
  name: z.string().trim().min(1, 'give it a name').max(100),
  bench: z.string().trim().max(100),
};
const airSchema = z.object({
  ...common,
  efficiency: typed(tool.efficiency, '%'),
  efficiencyPlusMinus: typed(tool.efficiencyPlusMinus, '%'),
  air: z
    .enum(['marked', 'unmarked'], { error: 'marked or unmarked' })
    .transform((v) => (v === 'unmarked' ? v : undefined)),
});
const ironSchema = z.object({ ...common, ironPlusMinus_K: typed(tool.ironPlusMinus_K, 'K') });

const figure = (from: number, to: number, unit: string) =>
  z
    .string()
    .transform((s) => parseDecimal(s) ?? NaN)
    .refine((v) => v >= from && v <= to, { error: `${from} to ${to} ${unit}` });
const meterSchema = z.object({
  ...common,
  host: z.string().trim().max(200),
  port: z
    .string()
    .transform(Number)
    .refine((v) => Number.isInteger(v) && v >= 1 && v <= 65535, { error: '1 to 65535' }),
  ohmPercent: figure(0, 20, '%'),
  voltPercent: figure(0, 20, '%'),
  leadsOhm: figure(0, 10, 'Ω'),
});

export const load = async ({ locals }) => ({ kit: await listKit(locals.db), meters: await listInstruments(locals.db) });

export const actions = {
  save: async ({ request, locals }) => {
    const { id, version, ...values } = await readForm(request);
    const item = (await listKit(locals.db)).find((k) => k.id === id);
    if (!item) return fail(404, { id, values, issues: { name: 'This tool is not there any more' } });
    const parsed = (item.kind === 'air' ? airSchema : ironSchema).safeParse(values);
    if (!parsed.success) return fail(400, { id, values, issues: formIssues(parsed.error) });
    const { name, bench, ...numbers } = parsed.data;
    try {
      await saveKitItem(locals.db, item.id, versionOf(version), { name, bench, doc: { ...item.doc, ...numbers } });
    } catch (e) {
      if (!(e instanceof ConflictError)) throw e;
      return fail(409, {
        id,
        values,
        issues: { name: `${e.message} Stored now: ${item.name}. Yours is still here; save again to keep it.` },
      });
    }
    return { id, saved: true };
  },
  saveMeter: async ({ request, locals }) => {
    const { id, version, ...values } = await readForm(request);
    const meter = (await listInstruments(locals.db)).find((m) => m.id === id);
    if (!meter) return fail(404, { id, values, issues: { name: 'This instrument is not there any more' } });
    // a simulated one has no address, a supply no accuracy of ohms
    const { port, ohmPercent, voltPercent, leadsOhm } = meter;
    const kept = Object.fromEntries(
      Object.entries({ port, ohmPercent, voltPercent, leadsOhm }).map(([key, value]) => [key, String(value)]),
    );
    const filled = { host: '', ...kept, ...values };
    const parsed = meterSchema.safeParse(filled);
    if (!parsed.success) return fail(400, { id, values, issues: formIssues(parsed.error) });
    try {
      await saveMeter(locals.db, meter.id, versionOf(version), parsed.data);
    } catch (e) {
      if (!(e instanceof ConflictError)) throw e;
      return fail(409, {
        id,
        values,
        issues: { name: `${e.message} Stored now: ${meter.name}. Yours is still here; save again to keep it.` },
      });
    }
    return { id, saved: true };
  },
  add: async ({ request, locals }) => {
    const kind = (await readForm(request)).kind;
    if (kind === 'meter' || kind === 'supply') {
      await addMeter(locals.db, { kind, name: kind === 'meter' ? 'New meter' : 'New supply' });
      return { id: '', saved: true };
    }
    if (kind !== 'air' && kind !== 'iron')
      return fail(400, { id: '', values: {}, issues: { kind: 'air, iron, meter or supply' } });
    await addKitItem(locals.db, {
      kind,
      name: kind === 'air' ? 'New air station' : 'New iron',
      bench: '',
      doc: DEFAULT_STATION,
    });
    return { id: '', saved: true };
  },
};
