/** The order of points that moves the probe least: nearest next, then uncrossed (2-opt). */

interface Point {
  x_mm: number;
  y_mm: number;
  side: 'top' | 'bottom';
}

/** Turning the board over costs as much as this way, mm. */
const TURN_MM = 150;

const way = (a: Point, b: Point): number =>
  Math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm) + (a.side === b.side ? 0 : TURN_MM);

/** Indices of `points` in the order of a short walk that begins near `from` (or at the first). */
export function probeWalk(points: readonly Point[], from?: Point): number[] {
  if (points.length === 0) return [];
  const left = new Set(points.keys());
  const order: number[] = [];
  let at = from ?? points[0];
  while (left.size) {
    let best = -1;
    for (const i of left) if (best < 0 || way(at, points[i]) < way(at, points[best])) best = i;
    left.delete(best);
    order.push(best);
    at = points[best];
  }
  const length = (a: number | undefined, b: number | undefined) =>
    a === undefined || b === undefined ? 0 : way(points[a], points[b]);
  for (let round = 0, better = true; better && round < 20; round++) {
    better = false;
    for (let i = 1; i < order.length - 1; i++)
      for (let k = i + 1; k < order.length; k++) {
        const before = length(order[i - 1], order[i]) + length(order[k], order[k + 1]);
        const after = length(order[i - 1], order[k]) + length(order[i], order[k + 1]);
        if (after < before - 1e-9) {
          order.splice(i, k - i + 1, ...order.slice(i, k + 1).reverse());
          better = true;
        }
      }
  }
  return order;
}
