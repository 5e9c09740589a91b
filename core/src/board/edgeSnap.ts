/**
 * Slides a placed part onto the edges of the photo below it: the place where brightness changes most across its
 * outline and lands, searched near where it was put, coarse to fine. An aid; what the hand did before it stays
 * when nothing clear is found.
 */
import { packageById, type Rect } from '../packages/index.ts';
import type { PlacedPart } from './boardModel.ts';
import { applyHomography, type Homography } from './photoFrame.ts';
import { toBoard } from './placement.ts';

/** Brightness gradient of a photo, per pixel: Sobel, x and y, row-major ny × nx. */
export interface EdgeMap {
  nx: number;
  ny: number;
  gx: Float32Array;
  gy: Float32Array;
}

/** From RGBA bytes. Smoothed once (1 2 1) so that noise and texture weigh less than outlines. */
export function edgeMap(rgba: Uint8ClampedArray | Uint8Array, nx: number, ny: number): EdgeMap {
  const grey = new Float32Array(nx * ny);
  for (let i = 0; i < nx * ny; i++) grey[i] = 0.299 * rgba[4 * i] + 0.587 * rgba[4 * i + 1] + 0.114 * rgba[4 * i + 2];
  const gx = new Float32Array(nx * ny);
  const gy = new Float32Array(nx * ny);
  for (let y = 1; y < ny - 1; y++)
    for (let x = 1; x < nx - 1; x++) {
      const k = y * nx + x;
      const [a, b, c] = [grey[k - nx - 1], grey[k - nx], grey[k - nx + 1]];
      const [d, f] = [grey[k - 1], grey[k + 1]];
      const [g, h, i] = [grey[k + nx - 1], grey[k + nx], grey[k + nx + 1]];
      gx[k] = (c + 2 * f + i - a - 2 * d - g) / 8;
      gy[k] = (g + 2 * h + i - a - 2 * b - c) / 8;
    }
  return { nx, ny, gx, gy };
}

interface Sample {
  x: number;
  y: number;
  /** Direction across the edge. */
  nx: number;
  ny: number;
  weight: number;
}

/** Points along the outlines of body and lands in the part's frame. */
function samplesOf(part: PlacedPart): Sample[] {
  const pkg = packageById(part.package);
  const samples: Sample[] = [];
  const along = (r: Rect, weight: number) => {
    const per = (length: number) => Math.max(3, Math.min(24, Math.round(length / 0.25)));
    const [nw, nh] = [per(r.w), per(r.h)];
    for (let i = 0; i < nw; i++) {
      const x = r.x + ((i + 0.5) / nw - 0.5) * r.w;
      samples.push({ x, y: r.y - r.h / 2, nx: 0, ny: 1, weight: (weight * r.w) / nw });
      samples.push({ x, y: r.y + r.h / 2, nx: 0, ny: 1, weight: (weight * r.w) / nw });
    }
    for (let i = 0; i < nh; i++) {
      const y = r.y + ((i + 0.5) / nh - 0.5) * r.h;
      samples.push({ x: r.x - r.w / 2, y, nx: 1, ny: 0, weight: (weight * r.h) / nh });
      samples.push({ x: r.x + r.w / 2, y, nx: 1, ny: 0, weight: (weight * r.h) / nh });
    }
  };
  along({ x: 0, y: 0, w: pkg.body.l, h: pkg.body.w }, 1);
  if (pkg.terminals.length <= 64)
    for (const t of pkg.terminals) {
      if (t.kind === 'pad' || t.kind === 'ball') continue;
      // both: the land's outer end is what is seen best of a small chip, and keeps it from sliding along its length
      along(t.land, 0.5);
      if (t.lead) along(t.lead, 0.4);
    }
  return samples;
}

/** Mean gradient across the outline, 0 … 255. */
function score(edges: EdgeMap, toPixel: Homography, part: PlacedPart, samples: readonly Sample[]): number {
  let sum = 0;
  let weights = 0;
  for (const s of samples) {
    const [bx, by] = toBoard(part, s.x, s.y);
    const [cx, cy] = toBoard(part, s.x + s.nx * 0.05, s.y + s.ny * 0.05);
    const [u, v] = applyHomography(toPixel, bx, by);
    const [p, q] = applyHomography(toPixel, cx, cy);
    const [i, j] = [Math.round(u), Math.round(v)];
    weights += s.weight;
    if (i < 1 || j < 1 || i >= edges.nx - 1 || j >= edges.ny - 1) continue;
    const length = Math.hypot(p - u, q - v) || 1;
    const k = j * edges.nx + i;
    sum += s.weight * Math.abs((edges.gx[k] * (p - u) + edges.gy[k] * (q - v)) / length);
  }
  return weights > 0 ? sum / weights : 0;
}

/** A small part is put down better than its own width; further off stands the next one, mm. */
function reachOf(part: PlacedPart): number {
  const { l, w } = packageById(part.package).body;
  return Math.min(0.9, 0.25 + 0.35 * Math.min(l, w));
}

export interface Snap {
  x_mm: number;
  y_mm: number;
  rotation_deg: number;
  /** How much clearer the edges are than where it was put, and than the average round about. */
  gain: number;
}

/** Clearer than the surroundings by this factor, or the part stays where it was put. */
const LEAST_CONTRAST = 1.35;

/**
 * The best place within `reach_mm` and `turn_deg` of where the part stands; null when the photo shows no clear
 * edges there. `toPixel` maps board mm to pixels of the edge map.
 */
export function snapToEdges(
  edges: EdgeMap,
  toPixel: Homography,
  part: PlacedPart,
  reach_mm = reachOf(part),
  turn_deg = 4,
): Snap | null {
  const samples = samplesOf(part);
  const at = (x_mm: number, y_mm: number, rotation_deg: number) => ({ ...part, x_mm, y_mm, rotation_deg });
  let best = { x: part.x_mm, y: part.y_mm, a: part.rotation_deg, s: score(edges, toPixel, part, samples) };
  const started = best.s;
  const nearness = (x: number, y: number) => 1 - 0.18 * Math.hypot(x - part.x_mm, y - part.y_mm);
  let [total, tried] = [0, 0];
  for (const [step, reach, turn] of [
    [0.15, reach_mm, turn_deg],
    [0.05, 0.15, turn_deg / 3],
    [0.02, 0.06, 0.5],
  ]) {
    const centre = best;
    const n = Math.round(reach / step);
    for (let i = -n; i <= n; i++)
      for (let j = -n; j <= n; j++)
        for (const a of [-turn, 0, turn]) {
          const [x, y] = [centre.x + i * step, centre.y + j * step];
          const s = score(edges, toPixel, at(x, y, centre.a + a), samples);
          if (step === 0.15) [total, tried] = [total + s, tried + 1];
          // what is nearly as good and nearer to the hand's place wins
          if (s * nearness(x, y) > best.s * nearness(best.x, best.y)) best = { x, y, a: centre.a + a, s };
        }
  }
  const mean = total / Math.max(1, tried);
  if (best.s < 2 || best.s < mean * LEAST_CONTRAST) return null;
  const round = (v: number) => Math.round(v * 1e3) / 1e3;
  return {
    x_mm: round(best.x),
    y_mm: round(best.y),
    rotation_deg: round(best.a),
    gain: best.s / Math.max(0.1, started),
  };
}
