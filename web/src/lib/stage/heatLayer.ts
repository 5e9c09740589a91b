/**
 * The temperature field on the stage: filled bands on a perceptually even map, isotherms with labels at
 * the melting range. Fields come on the planning mesh and are brought to an even grid for contouring.
 */
import type { FieldFrames } from '@orthos/core/rework';
import { contours, interpolateLab, scaleLinear } from 'd3';
import { toScreen, type StageView } from './view';

const STEP_MM = 0.5;
const MAX_SIDE = 180;

export interface EvenField {
  nx: number;
  ny: number;
  x0: number;
  y0: number;
  step: number;
  values: Float64Array;
}

/** Frame index (with fraction) at time t. */
function frameAt(times: readonly number[], t: number): { a: number; b: number; u: number } {
  let b = times.findIndex((x) => x >= t);
  if (b < 0) b = times.length - 1;
  const a = Math.max(0, b - 1);
  const span = times[b] - times[a];
  return { a, b, u: span > 0 ? Math.min(1, Math.max(0, (t - times[a]) / span)) : 1 };
}

/** The field at time t on an even grid, bilinear between cell centres. */
export function evenField(f: FieldFrames, t: number): EvenField {
  const [nx, ny] = [f.x_mm.length - 1, f.y_mm.length - 1];
  const centres = (edges: number[]) => edges.slice(1).map((e, i) => (e + edges[i]) / 2);
  const [cx, cy] = [centres(f.x_mm), centres(f.y_mm)];
  const [x0, y0] = [f.x_mm[0], f.y_mm[0]];
  const [w, h] = [f.x_mm[nx] - x0, f.y_mm[ny] - y0];
  const step = Math.max(STEP_MM, Math.max(w, h) / MAX_SIDE);
  const [gx, gy] = [Math.max(2, Math.round(w / step)), Math.max(2, Math.round(h / step))];
  const { a, b, u } = frameAt(f.times_s, t);
  const size = nx * ny;
  const at = (i: number, j: number) => {
    const k = j * nx + i;
    return f.values[a * size + k] * (1 - u) + f.values[b * size + k] * u;
  };
  const weights = (c: number[], n: number, origin: number) => {
    let i = 0;
    return Array.from({ length: n }, (_, k) => {
      const x = origin + (k + 0.5) * step;
      while (i < c.length - 2 && c[i + 1] < x) i++;
      return { i, u: Math.min(1, Math.max(0, (x - c[i]) / (c[i + 1] - c[i]))) };
    });
  };
  const [wx, wy] = [weights(cx, gx, x0), weights(cy, gy, y0)];
  const values = new Float64Array(gx * gy);
  for (const [j, y] of wy.entries())
    for (const [i, x] of wx.entries())
      values[j * gx + i] =
        (at(x.i, y.i) * (1 - x.u) + at(x.i + 1, y.i) * x.u) * (1 - y.u) +
        (at(x.i, y.i + 1) * (1 - x.u) + at(x.i + 1, y.i + 1) * x.u) * y.u;
  return { nx: gx, ny: gy, x0, y0, step, values };
}

/** Temperature at a board point, °C; null outside the field. */
export function fieldAt(f: EvenField, x: number, y: number): number | null {
  const i = Math.floor((x - f.x0) / f.step);
  const j = Math.floor((y - f.y0) / f.step);
  return i < 0 || j < 0 || i >= f.nx || j >= f.ny ? null : f.values[j * f.nx + i];
}

const BANDS = [50, 75, 100, 125, 150, 175, 200, 225, 250, 275, 300];
const RAMP = {
  day: ['#efe3bd', '#f4b15a', '#d9542b', '#7a1f3d', '#2e1030'],
  scope: ['#2a1a38', '#5d2459', '#a63a55', '#e8733a', '#ffd27a'],
};

/** Lightness runs evenly from 40 to 300 °C in both themes. */
export function heatColour(scope: boolean): (celsius: number) => string {
  const stops = scope ? RAMP.scope : RAMP.day;
  return scaleLinear<string>()
    .domain(stops.map((_, i) => 40 + (260 * i) / (stops.length - 1)))
    .range(stops)
    .interpolate(interpolateLab)
    .clamp(true);
}

export interface Isotherm {
  celsius: number;
  label: string;
  dashed: boolean;
}

function tracePath(ctx: CanvasRenderingContext2D, rings: number[][][][], f: EvenField, v: StageView): void {
  ctx.beginPath();
  for (const polygon of rings)
    for (const ring of polygon) {
      for (const [k, [gx, gy]] of ring.entries()) {
        const [x, y] = toScreen(v, f.x0 + gx * f.step, f.y0 + gy * f.step);
        if (k === 0) ctx.moveTo(x, y);
        else ctx.lineTo(x, y);
      }
      ctx.closePath();
    }
}

/** Paints bands and isotherms; the canvas must be cleared. */
export function paintHeat(
  ctx: CanvasRenderingContext2D,
  f: EvenField,
  v: StageView,
  dpr: number,
  scope: boolean,
  ink: string,
  halo: string,
  isotherms: readonly Isotherm[],
): void {
  ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
  const colour = heatColour(scope);
  const values = Array.from(f.values);
  const contour = contours().size([f.nx, f.ny]);
  ctx.globalAlpha = scope ? 0.85 : 0.75;
  for (const band of contour.thresholds(BANDS)(values)) {
    if (band.coordinates.length === 0) continue;
    tracePath(ctx, band.coordinates, f, v);
    ctx.fillStyle = colour(band.value + 12);
    ctx.fill();
  }
  ctx.globalAlpha = 1;
  ctx.font = "600 12px 'Archivo Variable', sans-serif";
  ctx.textAlign = 'center';
  for (const [n, line] of contour
    .thresholds(isotherms.map((i) => i.celsius))(values)
    .entries()) {
    const ring = line.coordinates[0]?.[0];
    if (!ring) continue;
    tracePath(ctx, line.coordinates, f, v);
    ctx.setLineDash(isotherms[n].dashed ? [2, 4] : [6, 4]);
    ctx.strokeStyle = ink;
    ctx.lineWidth = isotherms[n].dashed ? 1.2 : 1.8;
    ctx.stroke();
    ctx.setLineDash([]);
    // label at the lowest point for one, the topmost for the next, so that they keep apart
    const pick = ring.reduce((best, p) => ((n % 2 ? p[1] < best[1] : p[1] > best[1]) ? p : best));
    const [x, y] = toScreen(v, f.x0 + pick[0] * f.step, f.y0 + pick[1] * f.step);
    ctx.lineWidth = 3;
    ctx.strokeStyle = halo;
    const ty = y + (n % 2 ? -5 : 14);
    ctx.strokeText(isotherms[n].label, x, ty);
    ctx.fillStyle = ink;
    ctx.fillText(isotherms[n].label, x, ty);
  }
}
