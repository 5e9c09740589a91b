/** Finds places for the labels of the stage so that they neither cover each other nor leave it. */
export interface LabelBox {
  /** The point it speaks of, pixels. */
  x: number;
  y: number;
  w: number;
  h: number;
  /** Radius of the mark at that point, which stays free, pixels. */
  clear?: number;
  /** Rather left out than laid over another. */
  optional?: true;
}

/** A rectangle of the stage, pixels. */
export interface StageRect {
  left: number;
  top: number;
  w: number;
  h: number;
}

/** Below, above, beside, then between, as angles. */
const DIRECTIONS = [3, -3, 0, 6, 1, 5, -1, -5, 2, 4, -2, -4].map((n) => (n * Math.PI) / 6);
/** How far beyond the mark, pixels. */
const DISTANCES = [5, 26, 56, 96, 140];
/** Between two labels, and to the rim. */
const GAP = 6;

const overlap = (a: StageRect, b: StageRect, gap = GAP) =>
  Math.max(0, Math.min(a.left + a.w, b.left + b.w) - Math.max(a.left, b.left) + gap) *
  Math.max(0, Math.min(a.top + a.h, b.top + b.h) - Math.max(a.top, b.top) + gap);

/** What a label had better not cover. */
interface Obstacles {
  /** Parts that are spoken of. */
  spoken?: readonly StageRect[];
  /** Names of parts. */
  names?: readonly StageRect[];
  /** Other parts. */
  bodies?: readonly StageRect[];
  /** Lines that a plain text would cross. */
  edges?: readonly StageRect[];
}

/**
 * Greedy, the most important label first: each takes the nearest free place, counting overlap with what is placed, marks, names and parts that it would hide,
 * and how far the rim pushes it aside. Null for an optional one that finds no place free of others.
 */
export function placeLabels(
  boxes: readonly LabelBox[],
  width: number,
  height: number,
  { spoken = [], names = [], bodies = [], edges = [] }: Obstacles = {},
): (StageRect | null)[] {
  const placed: StageRect[] = [];
  const marks = boxes.map(({ x, y, clear = 4 }) => ({ left: x - clear, top: y - clear, w: 2 * clear, h: 2 * clear }));
  const over = (here: StageRect, those: readonly StageRect[]) => those.reduce((sum, p) => sum + overlap(here, p), 0);
  return boxes.map((box) => {
    const { x, y, w, h, clear = 21 } = box;
    let best: StageRect = { left: GAP, top: GAP, w, h };
    let least = Infinity;
    for (const beyond of DISTANCES)
      for (const angle of DIRECTIONS) {
        const distance = clear + beyond;
        const cx = x + Math.cos(angle) * (distance + w / 2);
        const cy = y + Math.sin(angle) * (distance + h / 2);
        const left = Math.min(Math.max(cx - w / 2, GAP), Math.max(GAP, width - w - GAP));
        const top = Math.min(Math.max(cy - h / 2, GAP), Math.max(GAP, height - h - GAP));
        const here = { left, top, w, h };
        const moved = Math.hypot(left + w / 2 - cx, top + h / 2 - cy);
        const cost =
          distance +
          moved +
          over(here, placed) * 2 +
          over(here, marks) * 0.5 +
          over(here, names) * 1.2 +
          over(here, spoken) * 0.15 +
          over(here, bodies) * 0.03 +
          (box.optional ? over(here, edges) * 0.1 : 0);
        if (cost < least) [best, least] = [here, cost];
      }
    if (box.optional && placed.some((p) => overlap(best, p, 0) > 0)) return null;
    placed.push(best);
    return best;
  });
}
