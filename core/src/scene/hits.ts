/** What lies under a point of the board. */
import Flatbush from 'flatbush';
import { type BoardModel, boxOnBoard, type PlacedPart, type Side, toLocal } from '../board/index.ts';
import { packageById, type Rect } from '../packages/index.ts';

/** Boxes round the parts of a board, lands and all: for a pointer on its way over ten thousand of them. */
const indexes = new WeakMap<BoardModel, Flatbush>();

function indexOf(board: BoardModel): Flatbush {
  const known = indexes.get(board);
  if (known) return known;
  const index = new Flatbush(board.parts.length);
  for (const part of board.parts) {
    const { body, terminals } = packageById(part.package);
    const rects = [{ x: 0, y: 0, w: body.l, h: body.w }, ...terminals.map((t) => t.land)];
    const boxes = rects.map((r) => boxOnBoard(part, r));
    index.add(
      Math.min(...boxes.map((b) => b.x0)),
      Math.min(...boxes.map((b) => b.y0)),
      Math.max(...boxes.map((b) => b.x1)),
      Math.max(...boxes.map((b) => b.y1)),
    );
  }
  index.finish();
  indexes.set(board, index);
  return index;
}

/** The part under a board point on `side`, mm, topmost (smallest body) first; null over bare board. Boards are never changed in place. */
export function partAt(board: BoardModel, side: Side, x: number, y: number, slack_mm = 0): PlacedPart | null {
  if (board.parts.length === 0) return null;
  let best: { part: PlacedPart; area: number } | null = null;
  // in the board's order, as the first of two alike is the one below the pointer
  const reach = Math.SQRT2 * slack_mm;
  const near = indexOf(board).search(x - reach, y - reach, x + reach, y + reach);
  for (const part of near.sort((a, b) => a - b).map((n) => board.parts[n])) {
    const { body, terminals: all } = packageById(part.package);
    const through = part.side !== side;
    const terminals = through ? all.filter((t) => t.drill_mm) : all;
    const [lx, ly] = toLocal(part, x, y);
    const covers = (r: Rect) => Math.abs(lx - r.x) <= r.w / 2 + slack_mm && Math.abs(ly - r.y) <= r.h / 2 + slack_mm;
    if ((through || !covers({ x: 0, y: 0, w: body.l, h: body.w })) && !terminals.some((t) => covers(t.land))) continue;
    const area = body.l * body.w;
    if (!best || area < best.area) best = { part, area };
  }
  return best?.part ?? null;
}

/** The terminal of a part under a board point, mm, or null. */
export function terminalAt(part: PlacedPart, x: number, y: number): string | null {
  const [lx, ly] = toLocal(part, x, y);
  const { terminals } = packageById(part.package);
  const hit = terminals.find(
    (t) => Math.abs(lx - t.land.x) <= t.land.w / 2 + 0.1 && Math.abs(ly - t.land.y) <= t.land.h / 2 + 0.1,
  );
  return hit?.id ?? null;
}
