/** The copper of one pad of an S-expression board, in the board's frame. */
import type { CopperShape } from '@orthos/core/copper';
import { arcPoints, arcThrough, discRing, turned } from '../geometry.ts';
import type { SList } from './scan.ts';

export interface PadPlace {
  x: number;
  y: number;
  angle_deg: number;
  net: number;
}

/** Corner of a rounded rectangle: which way from the middle, and where its quarter circle begins. */
const CORNERS = [
  { name: 'top_right', sx: 1, sy: -1, from: -Math.PI / 2 },
  { name: 'bottom_right', sx: 1, sy: 1, from: 0 },
  { name: 'bottom_left', sx: -1, sy: 1, from: Math.PI / 2 },
  { name: 'top_left', sx: -1, sy: -1, from: Math.PI },
] as const;

function roundedRing(w: number, h: number, r: number, cut: number, cutCorners: ReadonlySet<string>): number[] {
  const ring: number[] = [];
  for (const c of CORNERS) {
    const [x, y] = [(c.sx * w) / 2, (c.sy * h) / 2];
    if (cut > 0 && cutCorners.has(c.name)) {
      // clockwise on the screen: a corner is entered along x above and below, along y at the sides
      const [a, b] = [
        [x - c.sx * cut, y],
        [x, y - c.sy * cut],
      ];
      ring.push(...(c.sx * c.sy < 0 ? [...a, ...b] : [...b, ...a]));
    } else if (r > 0) ring.push(...arcPoints(x - c.sx * r, y - c.sy * r, r, c.from, Math.PI / 2));
    else ring.push(x, y);
  }
  return ring;
}

/** A stroke along `points` in the pad's frame. */
const stroke = (at: PadPlace, points: readonly number[], w: number, dx: number, dy: number): CopperShape => ({
  k: 'line',
  n: at.net,
  w,
  p: place(points, at, dx, dy),
});

/** From the pad's frame (offset first) to the board. */
function place(points: readonly number[], at: PadPlace, dx: number, dy: number): number[] {
  const moved = points.map((v, i) => v + (i % 2 ? dy : dx));
  return turned(moved, at.angle_deg, at.x, at.y);
}

/** Primitives of a custom pad; each with its own width, filled or not. */
function primitives(list: SList, at: PadPlace, dx: number, dy: number): CopperShape[] {
  const shapes: CopperShape[] = [];
  const xy = (s: SList | undefined, from = 1): [number, number] => (s ? [s.number(from), s.number(from + 1)] : [0, 0]);
  for (const item of list.items) {
    if (typeof item === 'string') continue;
    const width = item.get('width')?.number(1) ?? item.get('stroke')?.get('width')?.number(1) ?? 0;
    const fill = item.get('fill')?.atom(1);
    const filled = fill === undefined ? width === 0 || item.name === 'gr_poly' : fill !== 'none' && fill !== 'no';
    const ring = (points: number[]) => {
      if (filled) shapes.push({ k: 'area', n: at.net, r: [place(points, at, dx, dy)] });
      if (width > 0) shapes.push(stroke(at, [...points, points[0], points[1]], width, dx, dy));
    };
    if (item.name === 'gr_poly') ring(pointList(item));
    else if (item.name === 'gr_circle') {
      const [cx, cy] = xy(item.get('center'));
      const [ex, ey] = xy(item.get('end'));
      ring(discRing(cx, cy, Math.hypot(ex - cx, ey - cy)));
    } else if (item.name === 'gr_rect') {
      const [x0, y0] = xy(item.get('start'));
      const [x1, y1] = xy(item.get('end'));
      ring([x0, y0, x1, y0, x1, y1, x0, y1]);
    } else if (item.name === 'gr_line' || item.name === 'gr_arc')
      shapes.push(stroke(at, curvePoints(item), Math.max(width, 0.01), dx, dy));
  }
  return shapes;
}

/** `(pts (xy …) (arc …) …)` as x0, y0, x1, y1, … */
export function pointList(list: SList): number[] {
  const points: number[] = [];
  for (const item of list.get('pts')?.items ?? []) {
    if (typeof item === 'string') continue;
    if (item.name === 'xy') points.push(item.number(1), item.number(2));
    else if (item.name === 'arc') points.push(...curvePoints(item));
  }
  return points;
}

/** Points along a `line` or `arc` list: start, mid, end of later versions; centre, start, angle of old ones. */
export function curvePoints(item: SList): number[] {
  const at = (name: string): [number, number] => {
    const p = item.get(name);
    return p ? [p.number(1), p.number(2)] : [0, 0];
  };
  const [sx, sy] = at('start');
  const [ex, ey] = at('end');
  const mid = item.get('mid');
  if (mid) return arcThrough(sx, sy, mid.number(1), mid.number(2), ex, ey);
  const angle = item.get('angle');
  if (!angle || !item.name.endsWith('arc')) return [sx, sy, ex, ey];
  // `start` is the centre, `end` the point where it begins, the angle runs clockwise on the screen
  return arcPoints(
    sx,
    sy,
    Math.hypot(ex - sx, ey - sy),
    Math.atan2(ey - sy, ex - sx),
    (angle.number(1) * Math.PI) / 180,
  );
}

/** Copper of a pad at `at` (its absolute angle), on any one layer. */
export function padCopper(pad: SList, at: PadPlace): CopperShape[] {
  const kind = pad.atom(3) ?? 'circle';
  const size = pad.get('size');
  const [w, h] = size ? [size.number(1), size.numberOr(2, size.number(1))] : [0, 0];
  const offset = pad.get('drill')?.get('offset');
  const [dx, dy] = offset ? [offset.number(1), offset.number(2)] : [0, 0];
  const area = (ring: number[]): CopperShape => ({ k: 'area', n: at.net, r: [place(ring, at, dx, dy)] });
  const disc = (d: number): CopperShape => {
    const [x, y] = place([0, 0], at, dx, dy);
    return { k: 'disc', n: at.net, x, y, d };
  };
  if (kind === 'circle') return w > 0 ? [disc(w)] : [];
  if (kind === 'custom') {
    const anchor = pad.get('options')?.get('anchor')?.atom(1) ?? 'circle';
    const base =
      w > 0 && h > 0 ? [anchor === 'rect' ? area(roundedRing(w, h, 0, 0, new Set())) : disc(Math.min(w, h))] : [];
    const more = pad.get('primitives');
    return more ? [...base, ...primitives(more, at, dx, dy)] : base;
  }
  if (w <= 0 || h <= 0) return [];
  if (kind === 'oval') {
    const half = Math.abs(w - h) / 2;
    const ends = w >= h ? [-half, 0, half, 0] : [0, -half, 0, half];
    return [stroke(at, ends, Math.min(w, h), dx, dy)];
  }
  if (kind === 'trapezoid') {
    const delta = pad.get('rect_delta');
    const [ex, ey] = delta ? [delta.number(1) / 2, delta.number(2) / 2] : [0, 0];
    const [x, y] = [w / 2, h / 2];
    return [area([-x - ey, y + ex, x + ey, y - ex, x - ey, -y + ex, -x + ey, -y - ex])];
  }
  const least = Math.min(w, h);
  const r = kind === 'roundrect' ? (pad.get('roundrect_rratio')?.number(1) ?? 0.25) * least : 0;
  const chamfer = pad.get('chamfer');
  const cut = chamfer ? (pad.get('chamfer_ratio')?.number(1) ?? 0) * least : 0;
  return [
    area(roundedRing(w, h, Math.min(r, least / 2), Math.min(cut, least / 2), new Set(chamfer?.items.map(String)))),
  ];
}
