/**
 * Where a photo's pixels lie on the board: a plane seen by a camera is a homography (Hartley & Zisserman,
 * Multiple View Geometry, ch. 4). Fitted from pairs of a pixel and a board point.
 */

/** Row-major 3 × 3. */
export type Homography = readonly number[];

export interface PointPair {
  /** In the photo, pixels from its upper left corner. */
  px: readonly [number, number];
  /** On the board, mm. */
  mm: readonly [number, number];
}

export interface PhotoFit {
  toBoard: Homography;
  /** One pixel at the middle of the pairs, mm, and how well that is known when every click is a pixel and a half off. */
  pixel_mm: number;
  pixelPlusMinus_mm: number;
  /** Root mean square distance of the pairs, mm; null when nothing is left over to compare. */
  off_mm: number | null;
  /** The photo shows the board from behind. */
  mirrored: boolean;
}

/** How far off a click usually is, pixels. */
const CLICK_PX = 1.5;

/** Where a pixel lies, or the other way round with the inverse. */
export function applyHomography(h: Homography, x: number, y: number): [number, number] {
  const w = h[6] * x + h[7] * y + h[8];
  return [(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w];
}

export function invertHomography(h: Homography): Homography {
  const [a, b, c, d, e, f, g, i, j] = h;
  const inverse = [
    e * j - f * i,
    c * i - b * j,
    b * f - c * e,
    f * g - d * j,
    a * j - c * g,
    c * d - a * f,
    d * i - e * g,
    b * g - a * i,
    a * e - b * d,
  ];
  const scale = inverse[8] || 1;
  return inverse.map((v) => v / scale);
}

export function multiplyHomographies(a: Homography, b: Homography): Homography {
  return Array.from({ length: 9 }, (_, n) => {
    const [r, c] = [Math.floor(n / 3) * 3, n % 3];
    return a[r] * b[c] + a[r + 1] * b[c + 3] + a[r + 2] * b[c + 6];
  });
}

/** Length on the board of one pixel at a place of the photo: root of the area one pixel covers. */
function pixelSize(h: Homography, x: number, y: number): number {
  const [x0, y0] = applyHomography(h, x, y);
  const [x1, y1] = applyHomography(h, x + 1, y);
  const [x2, y2] = applyHomography(h, x, y + 1);
  return Math.sqrt(Math.abs((x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)));
}

/** Moves points to mean 0 and mean distance √2, which keeps the equations well conditioned. */
function normalising(points: readonly (readonly [number, number])[]): Homography {
  const n = points.length;
  const cx = points.reduce((s, p) => s + p[0], 0) / n;
  const cy = points.reduce((s, p) => s + p[1], 0) / n;
  const spread = points.reduce((s, p) => s + Math.hypot(p[0] - cx, p[1] - cy), 0) / n || 1;
  const f = Math.SQRT2 / spread;
  return [f, 0, -f * cx, 0, f, -f * cy, 0, 0, 1];
}

/** Least squares by normal equations, small and dense; null when they do not decide. */
function leastSquares(rows: readonly number[][], right: readonly number[]): number[] | null {
  const n = rows[0].length;
  const m = Array.from({ length: n }, (_, i) => [
    ...Array.from({ length: n }, (_, j) => rows.reduce((s, r) => s + r[i] * r[j], 0)),
    rows.reduce((s, r, k) => s + r[i] * right[k], 0),
  ]);
  for (let c = 0; c < n; c++) {
    const pivot = m.slice(c).reduce((best, row, i) => (Math.abs(row[c]) > Math.abs(m[best][c]) ? c + i : best), c);
    if (Math.abs(m[pivot][c]) < 1e-9) return null;
    [m[c], m[pivot]] = [m[pivot], m[c]];
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const f = m[r][c] / m[c][c];
      for (let k = c; k <= n; k++) m[r][k] -= f * m[c][k];
    }
  }
  return m.map((row, i) => row[n] / row[i]);
}

/** Two pairs: turn, scale and shift (`mirrored` tells the side); three: any parallel picture; four or more: perspective. */
function solve(pairs: readonly PointPair[], mirrored: boolean): Homography | null {
  const rows: number[][] = [];
  const right: number[] = [];
  const s = mirrored ? -1 : 1;
  for (const { px, mm } of pairs) {
    const [u, v] = px;
    const [x, y] = mm;
    if (pairs.length === 2) {
      rows.push([s * u, -v, 1, 0], [v, s * u, 0, 1]);
      right.push(x, y);
    } else if (pairs.length === 3) {
      rows.push([u, v, 1, 0, 0, 0], [0, 0, 0, u, v, 1]);
      right.push(x, y);
    } else {
      rows.push([u, v, 1, 0, 0, 0, -u * x, -v * x], [0, 0, 0, u, v, 1, -u * y, -v * y]);
      right.push(x, y);
    }
  }
  const p = leastSquares(rows, right);
  if (!p) return null;
  if (pairs.length === 2) return [s * p[0], -p[1], p[2], s * p[1], p[0], p[3], 0, 0, 1];
  return pairs.length === 3 ? [...p, 0, 0, 1] : [...p, 1];
}

/**
 * Fits a photo to pairs of pixel and board point. Null when the pairs do not decide: fewer than two, or all of
 * them (nearly) in one place or, from three on, in one line.
 */
export function fitPhoto(pairs: readonly PointPair[], side: 'top' | 'bottom'): PhotoFit | null {
  if (pairs.length < 2) return null;
  const a = normalising(pairs.map((p) => p.px));
  const b = normalising(pairs.map((p) => p.mm));
  const scaled = pairs.map((p) => ({ px: applyHomography(a, ...p.px), mm: applyHomography(b, ...p.mm) }));
  const inner = solve(scaled, side === 'bottom');
  if (!inner) return null;
  const h = multiplyHomographies(multiplyHomographies(invertHomography(b), inner), a);
  const toBoard = h.map((v) => v / h[8]);
  if (!toBoard.every(Number.isFinite)) return null;
  const residuals = pairs.map((p) => {
    const [x, y] = applyHomography(toBoard, ...p.px);
    return Math.hypot(x - p.mm[0], y - p.mm[1]);
  });
  const [u, v] = [0, 1].map((k) => pairs.reduce((sum, p) => sum + p.px[k], 0) / pairs.length);
  const pixel_mm = pixelSize(toBoard, u, v);
  if (!(pixel_mm > 0) || !Number.isFinite(pixel_mm)) return null;
  // a click error at both ends of the longest distance that was clicked
  let longest = 0;
  for (const p of pairs)
    for (const q of pairs) longest = Math.max(longest, Math.hypot(p.px[0] - q.px[0], p.px[1] - q.px[1]));
  const over = 2 * pairs.length - (pairs.length === 2 ? 4 : pairs.length === 3 ? 6 : 8);
  const [x0, y0] = applyHomography(toBoard, u, v);
  const [x1, y1] = applyHomography(toBoard, u + 1, v);
  const [x2, y2] = applyHomography(toBoard, u, v + 1);
  return {
    toBoard,
    pixel_mm,
    pixelPlusMinus_mm: (pixel_mm * CLICK_PX * Math.SQRT2) / longest,
    off_mm: over > 0 ? Math.sqrt(residuals.reduce((sum, r) => sum + r * r, 0) / pairs.length) : null,
    mirrored: (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0) < 0,
  };
}

/** Lays a photo that is not placed yet over a box of the board, whole and straight. */
export function provisionalFrame(
  w_px: number,
  h_px: number,
  box: { x0: number; y0: number; x1: number; y1: number },
  side: 'top' | 'bottom',
): Homography {
  const scale = Math.max((box.x1 - box.x0) / w_px, (box.y1 - box.y0) / h_px);
  const [cx, cy] = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2];
  const s = side === 'bottom' ? -scale : scale;
  return [s, 0, cx - (s * w_px) / 2, 0, scale, cy - (scale * h_px) / 2, 0, 0, 1];
}
