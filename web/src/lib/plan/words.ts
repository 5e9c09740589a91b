/** A plan's results in bench English: numbers first, and never a bare "no". */
import {
  NEIGHBOUR_LIMITS,
  packageById,
  partName,
  wetAt,
  windowEnd,
  type BoardModel,
  type Method,
  type PlanResult,
  type UnitSettings,
  formatTemperature,
} from '@orthos/core';

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

const SHORT_WINDOW = 10;

export const seconds = (s: number): string => `${Math.round(s)} s`;

export function nameOf(board: BoardModel, partId: string): string {
  const part = board.parts.find((p) => p.partId === partId);
  return part ? partName(part) : partId;
}

/** No run of the ensemble had all joints loose, however far the inputs were off. */
const neverMelts = (r: PlanResult): boolean => r.allWet_s === null && r.allWetRange_s.from === null;

export function verdictOf(r: PlanResult): Verdict {
  if (r.allWet_s === null)
    return { kind: 'cold', mark: '▽', word: neverMelts(r) ? 'stays solid' : 'may stay solid', window_s: null };
  const end = windowEnd(r) ?? r.ended_s;
  const window_s = end - r.allWet_s;
  const open = windowEnd(r) === null;
  if (window_s <= 0) return { kind: 'hurts', mark: '▲', word: 'hurts a neighbour first', window_s: null };
  // a station that may be too cool to melt it at all is no safe choice
  if (r.allWetRange_s.to === null) return { kind: 'tight', mark: '◆', word: 'may stay solid', window_s, open };
  const near = r.neighbours.some((n) => n.atWet_C > n.limit_C - n.limitPlusMinus_C);
  if (window_s < SHORT_WINDOW || near) return { kind: 'tight', mark: '◆', word: 'tight', window_s, open };
  return { kind: 'good', mark: '●', word: 'works', window_s, open };
}

const ORDER = { good: 0, tight: 1, hurts: 2, cold: 3 } as const;

/** The label of the method to propose: best verdict, then the longest window. */
export function bestMethod(results: Record<string, PlanResult>): string | null {
  const ranked = Object.entries(results)
    .map(([label, r]) => ({ label, v: verdictOf(r) }))
    .sort((a, b) => ORDER[a.v.kind] - ORDER[b.v.kind] || (b.v.window_s ?? 0) - (a.v.window_s ?? 0));
  return ranked[0]?.label ?? null;
}

/** Who ends the window, in one word or two. */
export function closedBy(board: BoardModel, r: PlanResult): string {
  const end = windowEnd(r);
  if (end === null) return '';
  if (r.closes && r.closes.at_s === end) return nameOf(board, r.closes.partId);
  return 'freezes';
}

export function headline(label: string, r: PlanResult, board: BoardModel): string {
  const v = verdictOf(r);
  if (v.kind === 'cold')
    return `${label} ${neverMelts(r) ? 'leaves' : 'may leave'} ${r.last ? `joint ${r.last.terminal}` : 'joints'} solid`;
  if (v.kind === 'hurts') return `${label} hurts ${closedBy(board, r)} before the lift`;
  return `${label}: look from ${seconds(r.allWet_s ?? 0)}`;
}

/** What would help a method that leaves joints solid. */
function wayOut(method: Method): string {
  if (method.kind === 'air')
    return 'More air, a higher set-point or a shorter distance would change that, warming from below most of all.';
  if (method.kind === 'low-melt')
    return 'A wider tip, more alloy, a second iron or warming from below would change that.';
  return method.tool === 'tweezers'
    ? 'Wider or hotter tips would change that, warming from below most of all.'
    : 'Longer on each pin, a wider tip or warming from below would change that.';
}

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
    return method.kind === 'iron' && method.tool === 'vacuum'
      ? `${named} melts, but not for long enough to be sucked empty ${within}${because}. ${wayOut(method)}`
      : `${named} melts, but does not wet ${within}${because}. ${wayOut(method)}`;
  const ofNeeds = needs === undefined ? '' : ` of the ${formatTemperature(needs, units)} it needs`;
  if (joint.solidus_s === null)
    return `${named} gets no hotter than ${formatTemperature(joint.peak_C, units)}${ofNeeds} ${within}${because}. ${wayOut(method)}`;
  return `${named} begins to melt, but is not through ${within}${because}. ${wayOut(method)}`;
}

export function explanation(r: PlanResult, board: BoardModel, method: Method, units: UnitSettings): string {
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
    const early = Math.round((r.allWet_s ?? 0) - (end ?? 0));
    const cell = r.closes && neighbourKind(board, r.closes.partId) === 'cell';
    if (cell)
      return `${closedBy(board, r)} passes its limit ${early} s before joint ${last?.terminal} is wet. Take the cell out first.`;
    return `${closedBy(board, r)} passes its limit ${early} s before joint ${last?.terminal} is wet. ${method.kind === 'air' ? 'Cover it, turn the nozzle away from it,' : 'Cover it,'} or take the method that spares it.`;
  }
  const window =
    end === null
      ? `No neighbour reaches its limit in the ${seconds(r.ended_s)} computed.`
      : closedBy(board, r) === 'freezes'
        ? `The first joint is solid again at ${seconds(end)}: ${seconds(v.window_s ?? 0)} to lift.`
        : `${seconds(v.window_s ?? 0)} until ${closedBy(board, r)} passes its limit.`;
  return `Joint ${last?.terminal} is last: ${last?.why}. ${window}`;
}

/** "43 to 58 s", with an open end where a cool station may not get there; empty where nothing does. */
export function rangeText(r: PlanResult): string {
  const { from, to } = r.allWetRange_s;
  if (from === null && to === null) return '';
  if (to === null) return `from ${Math.round(from ?? 0)} s, may stay solid`;
  return `${Math.round(from ?? to)} to ${Math.round(to)} s`;
}

export function neighbourKind(board: BoardModel, partId: string): string {
  const part = board.parts.find((p) => p.partId === partId);
  if (!part) return '';
  return NEIGHBOUR_LIMITS.get(part.limit ?? packageById(part.package).limit)?.what ?? '';
}
