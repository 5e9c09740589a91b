/** A tool of the kit as its form shows it: fields as text in the shop's units, and back. */
import { type Composition, readComposition, writeComposition } from '@orthos/core/alloys';
import { formatTemperature, parseDecimal, toCelsius, type UnitSettings } from '@orthos/core/ground';
import {
  type Dialled,
  type KitItem as KitSpec,
  kitItemSchema,
  type KitTool,
  readHeatDial,
  type StationModel,
  stationSchema,
  writeHeatDial,
} from '@orthos/core/rework';
import type { ToolField } from '../kit/tools.ts';
import type { KitItem } from './repositories/kit.ts';

type Texts = Record<string, string>;
type Read = { spec: KitSpec; doc: StationModel } | { issues: Texts };

/** A field of a tool: what stands in it, and what that means; a sentence where it means nothing. */
interface Part {
  field: Omit<ToolField, 'value'>;
  write(spec: Readonly<Record<string, unknown>>, doc: StationModel, units: UnitSettings): string;
  read(text: string, units: UnitSettings): { spec?: object; doc?: Partial<StationModel> } | string;
}

const SPAN = /^(\d+(?:[.,]\d+)?)\s*(?:to|–|-|\s)\s*(\d+(?:[.,]\d+)?)$/;
const list = (text: string) =>
  text
    .split(/[\s;]+/)
    .filter(Boolean)
    .map((s) => parseDecimal(s) ?? NaN);

/** From so much to so much; temperatures in the shop's degrees. */
const span = (key: string, label: string, unit: 'temperature' | 'L/min', usual: string, optional = false): Part => ({
  field: { key, label, unit, hint: usual },
  write(spec, _, units) {
    const value = spec[key];
    if (!Array.isArray(value)) return '';
    const shown = (v: number) => (unit === 'temperature' ? formatTemperature(v, units).split(' ')[0] : String(v));
    return `${shown(value[0] as number)} to ${shown(value[1] as number)}`;
  },
  read(text, units) {
    if (text === '' && optional) return { spec: {} };
    const [, from, to] = SPAN.exec(text) ?? [];
    if (from === undefined) return `from so much to so much, as ${usual}`;
    const numbers = [from, to].map((s) => parseDecimal(s) ?? NaN);
    return { spec: { [key]: unit === 'temperature' ? numbers.map((v) => Math.round(toCelsius(v, units))) : numbers } };
  },
});

const choice = (key: string, label: string, choices: Record<string, string>): Part => ({
  field: { key, label, choices },
  write: (spec) => String(spec[key] ?? Object.keys(choices)[0]),
  read: (text) => ({ spec: { [key]: text } }),
});

const one = (key: string, label: string, unit: string): Part => ({
  field: { key, label, unit },
  write: (spec) => (spec[key] === undefined ? '' : String(spec[key])),
  read(text) {
    if (text === '') return { spec: {} };
    const value = parseDecimal(text);
    return value === null ? 'a number' : { spec: { [key]: value } };
  },
});

const tips: Part = {
  field: { key: 'tips_mm', label: 'Tips', unit: 'mm', hint: '1 2.5 3 5' },
  write: (spec) => (Array.isArray(spec.tips_mm) ? spec.tips_mm.join(' ') : ''),
  read: (text) => ({ spec: { tips_mm: list(text) } }),
};

/** "5 8 10 slot20x3 rim12x12/2": round ones by bore, wide mouths, mouths with holes along their rim. */
const nozzles: Part = {
  field: { key: 'nozzles', label: 'Nozzles', unit: 'mm', hint: '5 8 10 slot20x3 rim12x12/2', wide: true },
  write(spec) {
    const all = (spec.nozzles ?? []) as Extract<KitSpec, { tool: 'air' }>['nozzles'];
    return all
      .map((n) => {
        if ('round_mm' in n) return String(n.round_mm);
        return 'slot_mm' in n ? `slot${n.slot_mm.join('x')}` : `rim${n.rim_mm.join('x')}/${n.bore_mm}`;
      })
      .join(' ');
  },
  read(text) {
    const read = text
      .split(/[\s;]+/)
      .filter(Boolean)
      .map((word) => {
        const round_mm = parseDecimal(word);
        if (round_mm !== null) return { round_mm };
        const [, kind, a, b, bore] = /^(slot|rim)([\d.,]+)x([\d.,]+)(?:\/([\d.,]+))?$/.exec(word) ?? [];
        const size = [a, b].map((s) => parseDecimal(s ?? '') ?? NaN);
        if (kind === 'slot') return { slot_mm: size };
        return kind === 'rim' ? { rim_mm: size, bore_mm: parseDecimal(bore ?? '') ?? NaN } : null;
      });
    return read.includes(null)
      ? 'bores in mm, slot20x3 for a wide mouth, rim12x12/2 for holes round one'
      : { spec: { nozzles: read } };
  },
};

const alloy: Part = {
  field: { key: 'wt', label: 'Alloy', hint: 'Sn63Pb37' },
  write: (spec) => writeComposition(spec.wt as Composition),
  read(text) {
    const wt = readComposition(text);
    return wt ? { spec: { wt } } : 'elements with their percent, Sn63Pb37';
  },
};
const until: Part = {
  field: { key: 'expires', label: 'Good until', hint: '2027-05-31' },
  write: (spec) => String(spec.expires ?? ''),
  read: (text) => ({ spec: text === '' ? {} : { expires: text } }),
};

/** A figure of how far a tool is from the truth. */
const truth = (key: 'efficiency' | 'efficiencyPlusMinus' | 'ironPlusMinus_K', label: string, unit: '%' | 'K'): Part => {
  const scale = unit === '%' ? 100 : 1;
  const field = stationSchema.shape[key];
  const [from, to] = [field.minValue, field.maxValue].map((v) => Math.round(scale * (v ?? NaN)));
  return {
    field: { key, label, unit },
    write: (_, doc) => String(Math.round(doc[key] * scale * 10) / 10),
    read(text) {
      const value = (parseDecimal(text) ?? NaN) / scale;
      return field.safeParse(value).success ? { doc: { [key]: value } } : `${from} to ${to} ${unit}`;
    },
  };
};

const airDial: Part = {
  field: {
    key: 'air',
    label: 'Air dial',
    choices: { marked: 'in L/min', full: 'in %, full end known', unmarked: 'no L/min on it' },
  },
  write: (_, { air }) => (air === undefined ? 'marked' : air === 'unmarked' ? air : 'full'),
  read: (text) => (['marked', 'full', 'unmarked'].includes(text) ? {} : 'marked, unmarked or in %'),
};
const fullEnd: Part = {
  field: { key: 'full', label: 'Full end', unit: 'L/min', hint: 'of a dial in %' },
  write: (_, { air }) => (typeof air === 'number' ? String(air) : ''),
  read: (text) => (text === '' || parseDecimal(text) !== null ? {} : 'L/min at its full end'),
};

const heatDial = (tool: Dialled): Part => ({
  field: {
    key: 'dial',
    label: 'Its dial reads',
    hint: 'true °C when empty; −10 K beside it; or 1=200 5=350 10=480',
    wide: true,
  },
  write: (_, { dials }) => writeHeatDial(dials?.[tool]),
  read(text) {
    const dial = readHeatDial(text);
    if (dial === null) return 'K beside the truth (+10), or its numbers with °C: 1=200 5=350 10=480';
    return { doc: { dials: dial ? { [tool]: dial } : undefined } };
  },
});

const HEATED = [span('set_C', 'Goes', 'temperature', '150 to 450'), one('power_W', 'Power', 'W'), tips];
const PARTS: Record<KitTool, readonly Part[]> = {
  air: [
    truth('efficiency', 'Reaches', '%'),
    truth('efficiencyPlusMinus', 'Give or take', '%'),
    airDial,
    fullEnd,
    span('set_C', 'Goes', 'temperature', '100 to 480'),
    span('flow_L_min', 'Air', 'L/min', '5 to 120', true),
    nozzles,
    heatDial('air'),
  ],
  iron: [truth('ironPlusMinus_K', 'Tip off by', 'K'), ...HEATED, heatDial('iron')],
  tweezers: [...HEATED, heatDial('tweezers')],
  vacuum: [...HEATED, heatDial('vacuum')],
  pump: [],
  below: [
    choice('kind', 'It is', { air: 'warm air', plate: 'a plate', infrared: 'infrared' }),
    span('T_C', 'Goes', 'temperature', '60 to 300'),
  ],
  wire: [alloy, one('dia_mm', 'Thick', 'mm')],
  paste: [alloy, until],
  flux: [
    choice('kind', 'Kind', { 'no-clean': 'no-clean', rosin: 'rosin', 'low-temperature': 'for low temperatures' }),
    span('active_C', 'Works', 'temperature', '120 to 350', true),
    until,
  ],
  braid: [],
  cover: [choice('kind', 'Kind', { tape: 'tape', foil: 'foil', strip: 'strip', thick: 'thick metal' })],
  blade: [],
  pliers: [],
  spring: [],
  fixture: [choice('kind', 'Kind', { frame: 'frame round the board', props: 'props under it' })],
  camera: [],
};

/** The fields of a tool with what stands in them. */
export function fieldsOf({ kind, spec, doc }: KitItem, units: UnitSettings): ToolField[] {
  return PARTS[kind].map(({ field, write }) => ({
    ...field,
    unit: field.unit === 'temperature' ? `°${units.temperature}` : field.unit,
    value: write(spec, doc, units),
  }));
}

/** The tool as its form says it, or what is wrong by field. */
export function readTool({ kind, spec, doc }: KitItem, texts: Texts, units: UnitSettings): Read {
  const issues: Texts = {};
  const found: { spec: object[]; doc: object[] } = { spec: [], doc: [] };
  for (const { field, read } of PARTS[kind]) {
    const answer = read((texts[field.key] ?? '').trim(), units);
    if (typeof answer === 'string') issues[field.key] = answer;
    else {
      found.spec.push(answer.spec ?? {});
      found.doc.push(answer.doc ?? {});
    }
  }
  const model = Object.assign({}, doc, ...found.doc) as StationModel;
  if (kind === 'air') {
    const full = parseDecimal(texts.full ?? '') ?? NaN;
    model.air = texts.air === 'unmarked' ? 'unmarked' : texts.air === 'full' ? full : undefined;
    if (texts.air === 'full' && !stationSchema.shape.air.safeParse(full).success) issues.full = '5 to 300 L/min';
  }
  // what its form does not ask stays as it is
  const asked = new Set(PARTS[kind].map((p) => p.field.key));
  const kept = Object.fromEntries(Object.entries(spec).filter(([key]) => !asked.has(key)));
  const flow = kind === 'air' && spec.tool === 'air' ? { flow_L_min: spec.flow_L_min } : {};
  const parsed = kitItemSchema.safeParse(Object.assign({ ...kept, ...flow, tool: kind }, ...found.spec));
  if (!parsed.success)
    for (const { path, message } of parsed.error.issues) issues[String(path[0] ?? 'name')] ??= message;
  if (Object.keys(issues).length > 0 || !parsed.success) return { issues };
  return { spec: parsed.data, doc: model };
}

/** A tool in one line, as what it is. */
export function toolLine(item: KitItem, units: UnitSettings): string {
  const told = fieldsOf(item, units).filter((f) => f.value !== '' && !SMALL.has(f.key));
  return told
    .map(({ choices, value, unit, label, key }) => {
      if (choices) return choices[value] ?? value;
      const words = `${value}${unit ? ` ${unit}` : ''}`;
      return NAMED.has(key) ? `${label.toLowerCase()} ${words}` : words;
    })
    .join(' · ');
}
/** What a line leaves to the form, and what needs its name in it. */
const SMALL = new Set(['efficiency', 'efficiencyPlusMinus', 'ironPlusMinus_K', 'full', 'dial', 'air']);
const NAMED = new Set(['tips_mm', 'nozzles', 'expires']);
