/**
 * Copper as a bitmap: a point of every pixel decides. Strokes and discs row by row from their closed form,
 * areas by the scanline rule; overlapping copper counts once.
 */
import type { CopperShape } from './drawing.ts';

export interface Bitmap {
  /** 1 where there is copper; row-major, ny × nx. */
  data: Uint8Array;
  nx: number;
  ny: number;
  /** Board position of the corner, and pixel size, mm. */
  x0: number;
  y0: number;
  pixel_mm: number;
}

export function emptyBitmap(box: { x0: number; y0: number; x1: number; y1: number }, pixel_mm: number): Bitmap {
  const nx = Math.max(1, Math.ceil((box.x1 - box.x0) / pixel_mm));
  const ny = Math.max(1, Math.ceil((box.y1 - box.y0) / pixel_mm));
  return { data: new Uint8Array(nx * ny), nx, ny, x0: box.x0, y0: box.y0, pixel_mm };
}

/** Sets the pixels of row `j` whose centres lie in [from, to] (board x, mm). */
function span(b: Bitmap, j: number, from: number, to: number, value: number): void {
  const i0 = Math.max(0, Math.ceil((from - b.x0) / b.pixel_mm - 0.5));
  const i1 = Math.min(b.nx - 1, Math.floor((to - b.x0) / b.pixel_mm - 0.5));
  if (i1 >= i0) b.data.fill(value, j * b.nx + i0, j * b.nx + i1 + 1);
}

/** First and last row whose centres lie in [from, to] (board y, mm). */
function rows(b: Bitmap, from: number, to: number): [number, number] {
  return [
    Math.max(0, Math.ceil((from - b.y0) / b.pixel_mm - 0.5)),
    Math.min(b.ny - 1, Math.floor((to - b.y0) / b.pixel_mm - 0.5)),
  ];
}

const rowY = (b: Bitmap, j: number) => b.y0 + (j + 0.5) * b.pixel_mm;

function fillDisc(b: Bitmap, x: number, y: number, r: number, value: number): void {
  const [j0, j1] = rows(b, y - r, y + r);
  for (let j = j0; j <= j1; j++) {
    const half = Math.sqrt(Math.max(0, r * r - (rowY(b, j) - y) ** 2));
    span(b, j, x - half, x + half, value);
  }
}

/** The straight part of a stroke: a rectangle along the segment; the ends are discs. */
function fillSegment(b: Bitmap, x0: number, y0: number, x1: number, y1: number, r: number, value: number): void {
  const length = Math.hypot(x1 - x0, y1 - y0);
  if (length === 0) return;
  const [nx, ny] = [(-(y1 - y0) / length) * r, ((x1 - x0) / length) * r];
  const quad = [x0 + nx, y0 + ny, x1 + nx, y1 + ny, x1 - nx, y1 - ny, x0 - nx, y0 - ny];
  const [j0, j1] = rows(b, Math.min(y0, y1) - Math.abs(ny), Math.max(y0, y1) + Math.abs(ny));
  // convex: one span per row, between the two edges that the row crosses
  for (let j = j0; j <= j1; j++) {
    const y = rowY(b, j);
    let [from, to] = [Infinity, -Infinity];
    for (let e = 0; e < 8; e += 2) {
      const [xa, ya, xb, yb] = [quad[e], quad[e + 1], quad[(e + 2) % 8], quad[(e + 3) % 8]];
      if (ya > y === yb > y) continue;
      const x = xa + ((y - ya) * (xb - xa)) / (yb - ya);
      if (x < from) from = x;
      if (x > to) to = x;
    }
    if (to > from) span(b, j, from, to, value);
  }
}

/** Even-odd fill of closed rings x0, y0, x1, y1, … */
export function fillRings(b: Bitmap, rings: readonly (readonly number[])[], value: number): void {
  const most = rings.reduce((n, ring) => n + ring.length / 2, 0);
  // edges as columns: upper and lower y, x at the upper end, slope
  const upper = new Float64Array(most);
  const lower = new Float64Array(most);
  const atUpper = new Float64Array(most);
  const slope = new Float64Array(most);
  let count = 0;
  let [top, bottom] = [Infinity, -Infinity];
  for (const ring of rings) {
    const n = ring.length;
    for (let i = 0; i < n; i += 2) {
      const k = i + 2 < n ? i + 2 : 0;
      const [ya, yb] = [ring[i + 1], ring[k + 1]];
      if (ya < top) top = ya;
      if (ya > bottom) bottom = ya;
      if (ya === yb) continue;
      const first = ya < yb;
      upper[count] = first ? ya : yb;
      lower[count] = first ? yb : ya;
      atUpper[count] = first ? ring[i] : ring[k];
      slope[count] = (ring[k] - ring[i]) / (yb - ya);
      count++;
    }
  }
  const order = Array.from({ length: count }, (_, i) => i).sort((p, q) => upper[p] - upper[q]);
  const active = new Int32Array(count);
  const crossings = new Float64Array(count);
  const [j0, j1] = rows(b, top, bottom);
  let next = 0;
  let alive = 0;
  for (let j = j0; j <= j1; j++) {
    const y = rowY(b, j);
    while (next < count && upper[order[next]] <= y) active[alive++] = order[next++];
    let kept = 0;
    for (let i = 0; i < alive; i++) {
      const e = active[i];
      if (lower[e] <= y) continue;
      // edges keep their order from row to row but for crossings: insertion is next to nothing
      const x = atUpper[e] + (y - upper[e]) * slope[e];
      let at = kept++;
      while (at > 0 && crossings[at - 1] > x) {
        crossings[at] = crossings[at - 1];
        active[at] = active[at - 1];
        at--;
      }
      crossings[at] = x;
      active[at] = e;
    }
    alive = kept;
    for (let i = 0; i + 1 < kept; i += 2) span(b, j, crossings[i], crossings[i + 1], value);
  }
}

/** Lays the shapes down in their order. */
export function paintCopper(b: Bitmap, shapes: readonly CopperShape[]): void {
  for (const s of shapes) {
    const value = s.e ? 0 : 1;
    if (s.k === 'disc') fillDisc(b, s.x, s.y, s.d / 2, value);
    else if (s.k === 'area') fillRings(b, s.r, value);
    else {
      for (let i = 0; i < s.p.length; i += 2) {
        fillDisc(b, s.p[i], s.p[i + 1], s.w / 2, value);
        if (i > 0) fillSegment(b, s.p[i - 2], s.p[i - 1], s.p[i], s.p[i + 1], s.w / 2, value);
      }
    }
  }
}
