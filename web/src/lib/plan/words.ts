/** A plan's results in bench English: numbers first, and never a bare "no". */
import {
  NEIGHBOUR_LIMITS,
  packageById,
  partName,
  windowEnd,
  type BoardModel,
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

export function verdictOf(r: PlanResult): Verdict {
  if (r.allWet_s === null) return { kind: 'cold', mark: '▽', word: 'does not melt', window_s: null };
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
  if (v.kind === 'cold') return `${label} leaves joint ${r.last?.terminal ?? ''} solid`;
  if (v.kind === 'hurts') return `${label} hurts ${closedBy(board, r)} before the lift`;
  return `${label}: look from ${seconds(r.allWet_s ?? 0)}`;
}

export function explanation(r: PlanResult, board: BoardModel, units: UnitSettings): string {
  const v = verdictOf(r);
  const last = r.last;
  if (v.kind === 'cold') {
    const joint = r.joints.find((j) => j.terminal === last?.terminal);
    return `Joint ${last?.terminal} gets no hotter than ${formatTemperature(joint?.peak_C ?? 0, units)} in ${seconds(r.ended_s)}: ${last?.why}. More air, a higher set-point or a shorter distance would change that, warming from below most of all.`;
  }
  const end = windowEnd(r);
  if (v.kind === 'hurts') {
    const early = Math.round((r.allWet_s ?? 0) - (end ?? 0));
    const cell = r.closes && neighbourKind(board, r.closes.partId) === 'cell';
    if (cell)
      return `${closedBy(board, r)} passes its limit ${early} s before joint ${last?.terminal} is wet. Take the cell out first.`;
    return `${closedBy(board, r)} passes its limit ${early} s before joint ${last?.terminal} is wet. Cover it, turn the nozzle away from it, or take the method that spares it.`;
  }
  const window =
    end === null
      ? `No neighbour reaches its limit in the ${seconds(r.ended_s)} computed.`
      : closedBy(board, r) === 'freezes'
        ? `The first joint is solid again at ${seconds(end)}: ${seconds(v.window_s ?? 0)} to lift.`
        : `${seconds(v.window_s ?? 0)} until ${closedBy(board, r)} passes its limit.`;
  return `Joint ${last?.terminal} is last: ${last?.why}. ${window}`;
}

/** "43 to 58 s", with an open end where the cool station never gets there. */
export function rangeText(r: PlanResult): string {
  const { from, to } = r.allWetRange_s;
  if (from === null && to === null) return '';
  if (to === null) return `from ${Math.round(from ?? 0)} s, or never`;
  return `${Math.round(from ?? to)} to ${Math.round(to)} s`;
}

export function neighbourKind(board: BoardModel, partId: string): string {
  const part = board.parts.find((p) => p.partId === partId);
  if (!part) return '';
  return NEIGHBOUR_LIMITS.get(part.limit ?? packageById(part.package).limit)?.what ?? '';
}
