/** A plan's results in bench English: numbers first, and never a bare "no". */
import { nameOf } from '$lib/jobs/nameOf';
import type { AlloyAmount } from '@orthos/core/alloys';
import { type BoardModel } from '@orthos/core/board';
import type { Planned } from '@orthos/core/compare';
import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
import {
  type AlloyLaid,
  type Fate,
  fateOf,
  harmOf,
  kindOf,
  LIFT_S,
  limitRowOf,
  mainPhase,
  type Method,
  methodName,
  type PlanResult,
  wetAt,
  windowEnd,
} from '@orthos/core/rework';

export interface Verdict {
  kind: 'good' | 'tight' | 'hurts' | 'cold';
  /** Shape and word beside the colour. */
  mark: string;
  word: string;
  /** Length of the window, s; null when there is none. */
  window_s: number | null;
  /** Nothing closed the window while it was computed: it is at least that long. */
  open?: boolean;
}

type Neighbour = PlanResult['neighbours'][number];

const SHORT_WINDOW = 10;
/** From this share of benches on, which joint is last needs no second word. */
const SURE = 0.95;
/** Neighbours with more left than this are not worth a line, K. */
const WORTH_K = 90;
/** How a window ends too early. */
const HURTS = {
  limit: 'hurts a neighbour first',
  wind: 'blows a neighbour away first',
  falls: 'a part falls off below first',
  body: 'hurts the part itself first',
} as const;
/** The same of a part by name, from then on. */
const ENDS = {
  limit: (name: string) => `${name} passes its limit`,
  wind: (name: string) => `${name} comes loose in the wind`,
  falls: (name: string) => `${name} comes loose and falls off below`,
  body: () => 'the part itself is hurt',
} as const;

export const seconds = (s: number): string => `${Math.round(s)} s`;

/** What has to come off the board before any method works. */
const takeOutFirst = (r: PlanResult): string[] => r.neighbours.filter((n) => n.takeOut).map((n) => n.partId);

/** A name, or how many there are. */
const oneOrMore = (board: BoardModel, partIds: readonly string[], what: string) =>
  partIds.length === 1 ? nameOf(board, partIds[0]) : `${partIds.length} ${what}`;

/** No run of the ensemble had all joints loose, however far the inputs were off. */
const neverMelts = (r: PlanResult): boolean => r.allWet_s === null && r.allWetRange_s.from === null;

export function verdictOf(r: PlanResult, board?: BoardModel): Verdict {
  if (r.allWet_s === null)
    return { kind: 'cold', mark: '▽', word: neverMelts(r) ? 'stays solid' : 'may stay solid', window_s: null };
  const end = windowEnd(r) ?? r.ended_s;
  const window_s = end - r.allWet_s;
  const open = windowEnd(r) === null;
  if (window_s <= LIFT_S) return { kind: 'hurts', mark: '▲', word: HURTS[r.closes?.why ?? 'limit'], window_s: null };
  const out = takeOutFirst(r);
  if (out.length > 0) {
    const what = board ? oneOrMore(board, out, 'parts') : 'a part';
    return { kind: 'tight', mark: '◆', word: `take ${what} out first`, window_s, open };
  }
  // a station that may be too cool to melt it at all is no safe choice
  if (r.allWetRange_s.to === null) return { kind: 'tight', mark: '◆', word: 'may stay solid', window_s, open };
  const near = r.neighbours.some((n) => ['hurts', 'may hurt'].includes(harmOf(n).says));
  if (window_s < SHORT_WINDOW || near) return { kind: 'tight', mark: '◆', word: 'tight', window_s, open };
  return { kind: 'good', mark: '●', word: 'works', window_s, open };
}

/** Who ends the window, in one word or two. */
export function closedBy(board: BoardModel, r: PlanResult): string {
  const end = windowEnd(r);
  if (end === null) return '';
  if (r.closes && r.closes.at_s === end) return nameOf(board, r.closes.partId);
  return 'freezes';
}

/** What ends the window, as a clause. */
function endOf(board: BoardModel, r: PlanResult): string {
  const { closes } = r;
  return closes ? ENDS[closes.why ?? 'limit'](nameOf(board, closes.partId)) : 'the joints freeze';
}

export function headline(methodId: string, r: PlanResult, board: BoardModel): string {
  const v = verdictOf(r);
  const label = methodName(methodId);
  if (v.kind === 'cold')
    return `${label} ${neverMelts(r) ? 'leaves' : 'may leave'} ${r.last ? `joint ${r.last.terminal}` : 'joints'} solid`;
  if (v.kind === 'hurts') return `${label}: ${endOf(board, r)} before the lift`;
  const out = takeOutFirst(r);
  const first = out.length > 0 ? `take ${oneOrMore(board, out, 'parts')} out, then ` : '';
  return `${label}: ${first}look from ${seconds(r.allWet_s ?? 0)}`;
}

/** What would help a method that leaves joints solid. */
const wayOut = (method: Method): string => kindOf(mainPhase(method)).wayOut;

/** Why not all joints are loose at any time of the run. */
export function whySolid(r: PlanResult, method: Method, units: UnitSettings): string {
  const joint = r.joints.find((j) => j.terminal === r.last?.terminal);
  if (!joint) return wayOut(method);
  const within = `in ${seconds(r.ended_s)}`;
  const named = `Joint ${joint.terminal}`;
  const because = r.last ? `: ${r.last.why}` : '';
  if (r.joints.every((j) => wetAt(j) !== null))
    return `Every joint comes loose, but never all at once: the first are solid again before ${named.toLowerCase()} melts${because}. ${wayOut(method)}`;
  const needs = joint.liquidus_C;
  if (joint.liquidus_s !== null)
    return kindOf(mainPhase(method)).opensHoles
      ? `${named} melts, but not for long enough to be sucked empty ${within}${because}. ${wayOut(method)}`
      : `${named} melts, but does not wet ${within}${because}. ${wayOut(method)}`;
  const ofNeeds = needs === undefined ? '' : ` of the ${formatTemperature(needs, units)} it needs`;
  if (joint.solidus_s === null)
    return `${named} gets no hotter than ${formatTemperature(joint.peak_C, units)}${ofNeeds} ${within}${because}. ${wayOut(method)}`;
  return `${named} begins to melt, but is not through ${within}${because}. ${wayOut(method)}`;
}

export function explanation(r: Planned, board: BoardModel, method: Method, units: UnitSettings): string {
  const v = verdictOf(r);
  const last = r.last;
  if (v.kind === 'cold') {
    const perhaps = neverMelts(r)
      ? ''
      : ` It may melt from ${seconds(r.allWetRange_s.from ?? 0)} on, where station and board are kinder.`;
    return `${whySolid(r, method, units)}${perhaps}`;
  }
  const end = windowEnd(r);
  if (v.kind === 'hurts') {
    const early = Math.round((r.allWet_s ?? 0) + LIFT_S - (end ?? 0));
    const help = {
      limit: kindOf(mainPhase(method)).spare,
      wind: 'Cover it, take less air, more distance,',
      falls: 'Hold it from below, take less time,',
      body: 'Bake it first, take less heat for longer,',
    }[r.closes?.why ?? 'limit'];
    return `${capital(endOf(board, r))} ${early} s before the part on joint ${last?.terminal} is off. ${help} or take the method that spares it.`;
  }
  const window =
    end === null
      ? `No neighbour reaches its limit in the ${seconds(r.ended_s)} computed.`
      : closedBy(board, r) === 'freezes'
        ? `The first joint is solid again at ${seconds(end)}: ${seconds(v.window_s ?? 0)} to lift.`
        : `${seconds(v.window_s ?? 0)} until ${endOf(board, r)}.`;
  const out = takeOutFirst(r);
  const first = out.length > 0 ? `Take ${listed(out.map((id) => nameOf(board, id)))} out first. ` : '';
  return `${before(r)}${first}Joint ${last?.terminal} is last${oddsOf(r)}: ${last?.why}. ${window}`;
}

/** How sure it is which joint is last; nothing where it is. */
function oddsOf({ last, row }: Planned): string {
  const [most, ...others] = row?.last ?? [];
  const on = (p: number) => `on ${Math.max(1, Math.round(p * 10))} of 10 such boards`;
  if (!most || !last) return '';
  if (most.terminal !== last.terminal) return ` as set, ${most.terminal} ${on(most.p)}`;
  if (most.p >= SURE || others.length === 0) return '';
  const second = others.slice(0, 2).map((l) => l.terminal);
  return ` ${on(most.p)}, else ${second.join(' or ')}`;
}

/** Where work goes before the heat that takes the part off: how long, and from when that heat is on. */
function before(r: PlanResult): string {
  const began = r.phases?.at(-1)?.from_s ?? 0;
  return began > 0 ? `The last heat comes on after ${seconds(began)}; times count from the first. ` : '';
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const listed = (names: readonly string[]) =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** "43 to 58 s", with an open end where a cool station may not get there; empty where nothing does. */
export function rangeText(r: PlanResult): string {
  const { from, to } = r.allWetRange_s;
  if (from === null && to === null) return '';
  if (to === null) return `from ${Math.round(from ?? 0)} s, may stay solid`;
  return `${Math.round(from ?? to)} to ${Math.round(to)} s`;
}

/** The shape beside each tone, everywhere. */
export const MARK = { good: '●', caution: '◆', stop: '▲' } as const;

/** What there is to say besides the word: from when it is loose, or by how much it is clear. */
export function fateText(n: Neighbour, fate: Fate, units: UnitSettings): string {
  if (fate.first === 'out') return '';
  return fate.first ? `loose ${seconds(n.loosens_s ?? 0)}` : marginText(n, units);
}

/** "12 K left", "hurt by 5 K too much"; in the user's degrees. */
export function marginText(n: Neighbour, units: UnitSettings): string {
  const { margin_K } = harmOf(n);
  if (margin_K === null) return 'nothing harms it';
  const degrees = Math.round(Math.abs(margin_K) * (units.temperature === 'F' ? 1.8 : 1));
  return `${degrees} ${units.temperature === 'F' ? '°F' : 'K'} ${margin_K < 0 ? 'too hot' : 'left'}`;
}

/** Those that matter: to be taken out, hurt or blown away, or with little left; the worst first. Small parts in the wind come as a group of their own. */
export function worthShowing(r: PlanResult, most: number): Neighbour[] {
  const rank = (n: Neighbour) => {
    const { first } = fateOf(r, n);
    if (first === 'out') return -Infinity;
    return first === 'falls' ? -1000 : (harmOf(n).margin_K ?? Infinity);
  };
  const closer = r.closes?.partId;
  return r.neighbours
    .filter((n) => n.partId === closer || rank(n) < WORTH_K)
    .sort((a, b) => rank(a) - rank(b))
    .slice(0, most);
}

export function neighbourKind(board: BoardModel, partId: string): string {
  const part = board.parts.find((p) => p.partId === partId);
  if (!part) return '';
  return limitRowOf(part).what;
}

/** Which need rules how much alloy is laid, and what the others would take. */
export function amountWords(told: AlloyAmount, { mass_mg, asked }: AlloyLaid, units: UnitSettings): string {
  // ordinary solder floods, it does not thin: nothing but the bead rules it
  if (!told.reachable) return '';
  const needs = [
    {
      rules: 'composition',
      words: `to be fluid from ${formatTemperature(asked.targetLiquidus_C, units)}`,
      mg: told.mass_mg,
    },
    ...(told.hold ? [{ rules: 'hold', words: `to stay liquid ${LIFT_S} s for a lift`, mg: told.hold.mass_mg }] : []),
  ];
  const mg = (n: (typeof needs)[number]) => `${Math.ceil(n.mg)} mg ${n.words}`;
  const short = needs.filter((n) => n.mg > mass_mg).sort((a, b) => b.mg - a.mg)[0];
  if (short) return `Too little: ${mg(short)}.`;
  return `The bead over the lands rules it; the mixture would want ${needs.map(mg).join(', ')}.${told.hold === null ? ' It stays liquid for a lift only while the heat is on.' : ''}`;
}
