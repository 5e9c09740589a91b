/** Foil pressed over everything round a part, with a window cut over it: who lies under it, who stands in the window, what a plan is told of it. */
import { boardBounds, bodyRect, type BoardModel, boxOnBoard, type PlacedPart } from '../board/index.ts';
import { extentOf, packageById } from '../packages/index.ts';
import type { Surroundings } from '../rework/index.ts';

/** Between a part's outline and the cut, mm: as near as a blade goes along a mark. */
export const FOIL_CLEARANCE_MM = 1;
/** Further away foil saves nobody, mm. */
const REACH_MM = 25;
/** A plan takes no more covers than this on parts. */
const MOST = 50;

type Box = ReturnType<typeof boxOnBoard>;

interface FoilWindow {
  /** Covered, the nearest first. */
  under: PlacedPart[];
  /** In the window with the target. */
  open: PlacedPart[];
  /** Where it is cut, mm on the board. */
  window: [number, number][];
  /** For a plan: every part under it, and the board round the window. */
  covers: NonNullable<Surroundings['covers']>;
}

/** `clearance_mm`: between the target's outline and the foil. */
export function foilWindow(board: BoardModel, target: PlacedPart, clearance_mm = FOIL_CLEARANCE_MM): FoilWindow {
  const e = extentOf(packageById(target.package));
  const own = boxOnBoard(target, { x: (e.x0 + e.x1) / 2, y: (e.y0 + e.y1) / 2, w: e.x1 - e.x0, h: e.y1 - e.y0 });
  const window = {
    x0: own.x0 - clearance_mm,
    x1: own.x1 + clearance_mm,
    y0: own.y0 - clearance_mm,
    y1: own.y1 + clearance_mm,
  };
  const beside = board.parts
    .filter((p) => p.side === target.side && p.partId !== target.partId)
    .map((part) => ({ part, gap: gapOf(boxOnBoard(part, bodyRect(part)), window) }))
    .sort((a, b) => a.gap - b.gap);
  const under = beside.filter(({ gap }) => gap > 0 && gap <= REACH_MM).map(({ part }) => part);
  return {
    under,
    window: [
      [window.x0, window.y0],
      [window.x1, window.y0],
      [window.x1, window.y1],
      [window.x0, window.y1],
    ],
    open: beside.filter(({ gap }) => gap === 0).map(({ part }) => part),
    covers: [
      ...under.slice(0, MOST).map(({ partId }) => ({ kind: 'foil' as const, partId })),
      ...round(window, boardBounds(board)).map((area) => ({ kind: 'foil' as const, area })),
    ],
  };
}

function gapOf(a: Box, b: Box): number {
  const dx = Math.max(0, a.x0 - b.x1, b.x0 - a.x1);
  const dy = Math.max(0, a.y0 - b.y1, b.y0 - a.y1);
  return Math.hypot(dx, dy);
}

/** What of a board lies round a window, as rectangles: above, below, left and right of it. */
function round(w: Box, b: Box) {
  const between = (v: number, from: number, to: number) => Math.min(to, Math.max(from, v));
  const [x0, x1] = [between(w.x0, b.x0, b.x1), between(w.x1, b.x0, b.x1)];
  const [y0, y1] = [between(w.y0, b.y0, b.y1), between(w.y1, b.y0, b.y1)];
  return [
    { x_mm: b.x0, y_mm: b.y0, w_mm: b.x1 - b.x0, h_mm: y0 - b.y0 },
    { x_mm: b.x0, y_mm: y1, w_mm: b.x1 - b.x0, h_mm: b.y1 - y1 },
    { x_mm: b.x0, y_mm: y0, w_mm: x0 - b.x0, h_mm: y1 - y0 },
    { x_mm: x1, y_mm: y0, w_mm: b.x1 - x1, h_mm: y1 - y0 },
  ].filter((r) => r.w_mm > 0.01 && r.h_mm > 0.01);
}
