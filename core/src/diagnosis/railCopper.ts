/** The copper of one rail for a millivolt profile: as it is drawn, else guessed from its pads. */
import type { CopperDrawing } from '../copper/index.ts';
import type { LocateInput } from './locate.ts';

type Copper = Pick<LocateInput['copper'], 'areas' | 'tracks'>;

/** Height of the strips that areas are cut into, mm. */
const STRIP_MM = 0.4;
const MOST_STRIPS = 2000;

/** Copper of `net` on one layer of a drawing; null when it has none there. Areas become level strips. */
export function copperOfNet(drawing: CopperDrawing, layer: number, net: string): Copper | null {
  const n = drawing.nets.indexOf(net);
  const shapes = drawing.layers[layer]?.shapes.filter((s) => s.n === n && !s.e) ?? [];
  if (n < 0 || shapes.length === 0) return null;
  const copper: Copper = { areas: [], tracks: [] };
  for (const s of shapes) {
    if (s.k === 'line')
      for (let i = 0; i + 3 < s.p.length; i += 2)
        copper.tracks.push({ x0_mm: s.p[i], y0_mm: s.p[i + 1], x1_mm: s.p[i + 2], y1_mm: s.p[i + 3], w_mm: s.w });
    else if (s.k === 'disc') copper.areas.push({ x_mm: s.x - s.d / 2, y_mm: s.y - s.d / 2, w_mm: s.d, h_mm: s.d });
    else copper.areas.push(...strips(s.r));
  }
  copper.tracks = copper.tracks.filter((t) => t.w_mm > 0);
  copper.areas = copper.areas.filter((a) => a.w_mm > 0 && a.h_mm > 0).slice(0, MOST_STRIPS);
  return copper.tracks.length + copper.areas.length > 0 ? copper : null;
}

/** Level strips that fill closed rings, even-odd. */
function strips(rings: readonly (readonly number[])[]): Copper['areas'] {
  const ys = rings.flatMap((r) => r.filter((_, i) => i % 2 === 1));
  const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
  const h = Math.max(STRIP_MM, (bottom - top) / MOST_STRIPS);
  const areas: Copper['areas'] = [];
  for (let y = top; y < bottom; y += h) {
    const at = Math.min(y + h / 2, (y + bottom) / 2);
    const crossings: number[] = [];
    for (const r of rings)
      for (let i = 0; i < r.length; i += 2) {
        const [x0, y0] = [r[i], r[i + 1]];
        const [x1, y1] = [r[(i + 2) % r.length], r[(i + 3) % r.length]];
        if (y0 > at !== y1 > at) crossings.push(x0 + ((at - y0) / (y1 - y0)) * (x1 - x0));
      }
    crossings.sort((a, b) => a - b);
    for (let i = 0; i + 1 < crossings.length; i += 2)
      areas.push({ x_mm: crossings[i], y_mm: y, w_mm: crossings[i + 1] - crossings[i], h_mm: Math.min(h, bottom - y) });
  }
  return areas;
}

/** Tracks of one width along the shortest tree between pads: a guess where no copper is drawn. */
export function copperBetween(pads: readonly { x_mm: number; y_mm: number }[], w_mm: number): Copper {
  const tracks: Copper['tracks'] = [];
  const left = [...pads];
  const joined = left.splice(0, 1);
  while (left.length > 0) {
    let best = { from: joined[0], to: 0, d: Infinity };
    for (const from of joined)
      for (const [to, p] of left.entries()) {
        const d = Math.hypot(p.x_mm - from.x_mm, p.y_mm - from.y_mm);
        if (d < best.d) best = { from, to, d };
      }
    const [to] = left.splice(best.to, 1);
    tracks.push({ x0_mm: best.from.x_mm, y0_mm: best.from.y_mm, x1_mm: to.x_mm, y1_mm: to.y_mm, w_mm });
    joined.push(to);
  }
  return { areas: [], tracks };
}
