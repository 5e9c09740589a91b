/** A method's settings as text: in one line, and in the fields of its form. */
import {
  formatTemperature,
  isRefused,
  methodSchema,
  parseDecimal,
  readComposition,
  toCelsius,
  writeComposition,
  type Method,
  type UnitSettings,
} from '@orthos/core';

/** A method's settings in one line. */
export function settingLine(m: Method, units: UnitSettings): string {
  const at = formatTemperature(m.set_C, units);
  if (m.kind === 'iron') return m.tool === 'tweezers' ? `${at}, both ends at once` : `${at}, pin by pin`;
  if (m.kind === 'low-melt')
    return `${at}, ${m.bead_ratio} × ${m.alloy ? writeComposition(m.alloy) : 'alloy'}, ${m.stroke_s} s${m.irons === 2 ? ', two irons' : ''}`;
  const closer = m.stages?.find((s) => s.standoff_mm !== undefined);
  const then = closer ? `, ${closer.standoff_mm} mm from ${closer.from_s} s` : '';
  const more = [m.pulse ? 'pulsed' : '', m.tilt_deg ? `leaning ${m.tilt_deg}°` : '', m.mouth ? `${m.mouth.kind}` : ''];
  const rest = more.filter(Boolean).join(', ');
  return `${at}, ${m.flow_L_min} L/min, ${m.standoff_mm} mm${then}${rest ? `, ${rest}` : ''}`;
}

interface Knob {
  /** Path in the method. */
  key: string;
  label: string;
  unit?: 'temperature' | 'L/min' | 'mm' | 's' | '×' | 'W' | '°';
  min?: number;
  max?: number;
  /** May be left empty. */
  optional?: true;
  /** Choices instead of a number; the first is taken where nothing is said. */
  choices?: readonly (readonly [value: string, name: string])[];
  /** A composition instead of a number. */
  alloy?: true;
}

/** Fields that only make sense together: all or none. */
const TOGETHER: readonly (readonly string[])[] = [
  ['stages.0.from_s', 'stages.0.standoff_mm'],
  ['pulse.on_s', 'pulse.off_s'],
  ['mouth.w_mm', 'mouth.h_mm'],
];

const tip: Knob = {
  key: 'tip',
  label: 'Tip',
  choices: [
    ['knife', 'knife, bevel'],
    ['chisel', 'chisel'],
    ['cone', 'cone'],
  ],
};
const limit: Knob = { key: 'limit_s', label: 'Give up after', unit: 's', min: 5, max: 300 };

/** What can be set per kind of method, with the range the model accepts (°C, mm, s); the second list is asked for rarely. */
export const KNOBS: Record<Method['kind'], { usual: Knob[]; more: Knob[] }> = {
  air: {
    usual: [
      { key: 'set_C', label: 'Set-point', unit: 'temperature', min: 100, max: 550 },
      { key: 'flow_L_min', label: 'Air', unit: 'L/min', min: 2, max: 200 },
      { key: 'nozzle_mm', label: 'Nozzle', unit: 'mm', min: 2, max: 40 },
      { key: 'standoff_mm', label: 'Distance', unit: 'mm', min: 3, max: 120 },
      { key: 'sweep_mm', label: 'Circling', unit: 'mm', min: 0, max: 40 },
      limit,
      { key: 'stages.0.from_s', label: 'Close in after', unit: 's', min: 0, max: 300, optional: true },
      { key: 'stages.0.standoff_mm', label: 'then at', unit: 'mm', min: 3, max: 120, optional: true },
    ],
    more: [
      { key: 'tilt_deg', label: 'Nozzle leans', unit: '°', min: 0, max: 60, optional: true },
      { key: 'approach_deg', label: 'from (0 right, 90 up)', unit: '°', min: -360, max: 360, optional: true },
      {
        key: 'mouth.kind',
        label: 'Mouth',
        choices: [
          ['', 'round'],
          ['slot', 'wide open'],
          ['rim', 'holes round its rim'],
        ],
      },
      { key: 'mouth.w_mm', label: 'Mouth, wide', unit: 'mm', min: 1, max: 80, optional: true },
      { key: 'mouth.h_mm', label: 'Mouth, high', unit: 'mm', min: 1, max: 80, optional: true },
      { key: 'pulse.on_s', label: 'Pulses: on', unit: 's', min: 0.2, max: 60, optional: true },
      { key: 'pulse.off_s', label: 'off', unit: 's', min: 0.2, max: 60, optional: true },
    ],
  },
  'low-melt': {
    usual: [
      { key: 'set_C', label: 'Iron', unit: 'temperature', min: 150, max: 480 },
      { key: 'bead_ratio', label: 'Alloy, times the solder', unit: '×', min: 0.2, max: 20 },
      { key: 'tip_mm', label: 'Tip width', unit: 'mm', min: 0.5, max: 10 },
      { key: 'power_W', label: 'Iron power', unit: 'W', min: 10, max: 500 },
      { key: 'stroke_s', label: 'Stroking', unit: 's', min: 2, max: 120 },
      limit,
    ],
    more: [
      { key: 'alloy', label: 'Alloy of the bead', alloy: true, optional: true },
      tip,
      {
        key: 'irons',
        label: 'Irons',
        choices: [
          ['1', 'one'],
          ['2', 'two, opposite'],
        ],
      },
      { key: 'pass_s', label: 'A stroke takes', unit: 's', min: 0.2, max: 20, optional: true },
      { key: 'rest_s', label: 'rest at its ends', unit: 's', min: 0, max: 20, optional: true },
    ],
  },
  iron: {
    usual: [
      { key: 'set_C', label: 'Iron', unit: 'temperature', min: 150, max: 480 },
      { key: 'tip_mm', label: 'Tip width', unit: 'mm', min: 0.5, max: 10 },
      { key: 'power_W', label: 'Power of a tip', unit: 'W', min: 10, max: 500 },
      { key: 'dwell_s', label: 'Stays once molten', unit: 's', min: 0, max: 30 },
      { key: 'most_s', label: 'on to the next after', unit: 's', min: 1, max: 60, optional: true },
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

export const unitName = (k: Knob, units: UnitSettings): string =>
  k.unit === 'temperature' ? `°${units.temperature}` : (k.unit ?? '');

const inUnits = (value: number, k: Knob, units: UnitSettings): string =>
  k.unit === 'temperature' ? formatTemperature(value, units).split(' ')[0] : String(value);

/** The texts of a method's form, by knob. */
export function textsOf(method: Method, units: UnitSettings): Record<string, string> {
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
function read(k: Knob, text: string, units: UnitSettings): { value?: unknown; problem?: string } {
  if (k.choices) return { value: k.key === 'irons' ? Number(text) : text || undefined };
  if (k.optional && text.trim() === '') return {};
  if (k.alloy) {
    const wt = readComposition(text);
    if (!wt) return { problem: 'elements with their percent, Sn63Pb37; or empty' };
    return isRefused(wt) ? { problem: 'holds cadmium: its fume is highly toxic' } : { value: wt };
  }
  const typed = parseDecimal(text);
  const value = typed === null ? NaN : k.unit === 'temperature' ? toCelsius(typed, units) : typed;
  if (value >= (k.min ?? -Infinity) && value <= (k.max ?? Infinity)) return { value };
  const range = `${inUnits(k.min ?? 0, k, units)} to ${inUnits(k.max ?? 0, k, units)} ${unitName(k, units)}`;
  return { problem: k.optional ? `${range}, or empty` : range };
}

/** The method as its form says it, or what is wrong by field. A value left as it was keeps its exact number. */
export function methodOf(
  method: Method,
  texts: Record<string, string>,
  units: UnitSettings,
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
  for (const keys of TOGETHER) {
    const given = keys.filter((key) => (texts[key] ?? '').trim() !== '');
    const wanted = keys[0].startsWith('mouth') ? (texts['mouth.kind'] ?? '') !== '' : given.length > 0;
    for (const key of keys)
      if (wanted && !given.includes(key))
        issues[key] ??= keys[0].startsWith('mouth') ? 'its size' : 'both, or both empty';
  }
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
