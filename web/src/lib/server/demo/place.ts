/** Shorthand for writing board models down: one call per part or row of equal parts. */
import type { PlacedPart } from '@orthos/core/board';

type Extras = Partial<Pick<PlacedPart, 'rotation_deg' | 'side' | 'what' | 'value' | 'limit' | 'nets' | 'blocksIron'>>;

/** One part; its reference is also its id. */
export function part(ref: string, pkg: string, x_mm: number, y_mm: number, extras: Extras = {}): PlacedPart {
  return { partId: ref.toLowerCase(), ref, package: pkg, x_mm, y_mm, rotation_deg: 0, side: 'top', ...extras };
}

/** Equal parts `refs`, the first at (x, y), each next one a step further. */
export function row(
  refs: string[],
  pkg: string,
  [x, y]: [number, number],
  [dx, dy]: [number, number],
  extras: Extras = {},
): PlacedPart[] {
  return refs.map((ref, i) => part(ref, pkg, x + i * dx, y + i * dy, extras));
}

/** References C4 … C9: names('C', 4, 9). */
export function names(prefix: string, from: number, to: number): string[] {
  return Array.from({ length: to - from + 1 }, (_, i) => `${prefix}${from + i}`);
}

/** Rounded board outline, corners as short chords. */
export function roundedOutline(w: number, h: number, r: number): [number, number][] {
  const corner = (cx: number, cy: number, from: number) =>
    Array.from({ length: 7 }, (_, i): [number, number] => {
      const a = from + ((Math.PI / 2) * i) / 6;
      return [Math.round((cx + r * Math.cos(a)) * 1e6) / 1e6, Math.round((cy + r * Math.sin(a)) * 1e6) / 1e6];
    });
  return [
    ...corner(w - r, r, -Math.PI / 2),
    ...corner(w - r, h - r, 0),
    ...corner(r, h - r, Math.PI / 2),
    ...corner(r, r, Math.PI),
  ];
}
