/** A photo tied to the board, so that it can be laid over a drawing of the same place at the same scale and turn. */
import {
  applyHomography,
  type Homography,
  type PlacedPart,
  type PointPair,
  bodyRect,
  cornersOnBoard,
  solderedTerminals,
  toBoard,
} from '@orthos/core/board';
import type { Seen } from '$lib/part/seen';

export interface PlacedPhoto {
  /** A photo by its address, or what a camera shows now. */
  of: { href: string } | { stream: MediaStream };
  w_px: number;
  h_px: number;
  toBoard: Homography;
}

/** SVG's six numbers that lay the photo's pixels where `seen` has the board; near the part, where two points tied it, nothing else is needed. */
export function photoMatrix(
  { w_px, h_px, toBoard: h }: Pick<PlacedPhoto, 'w_px' | 'h_px' | 'toBoard'>,
  seen: (points: readonly (readonly [number, number])[]) => Seen[],
): string {
  const [o, x, y] = seen([applyHomography(h, 0, 0), applyHomography(h, w_px, 0), applyHomography(h, 0, h_px)]);
  const numbers = [(x[0] - o[0]) / w_px, (x[1] - o[1]) / w_px, (y[0] - o[0]) / h_px, (y[1] - o[1]) / h_px, ...o];
  return `matrix(${numbers.map((n) => n.toPrecision(9)).join(' ')})`;
}

/** A point that is looked for in a photo. */
export interface Wanted {
  label: string;
  mm: PointPair['mm'];
}

/** Two points of a part far from one another, by which a photo of it is tied to the board: of lands, or of its body. */
export function tiePoints(part: PlacedPart, by: 'lands' | 'body'): Wanted[] {
  if (by === 'body') {
    const corners = cornersOnBoard(part, bodyRect(part));
    const first = solderedTerminals(part)[0];
    const [x, y] = first ? toBoard(part, first.land.x, first.land.y) : corners[0];
    const far = (p: readonly [number, number]) => Math.hypot(p[0] - x, p[1] - y);
    const at = corners.reduce((best, c, i) => (far(c) < far(corners[best]) ? i : best), 0);
    const name = first ? `the body’s corner by ${first.id}` : 'a corner of the body';
    return [
      { label: name, mm: corners[at] },
      { label: 'the corner across from it', mm: corners[(at + 2) % 4] },
    ];
  }
  const lands = solderedTerminals(part).map((t) => ({
    label: `the middle of land ${t.id}`,
    mm: toBoard(part, t.land.x, t.land.y),
  }));
  if (lands.length < 2) return tiePoints(part, 'body');
  const [a] = lands;
  const far = (l: Wanted) => Math.hypot(l.mm[0] - a.mm[0], l.mm[1] - a.mm[1]);
  return [a, lands.reduce((b, l) => (far(l) > far(b) ? l : b))];
}
