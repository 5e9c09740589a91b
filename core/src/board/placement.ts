/** From a part's local frame to the board's, both in mm. */
import { packageById, type Rect, type Terminal } from '../packages/index.ts';
import type { PlacedPart } from './boardModel.ts';

/** Board position of a local point. */
export function toBoard(part: PlacedPart, x: number, y: number): [number, number] {
  const a = (part.rotation_deg * Math.PI) / 180;
  const lx = part.side === 'bottom' ? -x : x;
  const [cos, sin] = [Math.cos(a), Math.sin(a)];
  // y points down, so a counter-clockwise turn is [cos sin; -sin cos]
  return [part.x_mm + lx * cos + y * sin, part.y_mm - lx * sin + y * cos];
}

/** From the board's frame back to the part's own, mm. */
export function toLocal(part: PlacedPart, x: number, y: number): [number, number] {
  const a = (part.rotation_deg * Math.PI) / 180;
  const [dx, dy] = [x - part.x_mm, y - part.y_mm];
  const lx = dx * Math.cos(a) - dy * Math.sin(a);
  const ly = dx * Math.sin(a) + dy * Math.cos(a);
  return [part.side === 'bottom' ? -lx : lx, ly];
}

/** The four corners of a local rectangle on the board. */
export function cornersOnBoard(part: PlacedPart, r: Rect): [number, number][] {
  return (
    [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as const
  ).map(([sx, sy]) => toBoard(part, r.x + (sx * r.w) / 2, r.y + (sy * r.h) / 2));
}

/** Axis-parallel box round a local rectangle on the board. */
export function boxOnBoard(part: PlacedPart, r: Rect) {
  const corners = cornersOnBoard(part, r);
  const xs = corners.map(([x]) => x);
  const ys = corners.map(([, y]) => y);
  return { x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) };
}

/** The body as a rectangle of the part's own frame, mm. */
export function bodyRect({ package: pkg }: Pick<PlacedPart, 'package'>): Rect {
  const { body } = packageById(pkg);
  return { x: 0, y: 0, w: body.l, h: body.w };
}

/** Shortest distance between the two bodies' boxes, mm; nothing where one lies above the other. */
export function gapBetween(a: PlacedPart, b: PlacedPart): number {
  const [p, q] = [boxOnBoard(a, bodyRect(a)), boxOnBoard(b, bodyRect(b))];
  const dx = Math.max(0, p.x0 - q.x1, q.x0 - p.x1);
  const dy = Math.max(0, p.y0 - q.y1, q.y0 - p.y1);
  return Math.hypot(dx, dy);
}

/** The part's terminals that meet a land: those without one by design have no joint. */
export function solderedTerminals(part: PlacedPart): Terminal[] {
  const { terminals } = packageById(part.package);
  return part.noLand?.length ? terminals.filter((t) => !part.noLand?.includes(t.id)) : terminals;
}
