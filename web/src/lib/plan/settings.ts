/** A method's settings as text: in one line, and in the fields of its form. */
import { isRefused, readComposition, writeComposition } from '@orthos/core/alloys';
import { formatTemperature, parseDecimal, toCelsius, type UnitSettings } from '@orthos/core/ground';
import {
  dialOf,
  type Method,
  methodSchema,
  type Range,
  RANGES,
  type StationModel,
  UNMARKED_DIAL,
} from '@orthos/core/rework';

/** What numbers are shown in: the shop's units, and the air dial of the station at hand. */
export type Panel = UnitSettings & Pick<StationModel, 'air'>;

function flowText(flow_L_min: number, panel: Panel): string {
  const { value, unit } = dialOf(flow_L_min, panel);
  return unit === '%' ? `dial at ${value} %` : `${value} ${unit}`;
}

/** A method's settings in one line. */
export function settingLine(m: Method, units: Panel): string {
  const at = formatTemperature(m.set_C, units);
  if (m.kind === 'iron') return m.tool === 'tweezers' ? `${at}, both ends at once` : `${at}, pin by pin`;
  if (m.kind === 'low-melt')
    return `${at}, ${m.bead_mm3_mm} mm³/mm of ${m.alloy ? writeComposition(m.alloy) : 'alloy'}, ${m.stroke_s} s${m.irons === 2 ? ', two irons' : ''}`;
  const then = (m.stages ?? []).map(
    (s) =>
      `, ${[
        s.standoff_mm === undefined ? '' : `${s.standoff_mm} mm`,
        s.set_C === undefined ? '' : formatTemperature(s.set_C, units),
        s.flow_L_min === undefined ? '' : flowText(s.flow_L_min, units),
        s.sweep_mm === undefined ? '' : `circling ${s.sweep_mm} mm`,
      ]
        .filter(Boolean)
        .join(' ')} from ${s.from_s} s`,
  );
  const more = [
    m.sweep_deg === undefined ? '' : 'in a line',
    m.pulse ? 'pulsed' : '',
    m.tilt_deg ? `leaning ${m.tilt_deg}°` : '',
    m.mouth ? `${m.mouth.kind}` : '',
  ];
  const rest = more.filter(Boolean).join(', ');
  return `${at}, ${flowText(m.flow_L_min, units)}, ${m.standoff_mm} mm${then.join('')}${rest ? `, ${rest}` : ''}`;
}

interface Knob {
  /** Path in the method. */
  key: string;
  label: string;
  unit?: 'temperature' | 'L/min' | 'mm' | 's' | '×' | 'mm³' | 'W' | '°';
  range?: Range;
  /** May be left empty. */
  optional?: true;
  hint?: string;
  /** Choices instead of a number; the first is taken where nothing is said. */
  choices?: readonly (readonly [value: string, name: string])[];
  /** A composition instead of a number. */
  alloy?: true;
}

const STAGE = ['stages.0.standoff_mm', 'stages.0.set_C', 'stages.0.flow_L_min'];
/** What is missing from fields that only make sense together, by field. */
function missing(texts: Record<string, string>): Record<string, string> {
  const empty = (key: string) => (texts[key] ?? '').trim() === '';
  const issues: Record<string, string> = {};
  const all = (keys: string[], words: string) => {
    for (const key of keys.filter(empty)) issues[key] = words;
  };
  const pulse = ['pulse.on_s', 'pulse.off_s'];
  if (!pulse.every(empty)) all(pulse, 'both, or both empty');
  if (!empty('mouth.kind')) all(['mouth.w_mm', 'mouth.h_mm'], 'its size');
  if (!STAGE.every(empty)) all(['stages.0.from_s'], 'when it begins');
  else if (!empty('stages.0.from_s')) issues[STAGE[0]] = 'what changes then: distance, set-point or air';
  return issues;
}

const tip: Knob = {
  key: 'tip',
  label: 'Tip',
  choices: [
    ['knife', 'knife, bevel'],
    ['chisel', 'chisel'],
    ['cone', 'cone'],
  ],
};
const limit: Knob = { key: 'limit_s', label: 'Give up after', unit: 's', range: RANGES.iron.limit_s };

/** What can be set per kind of method, with the range the model accepts (°C, mm, s); the second list is asked for rarely. */
export const KNOBS: Record<Method['kind'], { usual: Knob[]; more: Knob[] }> = {
  air: {
    usual: [
      { key: 'set_C', label: 'Set-point', unit: 'temperature', range: RANGES.air.set_C },
      { key: 'flow_L_min', label: 'Air', unit: 'L/min', range: RANGES.air.flow_L_min },
      { key: 'nozzle_mm', label: 'Nozzle', unit: 'mm', range: RANGES.air.nozzle_mm },
      { key: 'standoff_mm', label: 'Distance', unit: 'mm', range: RANGES.air.standoff_mm },
      { key: 'sweep_mm', label: 'Hand moves', unit: 'mm', range: RANGES.air.sweep_mm },
      limit,
      { key: 'stages.0.from_s', label: 'Stage 2 from', unit: 's', range: RANGES.air.from_s, optional: true },
      { key: 'stages.0.standoff_mm', label: 'Stage 2 at', unit: 'mm', range: RANGES.air.standoff_mm, optional: true },
    ],
    more: [
      {
        key: 'sweep_deg',
        label: 'in a line at',
        unit: '°',
        range: RANGES.air.sweep_deg,
        optional: true,
        hint: 'in a circle',
      },
      {
        key: 'stages.0.set_C',
        label: 'Stage 2 set-point',
        unit: 'temperature',
        range: RANGES.air.set_C,
        optional: true,
      },
      { key: 'stages.0.flow_L_min', label: 'Stage 2 air', unit: 'L/min', range: RANGES.air.flow_L_min, optional: true },
      { key: 'tilt_deg', label: 'Nozzle leans', unit: '°', range: RANGES.air.tilt_deg, optional: true },
      {
        key: 'approach_deg',
        label: 'leaning from',
        unit: '°',
        range: RANGES.air.approach_deg,
        optional: true,
        hint: '0 right, 90 up',
      },
      {
        key: 'mouth.kind',
        label: 'Mouth',
        choices: [
          ['', 'round'],
          ['slot', 'wide open'],
          ['rim', 'holes round its rim'],
        ],
      },
      { key: 'mouth.w_mm', label: 'Mouth, wide', unit: 'mm', range: RANGES.air.mouth_mm, optional: true },
      { key: 'mouth.h_mm', label: 'Mouth, high', unit: 'mm', range: RANGES.air.mouth_mm, optional: true },
      { key: 'pulse.on_s', label: 'Pulses: on', unit: 's', range: RANGES.air.pulse_s, optional: true },
      { key: 'pulse.off_s', label: 'Pulses: off', unit: 's', range: RANGES.air.pulse_s, optional: true },
    ],
  },
  'low-melt': {
    usual: [
      { key: 'set_C', label: 'Iron', unit: 'temperature', range: RANGES.bead.set_C },
      { key: 'bead_mm3_mm', label: 'Bead, a mm of row', unit: 'mm³', range: RANGES.bead.bead_mm3_mm },
      { key: 'tip_mm', label: 'Tip width', unit: 'mm', range: RANGES.bead.tip_mm },
      { key: 'power_W', label: 'Iron power', unit: 'W', range: RANGES.bead.power_W },
      { key: 'stroke_s', label: 'Stroking', unit: 's', range: RANGES.bead.stroke_s },
      limit,
    ],
    more: [
      { key: 'alloy', label: 'Alloy of the bead', alloy: true, optional: true, hint: 'Bi52.5Pb32Sn15.5' },
      tip,
      {
        key: 'irons',
        label: 'Irons',
        choices: [
          ['1', 'one'],
          ['2', 'two, opposite'],
        ],
      },
      { key: 'pass_s', label: 'A stroke takes', unit: 's', range: RANGES.bead.pass_s, optional: true },
      { key: 'rest_s', label: 'rest at its ends', unit: 's', range: RANGES.bead.rest_s, optional: true },
    ],
  },
  iron: {
    usual: [
      { key: 'set_C', label: 'Iron', unit: 'temperature', range: RANGES.iron.set_C },
      { key: 'tip_mm', label: 'Tip width', unit: 'mm', range: RANGES.iron.tip_mm },
      { key: 'power_W', label: 'Power of a tip', unit: 'W', range: RANGES.iron.power_W },
      { key: 'dwell_s', label: 'Stays once molten', unit: 's', range: RANGES.iron.dwell_s },
      { key: 'most_s', label: 'on to the next after', unit: 's', range: RANGES.iron.most_s, optional: true },
      limit,
    ],
    more: [tip],
  },
};

const knobsOf = (kind: Method['kind']): Knob[] => [...KNOBS[kind].usual, ...KNOBS[kind].more];

type Tree = { [key: string]: Tree | unknown };

function at(tree: unknown, path: string): unknown {
  return path.split('.').reduce<unknown>((t, key) => (t as Tree | undefined)?.[key], tree);
}

export function unitName(k: Knob, units: Panel): string {
  if (k.unit === 'temperature') return `°${units.temperature}`;
  return k.unit === 'L/min' && units.air === 'unmarked' ? '% of its dial' : (k.unit ?? '');
}

function inUnits(value: number, k: Knob, units: Panel): string {
  if (k.unit === 'temperature') return formatTemperature(value, units).split(' ')[0];
  return String(k.unit === 'L/min' ? dialOf(value, units).value : value);
}

function fromUnits(typed: number, k: Knob, units: Panel): number {
  if (k.unit === 'temperature') return toCelsius(typed, units);
  return k.unit === 'L/min' && units.air === 'unmarked' ? (typed / 100) * UNMARKED_DIAL.full_L_min : typed;
}

/** The texts of a method's form, by knob. */
export function textsOf(method: Method, units: Panel): Record<string, string> {
  return Object.fromEntries(
    knobsOf(method.kind).map((k) => {
      const value = at(method, k.key);
      if (k.choices) return [k.key, String(value ?? k.choices[0][0])];
      if (value === undefined) return [k.key, ''];
      return [k.key, k.alloy ? writeComposition(value as object) : inUnits(value as number, k, units)];
    }),
  );
}

/** Reads one field: its value, undefined where it is empty, or what is wrong with it. */
function read(k: Knob, text: string, units: Panel): { value?: unknown; problem?: string } {
  if (k.choices) return { value: k.key === 'irons' ? Number(text) : text || undefined };
  if (k.optional && text.trim() === '') return {};
  if (k.alloy) {
    const wt = readComposition(text);
    if (!wt) return { problem: 'elements with their percent, Sn63Pb37; or empty' };
    return isRefused(wt) ? { problem: 'holds cadmium: its fume is highly toxic' } : { value: wt };
  }
  const typed = parseDecimal(text);
  const value = typed === null ? NaN : fromUnits(typed, k, units);
  const [min, max] = k.range ?? [-Infinity, Infinity];
  if (value >= min && value <= max) return { value };
  const range = `${inUnits(min, k, units)} to ${inUnits(max, k, units)} ${unitName(k, units)}`;
  return { problem: k.optional ? `${range}, or empty` : range };
}

/** The method as its form says it, or what is wrong by field. A value left as it was keeps its exact number. */
export function methodOf(
  method: Method,
  texts: Record<string, string>,
  units: Panel,
): { method: Method } | { issues: Record<string, string> } {
  const before = textsOf(method, units);
  const next = structuredClone(method) as Tree;
  const issues: Record<string, string> = {};
  for (const k of knobsOf(method.kind)) {
    if (texts[k.key] === before[k.key]) continue;
    const { value, problem } = read(k, texts[k.key], units);
    if (problem) issues[k.key] = problem;
    else put(next, k.key.split('.'), value);
  }
  for (const [key, words] of Object.entries(method.kind === 'air' ? missing(texts) : {})) issues[key] ??= words;
  if (Object.keys(issues).length > 0) return { issues };
  tidy(next);
  const parsed = methodSchema.safeParse(next);
  if (parsed.success) return { method: parsed.data };
  return { issues: Object.fromEntries(parsed.error.issues.map((i) => [i.path.join('.'), i.message])) };
}

function put(tree: Tree, [key, ...rest]: string[], value: unknown): void {
  if (rest.length === 0) {
    if (value === undefined) delete tree[key];
    else tree[key] = value;
    return;
  }
  tree[key] ??= rest[0] === '0' ? [] : {};
  put(tree[key] as Tree, rest, value);
}

/** Takes out what is empty, or has lost what gives it sense. */
function tidy(method: Tree): void {
  const stages = (method.stages as Tree[] | undefined)?.filter((s) => Object.keys(s).length > 1);
  if (stages?.length) method.stages = stages;
  else delete method.stages;
  if (method.pulse && Object.keys(method.pulse).length === 0) delete method.pulse;
  if (method.mouth && (method.mouth as Tree).kind === undefined) delete method.mouth;
}
