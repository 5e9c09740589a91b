/** How the frame of a table lies on a board: a shift, found from references that both know, else from corners. */
import { boardBounds, type BoardModel } from '@orthos/core/board';

export interface Frame {
  toBoard: (x: number, y: number) => [number, number];
  /** How it was found, for the preview. */
  from: string;
  /** Root mean square distance of the shared references, mm; null when corners were used. */
  off_mm: number | null;
}

interface Point {
  ref: string;
  x: number;
  y: number;
}

/** Whether a board point lies on the board or at most `slack_mm` outside its box. */
export function boardBoundsOf(board: BoardModel, slack_mm: number): (x: number, y: number) => boolean {
  const b = boardBounds(board);
  return (x, y) => x > b.x0 - slack_mm && x < b.x1 + slack_mm && y > b.y0 - slack_mm && y < b.y1 + slack_mm;
}

/** Share of points that have to lie on the board for its corner to be believed. */
const MOSTLY = 0.6;

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/**
 * Two shared references or more: the median shift between them. Otherwise the list is taken to start at the
 * board's lower left corner when its points then lie on the board, else their box is laid on the board's middle.
 */
export function frameFor(board: BoardModel, points: readonly Point[]): Frame {
  const own = new Map(board.parts.filter((p) => p.ref).map((p) => [p.ref, p]));
  const pairs = points.flatMap((p) => {
    const part = own.get(p.ref);
    return part ? [{ dx: part.x_mm - p.x, dy: part.y_mm - p.y }] : [];
  });
  const shift =
    (dx: number, dy: number) =>
    (x: number, y: number): [number, number] => [x + dx, y + dy];
  if (pairs.length >= 2) {
    const [dx, dy] = [median(pairs.map((p) => p.dx)), median(pairs.map((p) => p.dy))];
    const off_mm = Math.sqrt(pairs.reduce((s, p) => s + (p.dx - dx) ** 2 + (p.dy - dy) ** 2, 0) / pairs.length);
    return { toBoard: shift(dx, dy), from: `${pairs.length} references that both have`, off_mm };
  }
  const b = boardBounds(board);
  const inside = boardBoundsOf(board, 1);
  const corner = shift(b.x0, b.y1);
  // a stray row or two (a fiducial on the panel's rim) must not move all the others
  const fitting = points.filter((p) => inside(...corner(p.x, p.y))).length;
  if (fitting >= points.length * MOSTLY) return { toBoard: corner, from: 'the lower left corner', off_mm: null };
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const box = { x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) };
  return {
    toBoard: shift((b.x0 + b.x1 - box.x0 - box.x1) / 2, (b.y0 + b.y1 - box.y0 - box.y1) / 2),
    from: 'the middle of all points on the middle of the board',
    off_mm: null,
  };
}
