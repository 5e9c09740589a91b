/** What is found at the bench, as the texts of its form and back. */
import type { AtBench } from '$lib/jobs/view';
import { readComposition, writeComposition } from '@orthos/core/alloys';
import { formatTemperature, parseDecimal, toCelsius, type UnitSettings } from '@orthos/core/ground';
import { MAT, type Surroundings } from '@orthos/core/rework';

type Kind<K extends keyof Surroundings> =
  NonNullable<Surroundings[K]> extends (infer T)[]
    ? T extends { kind: infer N extends string }
      ? N
      : never
    : NonNullable<Surroundings[K]> extends { kind: infer N extends string }
      ? N
      : never;

const UNDER: Record<'open' | Kind<'under'>, string> = {
  open: 'open air',
  preheater: 'preheater',
  infrared: 'infrared',
  mat: 'lies on a mat',
};
const HELD: Record<'free' | Kind<'held'>, string> = {
  free: 'hardly touched',
  frame: 'in a frame',
  props: 'on props',
  housing: 'in its housing',
};
export const DRAUGHT = { '1': 'still air', '3': 'some draught', '6': 'strong draught' } as const;
const COVERS: Record<Kind<'covers'>, string> = {
  tape: 'heat tape',
  foil: 'foil, pressed on',
  'foil-off': 'foil, standing off',
  strip: 'metal strip',
  thick: 'thick cover',
};
/** Which of the covers need what on a bench. */
const COVER_OF: Record<Kind<'covers'>, string> = {
  tape: 'tape',
  foil: 'foil',
  'foil-off': 'foil',
  strip: 'strip',
  thick: 'thick',
};
const BELOW_OF: Partial<Record<string, readonly string[]>> = { preheater: ['air', 'plate'], infrared: ['infrared'] };

/** Of the choices those that a bench has, and what is chosen already. */
export const coversOn = ({ covers }: AtBench, chosen: string | undefined): Record<string, string> =>
  Object.fromEntries(
    Object.entries(COVERS).filter(
      ([id]) => id === chosen || covers === null || covers.includes(COVER_OF[id as Kind<'covers'>]),
    ),
  );
export const underOn = ({ below }: AtBench, chosen: string): Record<string, string> =>
  Object.fromEntries(
    Object.entries(UNDER).filter(
      ([id]) => id === chosen || below === null || !BELOW_OF[id] || BELOW_OF[id].some((kind) => below.includes(kind)),
    ),
  );
export const heldOn = ({ fixtures }: AtBench, chosen: string): Record<string, string> =>
  Object.fromEntries(
    Object.entries(HELD).filter(
      ([id]) => id === chosen || !['frame', 'props'].includes(id) || fixtures === null || fixtures.includes(id),
    ),
  );
export const MOISTURE = { unknown: 'lay about, who knows', baked: 'baked before', damp: 'damp' } as const;
export const AFTER = { replaced: 'is replaced', reused: 'goes on again' } as const;
/** Beside the covers: the part is off the board meanwhile. */
export const OUT = 'out';
export const SINKS: Record<Kind<'sinks'>, string> = {
  heatsink: 'heatsink',
  clip: 'clip',
  shield: 'shield',
  glue: 'glued down',
  label: 'label on it',
  coating: 'coated over',
};

export interface SurroundingsTexts {
  under: keyof typeof UNDER;
  plate: string;
  flux: string;
  /** Width and height of the heated window round the target, mm; empty: everywhere. */
  window: string;
  held: keyof typeof HELD;
  frame: string;
  /** Places of props on the board, mm, `x y, x y`, and their diameter. */
  props: string;
  prop: string;
  draught: string;
  covers: Record<string, Kind<'covers'> | typeof OUT | ''>;
  moisture: keyof typeof MOISTURE;
  after: keyof typeof AFTER;
  sinks: Record<string, Kind<'sinks'> | ''>;
  /** Leads of the target that a clip or something of metal holds. */
  clipped: string;
  /** Own solder of the target's joints where it is not the board's, what is worked in and how much of it. */
  own: string;
  mixed: string;
  ratio: string;
  volume: string;
  /** Corroded joints: terminals, or `all`; with `leaked` under what came out of a can. */
  corroded: string;
}

/** The word for joints under leaked electrolyte. */
const LEAKED = 'leaked';

const degrees = (C: number, units: UnitSettings) => formatTemperature(C, units).split(' ')[0];

export function textsOf(value: Surroundings, units: UnitSettings): SurroundingsTexts {
  const { under, held, joints = [] } = value;
  const every = joints.find((j) => !j.terminals && !j.corroded && !j.leaking) ?? joints.find((j) => !j.terminals);
  const corroded = joints.filter((j) => j.corroded || j.leaking);
  const leaked = corroded.some((j) => j.leaking);
  const window = under && 'window' in under ? under.window : undefined;
  return {
    under: under?.kind ?? 'open',
    plate: degrees(under?.kind === 'preheater' ? under.T_C : 140, units),
    flux: under?.kind === 'infrared' ? String(under.flux_W_m2 / 1000) : '4',
    window: window ? `${window.w_mm} ${window.h_mm}` : '',
    held: held?.kind ?? 'free',
    frame: held?.kind === 'frame' ? String(held.width_mm) : '3',
    props: held?.kind === 'props' ? held.places.map((p) => `${p.x_mm} ${p.y_mm}`).join(', ') : '',
    prop: held?.kind === 'props' ? String(held.d_mm) : '5',
    draught: String(value.draught ?? 1),
    covers: Object.fromEntries([
      ...(value.covers ?? []).flatMap((c) => (c.partId ? [[c.partId, c.kind] as const] : [])),
      ...(value.absent ?? []).map((id) => [id, OUT] as const),
    ]),
    moisture: value.moisture ?? 'unknown',
    after: value.reused ? 'reused' : 'replaced',
    sinks: Object.fromEntries((value.sinks ?? []).flatMap((s) => (s.terminals ? [] : [[s.partId, s.kind]]))),
    clipped: (value.sinks ?? []).flatMap((s) => s.terminals ?? []).join(' '),
    own: every?.alloy ? writeComposition(every.alloy) : '',
    mixed: every?.with?.[0] ? writeComposition(every.with[0].alloy) : '',
    ratio: every?.with?.[0] ? String(every.with[0].ratio) : '1',
    volume: String(every?.volume ?? 1),
    corroded: [
      ...(leaked ? [LEAKED] : []),
      ...(corroded.some((j) => !j.terminals) ? ['all'] : corroded.flatMap((j) => j.terminals ?? [])),
    ].join(' '),
  };
}

type Read<T> = { value?: T; problem?: string };
const problem = (text: string): Read<never> => ({ problem: text });

function underOf(
  t: SurroundingsTexts,
  units: UnitSettings,
  at: { x_mm: number; y_mm: number },
): Read<Surroundings['under']> {
  if (t.under === 'open') return {};
  if (t.under === 'mat') return { value: MAT };
  const size =
    t.window.trim() === ''
      ? []
      : t.window
          .trim()
          .split(/[\sx×]+/)
          .map((s) => parseDecimal(s));
  if (size.length > 0 && !(size.length <= 2 && size.every((v) => v !== null && v > 0 && v <= 2000)))
    return problem('Window: width and height in mm, 24 30; or empty.');
  const [w, h = w] = size as number[];
  const window = size.length > 0 ? { window: { x_mm: at.x_mm - w / 2, y_mm: at.y_mm - h / 2, w_mm: w, h_mm: h } } : {};
  if (t.under === 'preheater') {
    const typed = parseDecimal(t.plate);
    const T_C = typed === null ? NaN : toCelsius(typed, units);
    if (!(T_C >= 30 && T_C <= 300))
      return problem(`Preheater: ${degrees(30, units)} to ${degrees(300, units)} °${units.temperature}.`);
    return { value: { kind: 'preheater', T_C, h: 40, ...window } };
  }
  const kW = parseDecimal(t.flux);
  if (kW === null || kW < 0 || kW > 60) return problem('Infrared: 0 to 60 kW/m².');
  return { value: { kind: 'infrared', flux_W_m2: 1000 * kW, ...window } };
}

function heldOf(t: SurroundingsTexts): Read<Surroundings['held']> {
  if (t.held === 'free') return {};
  if (t.held === 'housing')
    return BELOW_OF[t.under]
      ? problem('In its housing nothing heats the board from below.')
      : { value: { kind: 'housing' } };
  if (t.held === 'frame') {
    const width_mm = parseDecimal(t.frame);
    if (width_mm === null || width_mm < 0.5 || width_mm > 20) return problem('Frame: 0.5 to 20 mm wide.');
    return { value: { kind: 'frame', width_mm } };
  }
  const d_mm = parseDecimal(t.prop);
  if (d_mm === null || d_mm < 0.5 || d_mm > 30) return problem('Props: 0.5 to 30 mm thick.');
  const places = t.props
    .split(/[,;](?=\s|$)|;/)
    .flatMap((p) => (p.trim() === '' ? [] : [p.trim().split(/\s+/).map(parseDecimal)]));
  if (places.length === 0 || places.length > 40 || places.some((p) => p.length !== 2 || p.includes(null)))
    return problem('Props at: x and y of each on the board in mm, 5 5, 55 40.');
  return { value: { kind: 'props', d_mm, places: places.map(([x, y]) => ({ x_mm: x as number, y_mm: y as number })) } };
}

/** Joints by their names, or one that the part has not. */
const namedIn = (text: string, terminals: readonly string[]) => {
  const named = text
    .trim()
    .split(/[\s,;]+/)
    .filter(Boolean);
  return { named, unknown: named.find((id) => !terminals.includes(id)) };
};

function jointsOf(t: SurroundingsTexts, terminals: readonly string[]): Read<Surroundings['joints']> {
  const own = t.own.trim() === '' ? undefined : readComposition(t.own);
  const mixed = t.mixed.trim() === '' ? undefined : readComposition(t.mixed);
  if (own === null || mixed === null) return problem('Joints: elements with their percent, Sn63Pb37; or empty.');
  const [ratio, volume] = [parseDecimal(t.ratio), parseDecimal(t.volume)];
  if (mixed && (ratio === null || ratio < 0.001 || ratio > 20))
    return problem('Worked in: 0.001 to 20 times the joint.');
  if (volume === null || volume < 0.1 || volume > 10) return problem('Solder: 0.1 to 10 times a printed joint.');
  const every = {
    ...(own ? { alloy: own } : {}),
    ...(mixed ? { with: [{ alloy: mixed, ratio: ratio as number }] } : {}),
    ...(volume === 1 ? {} : { volume }),
  };
  const states: NonNullable<Surroundings['joints']> = Object.keys(every).length > 0 ? [every] : [];
  const { named, unknown } = namedIn(t.corroded, [...terminals, LEAKED, 'all']);
  const which = named.filter((id) => id !== LEAKED);
  if (unknown) return problem(`Corroded: the part has no joint ${unknown}.`);
  const state = which.length < named.length ? { leaking: true } : { corroded: true };
  if (which.includes('all') || (named.length > 0 && which.length === 0)) states.push(state);
  else if (which.length > 0) states.push({ terminals: which, ...state });
  return { value: states.length > 0 ? states : undefined };
}

/** The surroundings as the form says them, or one sentence about what is wrong. */
export function surroundingsOf(
  t: SurroundingsTexts,
  units: UnitSettings,
  target: { partId: string; x_mm: number; y_mm: number; terminals: readonly string[] },
): { value: Surroundings } | { problem: string } {
  const [under, held, joints] = [underOf(t, units, target), heldOf(t), jointsOf(t, target.terminals)];
  const wrong = under.problem ?? held.problem ?? joints.problem;
  if (wrong) return { problem: wrong };
  const covers = Object.entries(t.covers).flatMap(([partId, kind]) => (kind && kind !== OUT ? [{ partId, kind }] : []));
  const absent = Object.entries(t.covers).flatMap(([partId, kind]) => (kind === OUT ? [partId] : []));
  const clip = namedIn(t.clipped, target.terminals);
  if (clip.unknown) return { problem: `Clip: the part has no lead ${clip.unknown}.` };
  const sinks: NonNullable<Surroundings['sinks']> = [
    ...Object.entries(t.sinks).flatMap(([partId, kind]) => (kind ? [{ partId, kind }] : [])),
    ...(clip.named.length > 0 ? [{ partId: target.partId, kind: 'clip' as const, terminals: clip.named }] : []),
  ];
  return {
    value: {
      ...(under.value ? { under: under.value } : {}),
      ...(held.value ? { held: held.value } : {}),
      ...(t.draught === '1' ? {} : { draught: Number(t.draught) }),
      ...(covers.length > 0 ? { covers } : {}),
      ...(sinks.length > 0 ? { sinks } : {}),
      ...(joints.value ? { joints: joints.value } : {}),
      ...(absent.length > 0 ? { absent } : {}),
      ...(t.moisture === 'unknown' ? {} : { moisture: t.moisture }),
      ...(t.after === 'reused' ? { reused: true } : {}),
    },
  };
}

/** What is set besides open, still air and sound joints, in a word or two. */
export function surroundingWords({
  under,
  held,
  draught,
  covers,
  sinks,
  joints,
  absent,
  moisture,
  reused,
}: Surroundings): string {
  return [
    under?.kind,
    held?.kind === 'housing' ? HELD.housing : held?.kind,
    draught ? 'draught' : '',
    covers ? `${covers.length} covered` : '',
    sinks ? `${sinks.length} with something on ${sinks.length > 1 ? 'them' : 'it'}` : '',
    joints ? 'joints' : '',
    absent ? `${absent.length} taken out` : '',
    moisture ?? '',
    reused ? 'goes on again' : '',
  ]
    .filter(Boolean)
    .join(', ');
}
