/** How a part that goes on is set by what stands round it: gaps to its neighbours, and how far it may be off. */
import { type BoardModel, bodyRect, boxOnBoard, type PlacedPart, partName, solderedTerminals } from '../board/index.ts';
import { sideOf } from '../rework/index.ts';

const DIRECTIONS = ['left', 'right', 'up', 'down'] as const;
/** As seen from the top of the board. */
type Direction = (typeof DIRECTIONS)[number];

export interface Gap {
  to: Direction;
  partId: string;
  name: string;
  /** From body to body, mm. */
  mm: number;
  /** Middle of the gap along the part's edge, mm on the board: where a rule is laid. */
  at_mm: number;
}
export interface Alignment {
  gaps: Gap[];
  /** How far every land still carries its lead, mm. */
  shift_mm: number;
  /** How far it may be turned on top of nothing else, degrees. */
  turn_deg: number;
}

/** A lead may hang over its land by this share of its width (the usual limit where failure hurts; half of it elsewhere is allowed twice as much). */
const OVERHANG = 0.25;
/** Further than this nobody lays a rule, mm. */
const FAR_MM = 40;

export function alignmentOf(board: BoardModel, part: PlacedPart): Alignment {
  const shift_mm = shiftOf(part);
  return { gaps: DIRECTIONS.flatMap((to) => gapTo(board, part, to) ?? []), shift_mm, turn_deg: turnOf(part, shift_mm) };
}

/** The body that stands nearest in one direction, within the part's own breadth. */
function gapTo(board: BoardModel, part: PlacedPart, to: Direction): Gap | undefined {
  const own = boxOnBoard(part, bodyRect(part));
  const upright = to === 'up' || to === 'down';
  const found = board.parts.flatMap((p): Gap[] => {
    if (p.side !== part.side || p.partId === part.partId) return [];
    const box = boxOnBoard(p, bodyRect(p));
    const [from, until] = upright
      ? [Math.max(own.x0, box.x0), Math.min(own.x1, box.x1)]
      : [Math.max(own.y0, box.y0), Math.min(own.y1, box.y1)];
    const mm = { left: own.x0 - box.x1, right: box.x0 - own.x1, up: own.y0 - box.y1, down: box.y0 - own.y1 }[to];
    if (from >= until || mm < 0 || mm > FAR_MM) return [];
    return [{ to, partId: p.partId, name: partName(p), mm, at_mm: (from + until) / 2 }];
  });
  return found.length > 0 ? found.reduce((a, b) => (b.mm < a.mm ? b : a)) : undefined;
}

/** The smaller of lead and land, across the way the lead goes out. */
function shiftOf(part: PlacedPart): number {
  const terminals = solderedTerminals(part);
  const lands = terminals.map((t) => t.land);
  const across = terminals.map(({ land, lead = land }) =>
    sideOf(land, lands).startsWith('x') ? Math.min(land.h, lead.h) : Math.min(land.w, lead.w),
  );
  return across.length > 0 ? OVERHANG * Math.min(...across) : 0;
}

/** A turn moves the furthest land most. */
function turnOf(part: PlacedPart, shift_mm: number): number {
  const far = Math.max(...solderedTerminals(part).map(({ land }) => Math.hypot(land.x, land.y)), 0);
  return far > 0 ? (Math.asin(Math.min(1, shift_mm / far)) * 180) / Math.PI : 90;
}
