import { readForm } from '$lib/server/body';
import { now } from '$lib/server/clock';
import { formIssues, versionOf } from '$lib/server/forms';
import { benchFor, benchNames } from '$lib/server/jobs/bench';
import { ConflictError } from '$lib/server/repositories/conflict';
import {
  addKitItems,
  listKit,
  removeKitItem,
  renameBench,
  saveKitItem,
  type KitItem,
} from '$lib/server/repositories/kit';
import { addMeter, listInstruments, saveMeter } from '$lib/server/repositories/meters';
import { shownSettings } from '$lib/server/repositories/settings';
import { fieldsOf, readTool, toolLine } from '$lib/server/toolForm';
import type { ToolView } from '$lib/kit/tools';
import { parseDecimal, type UnitSettings } from '@orthos/core/ground';
import { BENCHES, type BenchKind, DEFAULT_STATION, kitItemSchema, stationSchema, USUAL } from '@orthos/core/rework';
import { fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';

const common = {
  name: z.string().trim().min(1, 'give it a name').max(100),
  bench: z.string().trim().max(100),
};
const isTool = (kind: string): kind is keyof typeof USUAL => Object.hasOwn(USUAL, kind);
const isBenchKind = (kind: string): kind is BenchKind => Object.hasOwn(BENCHES, kind);

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

/** A tool that was taken off the list, as its page hands it back. */
const goneSchema = z.object({
  ...common,
  kind: z.string().refine(isTool),
  doc: stationSchema,
  spec: kitItemSchema,
});

function viewOf(item: KitItem, units: UnitSettings, today: string): ToolView {
  const { id, kind, name, bench, version, outOfOrder, doc, spec } = item;
  const expires = 'expires' in spec ? spec.expires : undefined;
  const expired = expires !== undefined && expires < today;
  const line = toolLine(item, units);
  return {
    ...{ id, kind, name, bench, version, outOfOrder, line, expired },
    calibrated: doc.calibrated,
    fields: fieldsOf(item, units),
  };
}

export const load = async ({ locals, url }) => {
  const [kit, meters, units] = [
    await listKit(locals.db),
    await listInstruments(locals.db),
    await shownSettings(locals.db),
  ];
  const names = benchNames([...kit, ...meters]);
  const asked = url.searchParams.get('bench');
  const bench = asked !== null && names.includes(asked) ? asked : benchFor(kit, {}).name || (names[0] ?? '');
  const today = now().toISOString().slice(0, 10);
  const at = <T extends { bench: string }>(items: T[]) => items.filter((k) => k.bench === bench || k.bench === '');
  return {
    bench,
    benches: names,
    listed: benchFor(kit, { bench }).kit !== undefined,
    tools: at(kit).map((item) => viewOf(item, units, today)),
    meters: at(meters),
    presets: Object.fromEntries(Object.entries(BENCHES).map(([id, { name }]) => [id, name])),
  };
};

const gone = (what: string) => ({ name: `This ${what} is not there any more` });
const overtaken = (e: ConflictError, name: string) => ({
  name: `${e.message} Stored now: ${name}. Yours is still here; save again to keep it.`,
});

export const actions = {
  save: async ({ request, locals }) => {
    const { id, version, ...values } = await readForm(request);
    const item = (await listKit(locals.db)).find((k) => k.id === id);
    if (!item) return fail(404, { id, values, issues: gone('tool') });
    const named = z.object(common).safeParse(values);
    const read = readTool(item, values, await shownSettings(locals.db));
    if (!named.success || 'issues' in read)
      return fail(400, {
        id,
        values,
        issues: { ...(named.error ? formIssues(named.error) : {}), ...('issues' in read ? read.issues : {}) },
      });
    try {
      await saveKitItem(locals.db, item.id, versionOf(version), {
        ...named.data,
        ...read,
        outOfOrder: values.outOfOrder === 'on',
      });
    } catch (e) {
      if (!(e instanceof ConflictError)) throw e;
      return fail(409, { id, values, issues: overtaken(e, item.name) });
    }
    return { id, saved: true };
  },
  saveMeter: async ({ request, locals }) => {
    const { id, version, ...values } = await readForm(request);
    const meter = (await listInstruments(locals.db)).find((m) => m.id === id);
    if (!meter) return fail(404, { id, values, issues: gone('instrument') });
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
      return fail(409, { id, values, issues: overtaken(e, meter.name) });
    }
    return { id, saved: true };
  },
  add: async ({ request, locals }) => {
    const { kind = '', bench = '' } = await readForm(request);
    if (kind === 'meter' || kind === 'supply') {
      await addMeter(locals.db, { kind, bench, name: kind === 'meter' ? 'New meter' : 'New supply' });
      return { id: '', saved: true };
    }
    if (!isTool(kind)) return fail(400, { id: '', values: {}, issues: { kind: 'a kind of tool, meter or supply' } });
    const { name } = USUAL[kind];
    const [added] = await addKitItems(locals.db, [{ kind, name, bench: bench.slice(0, 100), doc: DEFAULT_STATION }]);
    return { id: added, saved: true, added };
  },
  /** A whole bench at once, as benches of its kind are met. */
  list: async ({ request, locals }) => {
    const values = await readForm(request);
    const { kind = '', name = '' } = values;
    const called = z.string().trim().min(1, 'what is it called?').max(100).safeParse(name);
    const known = benchNames(await listKit(locals.db));
    const issues = {
      ...(isBenchKind(kind) ? {} : { kind: 'one of the list' }),
      ...(called.success ? {} : { name: called.error.issues[0].message }),
    };
    if (!isBenchKind(kind) || !called.success) return fail(400, { id: 'bench', values, issues });
    const there = new Set((await listKit(locals.db)).filter((k) => k.bench === called.data).map((k) => k.kind));
    // tools that were said already stay what they are
    const items = BENCHES[kind].items.filter(({ spec }) => !(known.includes(called.data) && there.has(spec.tool)));
    await addKitItems(
      locals.db,
      items.map(({ name: tool, spec }) => ({
        kind: spec.tool,
        name: tool,
        bench: called.data,
        spec,
        doc: DEFAULT_STATION,
      })),
    );
    return { id: 'bench', saved: true, listed: called.data };
  },
  rename: async ({ request, locals }) => {
    const { from = '', to = '' } = await readForm(request);
    const values = { to };
    const names = benchNames([...(await listKit(locals.db)), ...(await listInstruments(locals.db))]);
    const called = z.string().trim().min(1, 'what is it called?').max(100).safeParse(to);
    if (!called.success) return fail(400, { id: 'rename', values, issues: { to: called.error.issues[0].message } });
    if (!names.includes(from))
      return fail(404, { id: 'rename', values, issues: { to: 'This bench is not there any more' } });
    if (called.data !== from && names.includes(called.data))
      return fail(409, { id: 'rename', values, issues: { to: 'there is a bench of that name' } });
    await renameBench(locals.db, from, called.data);
    redirect(303, `/kit?bench=${encodeURIComponent(called.data)}`);
  },
  remove: async ({ request, locals }) => {
    const { id, version } = await readForm(request);
    const item = (await listKit(locals.db)).find((k) => k.id === id);
    if (!item) return { id, saved: true };
    try {
      await removeKitItem(locals.db, item.id, versionOf(version));
    } catch (e) {
      if (!(e instanceof ConflictError)) throw e;
      return fail(409, { id, values: {}, issues: overtaken(e, item.name) });
    }
    const { kind, name, bench, doc, spec } = item;
    return { id, saved: true, gone: { name, item: JSON.stringify({ kind, name, bench, doc, spec }) } };
  },
  putBack: async ({ request, locals }) => {
    const { item = '' } = await readForm(request);
    const read = z
      .string()
      .max(20_000)
      .transform((text, ctx): unknown => {
        try {
          return JSON.parse(text);
        } catch {
          ctx.addIssue('not a tool');
          return z.NEVER;
        }
      })
      .pipe(goneSchema)
      .safeParse(item);
    if (!read.success || read.data.spec.tool !== read.data.kind)
      return fail(400, { id: '', values: {}, issues: { name: 'This is no tool that was taken off' } });
    await addKitItems(locals.db, [{ ...read.data, kind: read.data.spec.tool }]);
    return { id: '', saved: true };
  },
};
