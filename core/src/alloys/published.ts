/**
 * Published melting ranges that the phase-diagram model was fitted to: textbook values from memory, which scatter by 2 to 10 °C among
 * themselves. A sure, B ± 5 °C, C rough.
 */
import { elementsOf, normalised, type Composition } from './elements.ts';

export interface PublishedRange {
  wt: Composition;
  solidus_C: number;
  liquidus_C: number;
  sure: 'A' | 'B' | 'C';
  /** The published liquidus leaves stray grains of silver and copper compounds out. */
  matrix?: true;
}

export const PUBLISHED: readonly PublishedRange[] = [
  { wt: { Sn: 100 }, solidus_C: 231.9, liquidus_C: 231.9, sure: 'A' },
  { wt: { Pb: 100 }, solidus_C: 327.5, liquidus_C: 327.5, sure: 'A' },
  { wt: { Bi: 100 }, solidus_C: 271.4, liquidus_C: 271.4, sure: 'A' },
  { wt: { In: 100 }, solidus_C: 156.6, liquidus_C: 156.6, sure: 'A' },
  { wt: { Ag: 100 }, solidus_C: 961.8, liquidus_C: 961.8, sure: 'A' },
  { wt: { Cu: 100 }, solidus_C: 1084.6, liquidus_C: 1084.6, sure: 'A' },
  { wt: { Sb: 100 }, solidus_C: 630.6, liquidus_C: 630.6, sure: 'A' },
  { wt: { Cd: 100 }, solidus_C: 321.1, liquidus_C: 321.1, sure: 'A' },
  { wt: { Zn: 100 }, solidus_C: 419.5, liquidus_C: 419.5, sure: 'A' },
  { wt: { Sn: 63, Pb: 37 }, solidus_C: 183, liquidus_C: 183, sure: 'A' },
  { wt: { Sn: 60, Pb: 40 }, solidus_C: 183, liquidus_C: 190, sure: 'A' },
  { wt: { Sn: 50, Pb: 50 }, solidus_C: 183, liquidus_C: 214, sure: 'A' },
  { wt: { Sn: 40, Pb: 60 }, solidus_C: 183, liquidus_C: 238, sure: 'A' },
  { wt: { Sn: 20, Pb: 80 }, solidus_C: 183, liquidus_C: 279, sure: 'A' },
  { wt: { Sn: 5, Pb: 95 }, solidus_C: 305, liquidus_C: 313, sure: 'A' },
  { wt: { Sn: 80, Pb: 20 }, solidus_C: 183, liquidus_C: 201, sure: 'B' },
  { wt: { Sn: 62, Pb: 36, Ag: 2 }, solidus_C: 179, liquidus_C: 179, sure: 'A', matrix: true },
  { wt: { Sn: 10, Pb: 88, Ag: 2 }, solidus_C: 268, liquidus_C: 292, sure: 'B', matrix: true },
  { wt: { Sn: 5, Pb: 92.5, Ag: 2.5 }, solidus_C: 285, liquidus_C: 296, sure: 'B', matrix: true },
  { wt: { Pb: 97.5, Ag: 2.5 }, solidus_C: 304, liquidus_C: 304, sure: 'A' },
  { wt: { Bi: 58, Sn: 42 }, solidus_C: 138.5, liquidus_C: 138.5, sure: 'A' },
  { wt: { Bi: 57, Sn: 42, Ag: 1 }, solidus_C: 138, liquidus_C: 140, sure: 'A' },
  { wt: { Bi: 40, Sn: 60 }, solidus_C: 138.5, liquidus_C: 172, sure: 'B' },
  { wt: { Bi: 52.5, Pb: 32, Sn: 15.5 }, solidus_C: 96, liquidus_C: 96, sure: 'A' },
  { wt: { Sn: 43, Pb: 43, Bi: 14 }, solidus_C: 142, liquidus_C: 164, sure: 'A' },
  { wt: { Bi: 50, Pb: 28, Sn: 22 }, solidus_C: 96, liquidus_C: 108, sure: 'B' },
  { wt: { Sn: 60, Pb: 38, Bi: 2 }, solidus_C: 180, liquidus_C: 185, sure: 'B' },
  { wt: { Bi: 55.5, Pb: 44.5 }, solidus_C: 125, liquidus_C: 125, sure: 'A' },
  { wt: { Bi: 60, Cd: 40 }, solidus_C: 144.5, liquidus_C: 144.5, sure: 'A' },
  { wt: { Bi: 51.65, Pb: 40.2, Cd: 8.15 }, solidus_C: 91.5, liquidus_C: 91.5, sure: 'A' },
  { wt: { Bi: 54, Sn: 26, Cd: 20 }, solidus_C: 102.5, liquidus_C: 102.5, sure: 'A' },
  { wt: { Sn: 51.2, Pb: 30.6, Cd: 18.2 }, solidus_C: 144, liquidus_C: 144, sure: 'A' },
  { wt: { Bi: 50, Pb: 26.7, Sn: 13.3, Cd: 10 }, solidus_C: 70, liquidus_C: 70, sure: 'A' },
  { wt: { Sn: 67.75, Cd: 32.25 }, solidus_C: 177, liquidus_C: 177, sure: 'A' },
  { wt: { Pb: 82.6, Cd: 17.4 }, solidus_C: 248, liquidus_C: 248, sure: 'A' },
  { wt: { In: 74, Cd: 26 }, solidus_C: 125, liquidus_C: 125, sure: 'B' },
  { wt: { In: 44, Sn: 42, Cd: 14 }, solidus_C: 93, liquidus_C: 93, sure: 'A' },
  { wt: { Cd: 82.6, Zn: 17.4 }, solidus_C: 266, liquidus_C: 266, sure: 'A' },
  { wt: { Bi: 49, Pb: 18, Sn: 12, In: 21 }, solidus_C: 58, liquidus_C: 58, sure: 'A' },
  { wt: { Bi: 44.7, Pb: 22.6, In: 19.1, Sn: 8.3, Cd: 5.3 }, solidus_C: 47, liquidus_C: 47, sure: 'A' },
  { wt: { Bi: 57, In: 26, Sn: 17 }, solidus_C: 79, liquidus_C: 79, sure: 'A' },
  { wt: { Bi: 32.5, In: 51, Sn: 16.5 }, solidus_C: 60.5, liquidus_C: 60.5, sure: 'A' },
  { wt: { Bi: 67, In: 33 }, solidus_C: 109, liquidus_C: 109, sure: 'A' },
  { wt: { In: 66.3, Bi: 33.7 }, solidus_C: 72.3, liquidus_C: 72.3, sure: 'A' },
  { wt: { In: 52, Sn: 48 }, solidus_C: 118.5, liquidus_C: 118.5, sure: 'A' },
  { wt: { Sn: 58, In: 42 }, solidus_C: 118.5, liquidus_C: 145, sure: 'A' },
  { wt: { In: 97, Ag: 3 }, solidus_C: 143.5, liquidus_C: 143.5, sure: 'A' },
  { wt: { In: 90, Ag: 10 }, solidus_C: 143, liquidus_C: 237, sure: 'B' },
  { wt: { Pb: 95, In: 5 }, solidus_C: 296, liquidus_C: 313, sure: 'B' },
  { wt: { Pb: 81, In: 19 }, solidus_C: 267, liquidus_C: 279, sure: 'B' },
  { wt: { Pb: 50, In: 50 }, solidus_C: 182, liquidus_C: 209.5, sure: 'A' },
  { wt: { Pb: 60, In: 40 }, solidus_C: 197, liquidus_C: 229, sure: 'B' },
  { wt: { In: 80, Pb: 15, Ag: 5 }, solidus_C: 146, liquidus_C: 151.5, sure: 'B' },
  { wt: { Sn: 70, Pb: 18, In: 12 }, solidus_C: 154, liquidus_C: 164, sure: 'B' },
  { wt: { Sn: 54, Pb: 26, In: 20 }, solidus_C: 135, liquidus_C: 153, sure: 'B' },
  { wt: { Sn: 37.5, Pb: 37.5, In: 25 }, solidus_C: 134, liquidus_C: 181, sure: 'A' },
  { wt: { Sn: 96.5, Ag: 3.5 }, solidus_C: 221, liquidus_C: 221, sure: 'A' },
  { wt: { Sn: 95, Ag: 5 }, solidus_C: 221, liquidus_C: 243, sure: 'A' },
  { wt: { Sn: 99.3, Cu: 0.7 }, solidus_C: 227, liquidus_C: 227, sure: 'A' },
  { wt: { Sn: 97, Cu: 3 }, solidus_C: 227, liquidus_C: 312, sure: 'C' },
  { wt: { Sn: 95.5, Ag: 3.8, Cu: 0.7 }, solidus_C: 217, liquidus_C: 218, sure: 'A' },
  { wt: { Sn: 96.5, Ag: 3, Cu: 0.5 }, solidus_C: 217, liquidus_C: 220, sure: 'A' },
  { wt: { Sn: 96.2, Ag: 2.5, Cu: 0.8, Sb: 0.5 }, solidus_C: 215, liquidus_C: 217.5, sure: 'B' },
  { wt: { Sn: 96, Ag: 2.5, Bi: 1, Cu: 0.5 }, solidus_C: 213, liquidus_C: 219, sure: 'B' },
  { wt: { Sn: 95, Sb: 5 }, solidus_C: 234, liquidus_C: 240.5, sure: 'A' },
  { wt: { Sn: 91, Zn: 9 }, solidus_C: 198.5, liquidus_C: 198.5, sure: 'A' },
  { wt: { Pb: 88.9, Sb: 11.1 }, solidus_C: 252, liquidus_C: 252, sure: 'A' },
];

/** Sum of the differences of two compositions, wt%. */
export function apart(a: Composition, b: Composition): number {
  const [p, q] = [normalised(a), normalised(b)];
  return [...new Set([...elementsOf(p), ...elementsOf(q)])].reduce(
    (sum, e) => sum + Math.abs((p[e] ?? 0) - (q[e] ?? 0)),
    0,
  );
}

/** The row of this composition, within half a percent. */
export const publishedFor = (wt: Composition): PublishedRange | null =>
  PUBLISHED.find((row) => apart(row.wt, wt) <= 0.5) ?? null;
