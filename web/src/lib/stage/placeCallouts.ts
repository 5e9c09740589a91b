/** Finds places for callouts so that they neither cover each other nor leave the stage. */
export interface CalloutBox {
  /** The point it speaks of, pixels. */
  x: number;
  y: number;
  w: number;
  h: number;
}

export interface PlacedCallout {
  left: number;
  top: number;
}

/** A rectangle of the stage, pixels. */
export type StageRect = PlacedCallout & { w: number; h: number };

const DIRECTIONS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11].map((n) => (n * Math.PI) / 6 - Math.PI / 5);
const DISTANCES = [26, 56, 96, 140];

const overlap = (a: StageRect, b: StageRect) =>
  Math.max(0, Math.min(a.left + a.w, b.left + b.w) - Math.max(a.left, b.left) + 6) *
  Math.max(0, Math.min(a.top + a.h, b.top + b.h) - Math.max(a.top, b.top) + 6);

/**
 * Greedy: each callout takes the nearest free place, counting overlap, what it would cover of the parts in
 * `keepClear`, the `names` it would hide, and how far the rim pushes it aside.
 */
export function placeCallouts(
  boxes: readonly CalloutBox[],
  width: number,
  height: number,
  keepClear: readonly StageRect[] = [],
  names: readonly StageRect[] = [],
): PlacedCallout[] {
  const placed: StageRect[] = [];
  const points = boxes.map((b) => ({ left: b.x - 4, top: b.y - 4, w: 8, h: 8 }));
  for (const box of boxes) {
    let best: StageRect | undefined;
    let least = Infinity;
    for (const distance of DISTANCES)
      for (const angle of DIRECTIONS) {
        const cx = box.x + Math.cos(angle) * (distance + box.w / 2);
        const cy = box.y + Math.sin(angle) * (distance + box.h / 2);
        const left = Math.min(Math.max(cx - box.w / 2, 6), Math.max(6, width - box.w - 6));
        const top = Math.min(Math.max(cy - box.h / 2, 6), Math.max(6, height - box.h - 6));
        const here = { left, top, w: box.w, h: box.h };
        const moved = Math.hypot(left + box.w / 2 - cx, top + box.h / 2 - cy);
        const cost =
          distance +
          moved +
          placed.reduce((s, p) => s + overlap(here, p), 0) * 2 +
          keepClear.reduce((s, p) => s + overlap(here, p), 0) * 0.15 +
          names.reduce((s, p) => s + overlap(here, p), 0) * 1.2 +
          points.reduce((s, p) => s + overlap(here, p), 0) * 0.5;
        if (cost < least) [best, least] = [here, cost];
      }
    placed.push(best ?? { left: 0, top: 0, w: box.w, h: box.h });
  }
  return placed.map(({ left, top }) => ({ left, top }));
}
