/** Curves to chords, pieces to loops. All in mm, y down, rings as x0, y0, x1, y1, … */

/** Largest distance between a curve and its chords, mm. */
const CHORD_MM = 0.005;

const chords = (r: number, sweep: number) => {
  const step = r > CHORD_MM ? 2 * Math.acos(1 - CHORD_MM / r) : Math.PI / 3;
  return Math.min(720, Math.max(2, Math.ceil(Math.abs(sweep) / Math.max(step, 0.02))));
};

/** Points along an arc round (cx, cy) from angle `from` over `sweep` radians, both ends included. */
export function arcPoints(cx: number, cy: number, r: number, from: number, sweep: number): number[] {
  const n = chords(r, sweep);
  const points: number[] = [];
  for (let i = 0; i <= n; i++) {
    const a = from + (sweep * i) / n;
    points.push(cx + r * Math.cos(a), cy + r * Math.sin(a));
  }
  return points;
}

/** An arc given by start, a point on it, and end; a straight line when the three are in line. */
export function arcThrough(x0: number, y0: number, xm: number, ym: number, x1: number, y1: number): number[] {
  const d = 2 * (x0 * (ym - y1) + xm * (y1 - y0) + x1 * (y0 - ym));
  const full = Math.hypot(x0 - x1, y0 - y1) < 1e-9;
  if (full) {
    const [cx, cy] = [(x0 + xm) / 2, (y0 + ym) / 2];
    return arcPoints(cx, cy, Math.hypot(x0 - cx, y0 - cy), Math.atan2(y0 - cy, x0 - cx), 2 * Math.PI);
  }
  if (Math.abs(d) < 1e-12) return [x0, y0, x1, y1];
  const [a, b, c] = [x0 * x0 + y0 * y0, xm * xm + ym * ym, x1 * x1 + y1 * y1];
  const cx = (a * (ym - y1) + b * (y1 - y0) + c * (y0 - ym)) / d;
  const cy = (a * (x1 - xm) + b * (x0 - x1) + c * (xm - x0)) / d;
  const from = Math.atan2(y0 - cy, x0 - cx);
  const turn = (v: number) => ((v % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
  const toMiddle = turn(Math.atan2(ym - cy, xm - cx) - from);
  const toEnd = turn(Math.atan2(y1 - cy, x1 - cx) - from);
  const r = Math.hypot(x0 - cx, y0 - cy);
  const points = arcPoints(cx, cy, r, from, toMiddle <= toEnd ? toEnd : toEnd - 2 * Math.PI);
  points[0] = x0;
  points[1] = y0;
  points[points.length - 2] = x1;
  points[points.length - 1] = y1;
  return points;
}

/** A cubic Bézier curve as chords. */
export function bezierPoints(p: readonly number[]): number[] {
  const points: number[] = [];
  const n = 24;
  for (let i = 0; i <= n; i++) {
    const t = i / n;
    const u = 1 - t;
    const at = (k: number) => u ** 3 * p[k] + 3 * u * u * t * p[k + 2] + 3 * u * t * t * p[k + 4] + t ** 3 * p[k + 6];
    points.push(at(0), at(1));
  }
  return points;
}

/** Regular polygon or circle as a ring. */
export const discRing = (cx: number, cy: number, r: number) => arcPoints(cx, cy, r, 0, 2 * Math.PI).slice(0, -2);

/** Turns (x, y) by `deg` counter-clockwise as seen with y down, then shifts. */
export function turned(points: readonly number[], deg: number, dx: number, dy: number): number[] {
  const a = (deg * Math.PI) / 180;
  const [cos, sin] = [Math.cos(a), Math.sin(a)];
  const out: number[] = new Array<number>(points.length);
  for (let i = 0; i < points.length; i += 2) {
    out[i] = dx + points[i] * cos + points[i + 1] * sin;
    out[i + 1] = dy - points[i] * sin + points[i + 1] * cos;
  }
  return out;
}

/** Ends closer than this belong together, mm. */
const JOIN_MM = 0.02;

/**
 * Chains open pieces into closed loops; pieces that close on themselves stay. Returns the loops and how many
 * pieces found no partner. Ends are looked up on a grid, so that thousands of pieces take no time.
 */
export function chainLoops(pieces: readonly (readonly number[])[]): { loops: number[][]; open: number } {
  const loops: number[][] = [];
  const left = new Set<number>();
  const ends = new Map<string, number[]>();
  const key = (x: number, y: number) => `${Math.round(x / JOIN_MM)},${Math.round(y / JOIN_MM)}`;
  for (const [n, p] of pieces.entries()) {
    if (p.length < 4) continue;
    if (p.length >= 6 && Math.hypot(p[0] - p[p.length - 2], p[1] - p[p.length - 1]) < JOIN_MM) {
      loops.push(p.slice(0, -2));
      continue;
    }
    left.add(n);
    for (const k of [key(p[0], p[1]), key(p[p.length - 2], p[p.length - 1])]) ends.set(k, [...(ends.get(k) ?? []), n]);
  }
  const near = (x: number, y: number): number | undefined => {
    let best: number | undefined;
    let distance = JOIN_MM;
    for (let i = -1; i <= 1; i++)
      for (let j = -1; j <= 1; j++)
        for (const n of ends.get(key(x + i * JOIN_MM, y + j * JOIN_MM)) ?? []) {
          if (!left.has(n)) continue;
          const p = pieces[n];
          const d = Math.min(Math.hypot(p[0] - x, p[1] - y), Math.hypot(p[p.length - 2] - x, p[p.length - 1] - y));
          if (d <= distance) [best, distance] = [n, d];
        }
    return best;
  };
  let open = 0;
  for (const start of left) {
    left.delete(start);
    const loop = [...pieces[start]];
    let used = 1;
    for (;;) {
      const [x, y] = [loop[loop.length - 2], loop[loop.length - 1]];
      if (used > 1 && Math.hypot(loop[0] - x, loop[1] - y) < JOIN_MM) break;
      const next = near(x, y);
      if (next === undefined) break;
      left.delete(next);
      used++;
      const p = pieces[next];
      const forward = Math.hypot(p[0] - x, p[1] - y) <= Math.hypot(p[p.length - 2] - x, p[p.length - 1] - y);
      if (forward) for (let i = 2; i < p.length; i++) loop.push(p[i]);
      else for (let i = p.length - 4; i >= 0; i -= 2) loop.push(p[i], p[i + 1]);
    }
    const closed = Math.hypot(loop[0] - loop[loop.length - 2], loop[1] - loop[loop.length - 1]) < JOIN_MM;
    if (closed && loop.length >= 8) loops.push(loop.slice(0, -2));
    else open += used;
  }
  return { loops, open };
}

/** Whether a point lies inside a ring (even-odd). */
export function insideRing(ring: readonly number[], x: number, y: number): boolean {
  let inside = false;
  const n = ring.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2)
    if (
      ring[i + 1] > y !== ring[j + 1] > y &&
      x < ((ring[j] - ring[i]) * (y - ring[i + 1])) / (ring[j + 1] - ring[i + 1]) + ring[i]
    )
      inside = !inside;
  return inside;
}
