/** A method's settings as text: in one line, and in the fields of its form. */
import { isRefused, readComposition, writeComposition } from '@orthos/core/alloys';
import type { Free } from '@orthos/core/compare';
import { parseDecimal } from '@orthos/core/ground';
import {
  dialOf,
  type Field,
  flowAt,
  formOf,
  fullScale,
  heatAt,
  heatOnDial,
  type Method,
  methodSchema,
  type Panel,
  type Phase,
  RANGES,
} from '@orthos/core/rework';

export type { Panel };

const giveUp: Field = { key: 'giveUp_s', label: 'Give up after', unit: 's', range: RANGES.phase.giveUp_s };

/** Fields of one phase: what is asked for usually, and rarely. The last of the usual ones is when to give it up. */
export function fieldsOf(phase: Phase): { usual: readonly Field[]; more: readonly Field[]; moreTitle: string } {
  const { usual, more, moreTitle } = formOf(phase);
  return { usual: [...usual, giveUp], more, moreTitle };
}

const allOf = (phase: Phase): Field[] => {
  const { usual, more } = fieldsOf(phase);
  return [...usual, ...more];
};

/** The name of a phase's field in a form. */
export const fieldName = (phase: Pick<Phase, 'id'>, field: Pick<Field, 'key'>): string => `${phase.id}/${field.key}`;

type Tree = { [key: string]: Tree | unknown };

/** Where a field stands in its phase. */
const pathOf = ({ key }: Field): string[] => (key === giveUp.key ? [key] : ['settings', ...key.split('.')]);

/** What a field stands for in its phase. */
export const valueAt = (phase: Phase, field: Field): unknown =>
  pathOf(field).reduce<unknown>((t, key) => (t as Tree | undefined)?.[key], phase);

export function unitName(f: Field, units: Panel): string {
  if (f.unit === 'temperature') return heatOnDial(0, f.dial, units).unit;
  return f.unit === 'L/min' && fullScale(units) !== undefined ? '% of its dial' : (f.unit ?? '');
}

/** The numbers that a setting may be; none where it is no number. */
export const numbersFree = (allowed: Free[string] | undefined): number[] =>
  [...(allowed ?? [])].flatMap((v) => (typeof v === 'number' ? [v] : []));

/** A value as the dial or the user's units show it. */
export function shownIn(value: number, f: Field, units: Panel): number {
  if (f.unit === 'temperature') return heatOnDial(value, f.dial, units).value;
  return f.unit === 'L/min' ? dialOf(value, units).value : value;
}
const inUnits = (value: number, f: Field, units: Panel): string => String(shownIn(value, f, units));

function fromUnits(typed: number, f: Field, units: Panel): number {
  if (f.unit === 'temperature') return heatAt(typed, f.dial, units);
  return f.unit === 'L/min' && fullScale(units) !== undefined ? flowAt(typed, units) : typed;
}

function textOf(phase: Phase, f: Field, units: Panel): string {
  const value = valueAt(phase, f);
  if (f.choices) return String(value ?? f.choices[0][0]);
  if (value === undefined) return '';
  return f.alloy ? writeComposition(value as object) : inUnits(value as number, f, units);
}

/** The texts of a method's form, by field. */
export function textsOf({ phases }: Method, units: Panel): Record<string, string> {
  return Object.fromEntries(
    phases.flatMap((p) => allOf(p).map((f) => [fieldName(p, f), textOf(p, f, units)] as const)),
  );
}

/** Reads one field: its value, undefined where it is empty, or what is wrong with it. */
function read(f: Field, text: string, units: Panel): { value?: unknown; problem?: string } {
  if (f.choices) return { value: f.numeric ? Number(text) : text || undefined };
  if (f.optional && text.trim() === '') return {};
  if (f.alloy) {
    const wt = readComposition(text);
    if (!wt) return { problem: 'elements with their percent, Sn63Pb37; or empty' };
    return isRefused(wt) ? { problem: 'holds cadmium: its fume is highly toxic' } : { value: wt };
  }
  const typed = parseDecimal(text);
  const value = typed === null ? NaN : fromUnits(typed, f, units);
  const [min, max] = f.range ?? [-Infinity, Infinity];
  if (value >= min && value <= max) return { value };
  const range = `${inUnits(min, f, units)} to ${inUnits(max, f, units)} ${unitName(f, units)}`;
  return { problem: f.optional ? `${range}, or empty` : range };
}

/** The method as its form says it, or what is wrong by field. A value left as it was keeps its exact number. */
export function methodOf(
  method: Method,
  texts: Record<string, string>,
  units: Panel,
): { method: Method } | { issues: Record<string, string> } {
  const before = textsOf(method, units);
  const next = structuredClone(method);
  const issues: Record<string, string> = {};
  for (const phase of next.phases) {
    const form = formOf(phase);
    for (const f of allOf(phase)) {
      const name = fieldName(phase, f);
      if (texts[name] === before[name]) continue;
      const { value, problem } = read(f, texts[name], units);
      if (problem) issues[name] = problem;
      else put(phase as Tree, pathOf(f), value);
    }
    const own = Object.fromEntries(allOf(phase).map((f) => [f.key, texts[fieldName(phase, f)]]));
    for (const [key, words] of Object.entries(form.missing?.(own) ?? {})) issues[fieldName(phase, { key })] ??= words;
    form.tidy?.(phase.settings as Record<string, unknown>);
  }
  if (Object.keys(issues).length > 0) return { issues };
  const parsed = methodSchema.safeParse(next);
  if (parsed.success) return { method: parsed.data };
  return { issues: Object.fromEntries(parsed.error.issues.map((i) => [nameAt(next, i.path), i.message])) };
}

/** The field that a problem of the schema stands at; the first one, where it stands at none. */
function nameAt({ phases }: Method, path: readonly PropertyKey[]): string {
  const phase = phases[Number(path[1])] ?? phases[0];
  const key = path.slice(path[2] === 'settings' ? 3 : 2).join('.');
  return fieldName(phase, { key: allOf(phase).some((f) => f.key === key) ? key : allOf(phase)[0].key });
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
