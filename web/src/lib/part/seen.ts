/** The board round a part as it is seen: from a side, turned by quarters; mm from the part's middle. */
import { bodyRect, cornersOnBoard, type PlacedPart, type Side, toBoard } from '@orthos/core/board';
import { packageById } from '@orthos/core/packages';

export type Seen = [x: number, y: number];

/** `turns`: quarters, counter-clockwise. */
export function seenFrom(
  target: Pick<PlacedPart, 'x_mm' | 'y_mm'>,
  side: Side,
  turns = 0,
): (points: readonly (readonly [number, number])[]) => Seen[] {
  const mirror = side === 'bottom' ? -1 : 1;
  return (points) => points.map(([x, y]) => turnedBy((x - target.x_mm) * mirror, y - target.y_mm, turns));
}

export function turnedBy(right: number, down: number, turns: number): Seen {
  let [x, y] = [right, down];
  for (let i = 0; i < turns % 4; i++) [x, y] = [y, -x];
  return [x, y];
}

export const pointsText = (points: readonly Seen[]): string =>
  points.map((p) => p.map((v) => v.toFixed(3)).join(',')).join(' ');

export const centreOf = (points: readonly Seen[]): Seen => [
  points.reduce((s, p) => s + p[0], 0) / points.length,
  points.reduce((s, p) => s + p[1], 0) / points.length,
];

/** The body's outline on the board, mm: its corners, or a round one's rim. */
export function outlineOnBoard(target: PlacedPart): [number, number][] {
  const body = bodyRect(target);
  if (packageById(target.package).shape !== 'round') return cornersOnBoard(target, body);
  return Array.from({ length: 48 }, (_, i) => {
    const turn = (i * Math.PI) / 24;
    return toBoard(target, (body.w / 2) * Math.cos(turn), (body.h / 2) * Math.sin(turn));
  });
}
