/** Where the target lies from a landmark, as seen on the working side: so that nobody works on the wrong row. */
import { type BoardModel, partName, type PlacedPart, type Side } from '@orthos/core/board';
import { packageById } from '@orthos/core/packages';

export interface Bearing {
  id: string;
  label: string;
  /** Millimetres to the right and down in the view of the working side; negative: left, up. */
  right_mm: number;
  down_mm: number;
  distance_mm: number;
}

/** How many landmarks are offered. */
const MOST = 5;
/** Parts at least this large serve as landmarks, mm². */
const LARGE_MM2 = 12;

/** The landmarks of the board and its large parts nearby on the side one works on, nearest first within each kind. */
export function bearings(board: BoardModel, target: PlacedPart, side: Side): Bearing[] {
  const sign = side === 'bottom' ? -1 : 1;
  const from = (id: string, label: string, x: number, y: number): Bearing => {
    const [dx, dy] = [(target.x_mm - x) * sign, target.y_mm - y];
    return { id, label, right_mm: dx, down_mm: dy, distance_mm: Math.hypot(dx, dy) };
  };
  const near = (a: Bearing, b: Bearing) => a.distance_mm - b.distance_mm;
  const marks = board.landmarks.map((l) => from(l.id, l.label, l.x_mm, l.y_mm)).sort(near);
  const parts = board.parts
    .filter((p) => {
      const { l, w } = packageById(p.package).body;
      return p.partId !== target.partId && p.side === side && l * w >= LARGE_MM2;
    })
    .map((p) => from(p.partId, `${partName(p)}${p.what ? `, ${p.what}` : ''}`, p.x_mm, p.y_mm))
    .sort(near);
  return [...marks, ...parts].slice(0, MOST);
}

/** "12.4 mm right, 3.1 mm up" as formatted by `length`. */
export function bearingText(b: Bearing, length: (mm: number) => string): string {
  const across = `${length(Math.abs(b.right_mm))} ${b.right_mm >= 0 ? 'right' : 'left'}`;
  return `${across}, ${length(Math.abs(b.down_mm))} ${b.down_mm >= 0 ? 'down' : 'up'}`;
}

/** Nearer to each other than this two landmarks give a print no direction, mm. */
const LEAST_APART_MM = 2;

/** The two landmarks furthest from each other, by which a print is laid; none where there are no two. */
export function registration(
  board: BoardModel,
  marks: readonly Bearing[],
): { name: string; x_mm: number; y_mm: number }[] {
  const places = [
    ...board.landmarks.map(({ label, x_mm, y_mm }) => ({ name: label, x_mm, y_mm })),
    ...marks.flatMap((m) => {
      const part = board.parts.find((p) => p.partId === m.id);
      return part ? [{ name: m.label, x_mm: part.x_mm, y_mm: part.y_mm }] : [];
    }),
  ];
  let best: typeof places = [];
  let far_mm = LEAST_APART_MM;
  for (const a of places)
    for (const b of places) {
      const apart = Math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm);
      if (apart > far_mm) [far_mm, best] = [apart, [a, b]];
    }
  return best;
}
