/** Settings that a search may turn: which phase they belong to, and what they may be. */
import { z } from 'zod';
import { CalcInputError } from '../ground/index.ts';
import { COVER_KINDS, formOf, type Kit, kindOf, type Method, type Phase, type Surroundings } from '../rework/index.ts';

type Covers = NonNullable<Surroundings['covers']>;

/** Settings searched at once at most. */
const MOST_FREE = 12;
/** A setting that is left out, and a part that nothing covers. */
const UNSET = '';
const BARE = 'none';

export const valueSchema = z.union([z.number(), z.string().max(60)]);
export type Value = z.infer<typeof valueSchema>;
/**
 * By setting, `set_C` of the phase that has it (the last one first) or `below.T_C` of a phase: from and to, or all that there is; '' leaves an optional
 * one out. `cover.j2`: what may lie over a part, 'none' or kinds of covers.
 */
export const freeSchema = z
  .record(z.string().min(1).max(80), z.union([z.tuple([z.number(), z.number()]), z.array(valueSchema).min(1).max(40)]))
  .refine((f) => Object.keys(f).length >= 1 && Object.keys(f).length <= MOST_FREE, { error: 'one to twelve settings' });
export type Free = z.infer<typeof freeSchema>;

/** One setting with all values that are tried. */
export interface Axis {
  key: string;
  values: readonly Value[];
}

/** How finely a hand sets it: steps of a dial, of a distance; what is not named is taken in eighths. */
const STEPS: Readonly<Record<string, number>> = {
  set_C: 10,
  T_C: 10,
  C: 10,
  flow_L_min: 5,
  standoff_mm: 1,
  sweep_mm: 0.5,
  stroke_s: 5,
  from_s: 5,
  tilt_deg: 10,
  approach_deg: 30,
};
/** More values of one setting are thinned out. */
const MOST = 17;

const isRange = (allowed: Free[string]): allowed is [number, number] =>
  allowed.length === 2 && allowed.every((v) => typeof v === 'number');

/** From and to in steps that a hand can set, both ends among them. */
function steps([lo, hi]: [number, number], step = (hi - lo) / 8): number[] {
  const wide = step * Math.max(1, Math.ceil((hi - lo) / (step * (MOST - 1)) - 1e-9));
  const n = hi > lo ? Math.ceil((hi - lo) / wide - 1e-9) : 0;
  return [...Array.from({ length: n }, (_, i) => Number((lo + i * wide).toFixed(2))), hi];
}

const wrong = (key: string, message: string) => new CalcInputError([{ field: `free.${key}`, message }]);

/** Where a setting is: index of its phase, and its path there. */
function placeOf(key: string, { phases }: Method): { n: number; path: string[] } {
  const [first, ...rest] = key.split('.');
  const named = phases.findIndex((p) => p.id === first);
  if (named >= 0 && rest.length > 0) return { n: named, path: rest };
  const path = key.split('.');
  const has = (p: Phase) => path[0] in p.settings || [...formOf(p).usual, ...formOf(p).more].some((f) => f.key === key);
  const n = phases.findLastIndex(has);
  if (n < 0) throw wrong(key, 'is no setting of this method');
  return { n, path };
}

const COVER = 'cover.';
const coverKey = (key: string): string | undefined => (key.startsWith(COVER) ? key.slice(COVER.length) : undefined);

/** A method with some of its settings turned; covers are not its own. Throws where one cannot be what it is asked to be. */
export function turned(method: Method, values: ReadonlyMap<string, Value>): Method {
  const phases = structuredClone(method.phases);
  const places = [...values].flatMap(([key, v]) => (coverKey(key) ? [] : [{ key, v, ...placeOf(key, method) }]));
  for (const { n, path, v } of places) {
    // what hands a phase over is beside its settings
    const root = (path[0] === 'until' ? phases[n] : phases[n].settings) as Record<string, unknown>;
    const holder = path.slice(0, -1).reduce<Record<string, unknown>>((at, k, i) => {
      at[k] ??= /^\d+$/.test(path[i + 1]) ? [] : {};
      return at[k] as Record<string, unknown>;
    }, root);
    const last = path[path.length - 1];
    if (v === UNSET) delete holder[last];
    else holder[last] = v;
  }
  for (const n of new Set(places.map((p) => p.n))) {
    const { settings } = phases[n];
    formOf(phases[n]).tidy?.(settings as Record<string, unknown>);
    const read = kindOf(phases[n]).settings.safeParse(settings);
    if (read.success) continue;
    const { path, message } = read.error.issues[0];
    const mine = places.filter((p) => p.n === n);
    const at = mine.find((p) => path.join('.').startsWith(p.path.join('.'))) ?? mine[mine.length - 1];
    throw wrong(at.key, message);
  }
  return { ...method, phases };
}

/** What is found at the bench, with covers as values say. */
export function covered<F extends Pick<Surroundings, 'covers'>>(found: F, values: ReadonlyMap<string, Value>): F {
  const said = [...values].flatMap(([key, kind]) => {
    const partId = coverKey(key);
    return partId === undefined ? [] : [{ partId, kind }];
  });
  if (said.length === 0) return found;
  const rest = (found.covers ?? []).filter((c) => !said.some((s) => s.partId === c.partId));
  const laid = said.filter((s) => s.kind !== BARE) as Covers;
  return { ...found, covers: [...rest, ...laid] };
}

/** What a setting is now. */
export function setAs({ phases }: Method, { covers = [] }: Pick<Surroundings, 'covers'>, key: string): unknown {
  const partId = coverKey(key);
  if (partId !== undefined) return covers.find((c) => c.partId === partId)?.kind ?? BARE;
  const { n, path } = placeOf(key, { id: '', phases });
  const root: unknown = path[0] === 'until' ? phases[n] : phases[n].settings;
  const is = path.reduce<unknown>((v, k) => (v as Record<string, unknown> | undefined)?.[k], root);
  return is ?? UNSET;
}

/** The settings that are free, in the order they are named. Throws where one is none of the method's, or cannot be set so. */
export function axesOf(free: Free, method: Method): Axis[] {
  const axes = Object.entries(free).map(([key, allowed]): Axis => {
    if (isRange(allowed) && allowed[1] < allowed[0]) throw wrong(key, 'from low to high');
    const step = STEPS[key.split('.').at(-1) ?? ''];
    const values = isRange(allowed) ? steps(allowed, step) : [...new Set(allowed)];
    const kinds = coverKey(key) && values.find((v) => v !== BARE && !COVER_KINDS.some((kind) => kind === v));
    if (kinds !== undefined) throw wrong(key, `${BARE}, ${COVER_KINDS.join(', ')}`);
    return { key, values };
  });
  for (const end of [0, -1]) turned(method, new Map(axes.map(({ key, values }) => [key, values.at(end) ?? UNSET])));
  return axes;
}

/** Air through a nozzle at most, L/min for each mm² of its mouth: the strongest of the bench cases (docs/physics/bench.md). */
const MOST_FLOW = 1.4;
export const mostThrough = (nozzle_mm: number): number => Math.floor(MOST_FLOW * Math.PI * (nozzle_mm / 2) ** 2);

/** Whether a station pushes as much through its nozzle as is set. */
export const passes = (phases: readonly Phase[]): boolean =>
  phases.every((p) => {
    if (p.kind !== 'air' && p.kind !== 'peel') return true;
    const mouth = 'mouth' in p.settings && p.settings.mouth !== undefined;
    return mouth || p.settings.flow_L_min <= mostThrough(p.settings.nozzle_mm);
  });

type Ranges = Record<string, [number, number] | Value[]>;

/** What a hand may be sent to look at, whatever a tool could do (10-heat, bench practice): °C, L/min, mm, s. */
const SENSIBLE = {
  air_C: [250, 450],
  mild_C: [180, 320],
  flow: [15, 105],
  standoff: [8, 24],
  iron_C: [280, 400],
  below_C: [120, 300],
  warm_C: [80, 140],
} as const;
/** Upright or leaning, from where; from afar all the time or close in from some time on. */
const LEANS: Ranges = { tilt_deg: [UNSET, 30], approach_deg: [0, 60, 120, 180, 240, 300] };
const CLOSES_IN: Ranges = { 'stages.0.standoff_mm': [UNSET, 8, 12], 'stages.0.from_s': [20, 40, 60] };

const within = ([lo, hi]: readonly [number, number], [least, most]: readonly [number, number]): [number, number] => [
  Math.max(lo, least),
  Math.min(hi, most),
];
/** Both ways from what is usual. */
const round = (usual: number): [number, number] => [Number((0.5 * usual).toFixed(1)), Number((1.6 * usual).toFixed(1))];

/** What of a phase can be turned on a bench; every tool is there where nobody listed them. */
function ofPhase(phase: Phase, kit: Kit | undefined): Ranges {
  const irons = kit?.filter((i) => i.tool === 'iron' || i.tool === 'tweezers' || i.tool === 'vacuum') ?? [];
  const tool = kindOf(phase).tool;
  const iron = irons.filter((i) => i.tool === tool).sort((a, b) => b.power_W - a.power_W)[0];
  const tip: Ranges = {
    set_C: within(iron?.set_C ?? [0, 1000], SENSIBLE.iron_C),
    ...(iron && iron.tips_mm.length > 1 ? { tip_mm: [...new Set(iron.tips_mm)] } : {}),
  };
  switch (phase.kind) {
    case 'air':
    case 'peel': {
      const station = kit?.find((i) => i.tool === 'air');
      const marked = station && station.flow_L_min !== 'unmarked' ? station.flow_L_min : SENSIBLE.flow;
      const bores = [...new Set(station?.nozzles.flatMap((n) => ('round_mm' in n ? [n.round_mm] : [])))];
      const { settings: s } = phase;
      const mild = s.set_C < SENSIBLE.mild_C[1];
      return {
        set_C: within(station?.set_C ?? [0, 1000], mild ? SENSIBLE.mild_C : SENSIBLE.air_C),
        flow_L_min: within(marked, SENSIBLE.flow),
        standoff_mm: [...SENSIBLE.standoff],
        ...(bores.length > 1 ? { nozzle_mm: bores } : {}),
        ...('sweep_mm' in s && s.sweep_mm > 0 ? { sweep_mm: round(s.sweep_mm) } : {}),
        ...(phase.kind === 'air' ? { ...LEANS, ...CLOSES_IN } : {}),
      };
    }
    case 'stroke':
    case 'irons2':
      return { ...tip, stroke_s: round(phase.settings.stroke_s) };
    case 'vacuum':
      return { ...tip, dwell_s: [0.5, 3] };
    case 'pool':
      return { ...tip, pool_mm3: round(phase.settings.pool_mm3) };
    case 'spike':
      return { ratio: [0.5, 3] };
    case 'alloy':
      return { bead_mm3_mm: round(phase.settings.bead_mm3_mm) };
    case 'below': {
      const source = kit?.find((i) => i.tool === 'below');
      const until: Ranges = 'C' in phase.until ? { 'until.C': [...SENSIBLE.warm_C] } : {};
      return { T_C: within(source?.T_C ?? [0, 1000], SENSIBLE.below_C), ...until };
    }
    case 'tweezers':
    case 'lift-legs':
      return tip;
    default:
      return {};
  }
}

/** Settings of a method that are worth searching on a bench, the last tool's before those of the ones before it; none where nothing can be turned. */
export function freeOn({ phases }: Method, kit: Kit | undefined): Free {
  const all = [...phases].reverse().flatMap((p) =>
    Object.entries(ofPhase(p, kit))
      .filter(([, v]) => v.length > 2 || v[1] > v[0])
      .map(([key, v]) => [`${p.id}.${key}`, v] as const),
  );
  return Object.fromEntries(all.slice(0, MOST_FREE));
}

/** What more heat comes from: the far end of a range, or its near one. */
const HOTTER: Readonly<Record<string, 'most' | 'least'>> = {
  set_C: 'most',
  T_C: 'most',
  flow_L_min: 'most',
  standoff_mm: 'least',
};

/**
 * A method with what blows and warms so much of the way (0 to 1) from how it is set to the most that this bench can: hotter, more air, nearer. Irons,
 * nozzles and hands stay as they are. Itself where nothing of it can.
 */
export function hotter(method: Method, kit: Kit | undefined, share: number): Method {
  const warms = new Map(method.phases.filter((p) => p.kind === 'air' || p.kind === 'below').map((p) => [p.id, p]));
  const values = new Map<string, Value>();
  for (const [key, allowed] of Object.entries(freeOn(method, kit))) {
    const [id, name, ...deeper] = key.split('.');
    const phase = warms.get(id);
    const now = setAs(method, {}, key);
    if (!phase || deeper.length > 0 || !(name in HOTTER) || !isRange(allowed) || typeof now !== 'number') continue;
    const [lo, hi] = allowed;
    const nozzle = phase.kind === 'air' && name === 'flow_L_min' ? mostThrough(phase.settings.nozzle_mm) : Infinity;
    const to = HOTTER[name] === 'most' ? Math.max(now, Math.min(hi, nozzle)) : Math.min(now, lo);
    const step = STEPS[name] ?? 1;
    values.set(key, now + Math.round((share * (to - now)) / step) * step);
  }
  return turned(method, values);
}
