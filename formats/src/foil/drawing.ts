/** What is printed of a sheet of foil, as lines and words in mm, for every kind of file. */
import type { Side } from '@orthos/core/board';
import {
  type CoverInput,
  type CoverSheet,
  FOIL_BAR_MM,
  type FoilInput,
  type FoilSheet,
  type Point,
} from '@orthos/core/foil';

export interface Line {
  points: readonly Point[];
  style: 'cut' | 'fold' | 'rim' | 'mark';
  closed?: true;
}
interface Word {
  text: string;
  at: Point;
  size_mm: number;
}
export interface FoilDrawing {
  title: string;
  /** What the drawing takes, mm. */
  x0: number;
  y0: number;
  w: number;
  h: number;
  lines: Line[];
  words: Word[];
}

/** Line widths, mm, and gaps of those that are not cut. */
export const STROKES: Record<Line['style'], { width_mm: number; dash_mm?: readonly number[]; colour: string }> = {
  cut: { width_mm: 0.35, colour: '#1c2528' },
  fold: { width_mm: 0.2, dash_mm: [3, 1.5], colour: '#1c2528' },
  rim: { width_mm: 0.2, colour: '#1c2528' },
  mark: { width_mm: 0.2, colour: '#1c2528' },
};

const MARGIN_MM = 6;
const TEXT_MM = 3;
const CROSS_MM = 3;
/** Below the sheet: the bar and what is said. */
const FOOT_MM = 22;

/** Something to cut and fold: rings, folds, marks to lay it by, what is said under it. */
interface Sheet {
  title: string;
  rim_mm?: readonly Point[];
  cut_mm: readonly Point[];
  folds_mm: readonly (readonly [Point, Point])[];
  marks: readonly { at: Point; name: string }[];
  side: Side;
  says: readonly string[];
}

export const foilDrawing = (
  { cut_mm, outer_mm, folds_mm, landmarks_mm }: FoilSheet,
  { side, landmarks, title }: FoilInput,
): FoilDrawing =>
  drawn({
    ...{ title: 'Foil with a window', rim_mm: outer_mm, cut_mm, folds_mm, side },
    marks: landmarks_mm.map((at, i) => ({ at, name: landmarks[i].name ?? `landmark ${i + 1}` })),
    says: ['Cut full lines, fold dashed ones under.', ...(title ? [title] : [])],
  });

export const coverDrawing = ({ cut_mm, folds_mm }: CoverSheet, { side, title }: CoverInput): FoilDrawing =>
  drawn({
    ...{ title: 'Cover of foil', cut_mm, folds_mm, marks: [], side },
    says: ['Cut full lines, fold dashed ones down, the outer ones out again.', ...(title ? [title] : [])],
  });

const cross = ([x, y]: Point): Line[] => [
  {
    points: [
      [x - CROSS_MM, y],
      [x + CROSS_MM, y],
    ],
    style: 'mark',
  },
  {
    points: [
      [x, y - CROSS_MM],
      [x, y + CROSS_MM],
    ],
    style: 'mark',
  },
];

function drawn({ title, rim_mm = [], cut_mm, folds_mm, marks, side, says: [how, ...about] }: Sheet): FoilDrawing {
  const all = [...rim_mm, ...cut_mm, ...marks.map((m) => m.at)];
  const [xs, ys] = [all.map(([x]) => x), all.map(([, y]) => y)];
  const [x0, y0] = [Math.min(...xs) - MARGIN_MM, Math.min(...ys) - MARGIN_MM];
  const w = Math.max(Math.max(...xs) + MARGIN_MM - x0, FOIL_BAR_MM + 2 * MARGIN_MM);
  const foot = Math.max(...ys) + MARGIN_MM;
  const [bar, at] = [foot + 2, x0 + MARGIN_MM];
  const words = [
    `Print at 100 %: the bar is ${FOIL_BAR_MM} mm. Measure it before you cut.`,
    `Seen from the ${side}${side === 'bottom' ? ', mirrored' : ''}. ${how}`,
    ...about,
  ];
  return {
    title: [title, ...about, side, '1:1'].join(', '),
    ...{ x0, y0, w, h: foot + FOOT_MM - y0 },
    lines: [
      ...(rim_mm.length > 0 ? [{ points: rim_mm, style: 'rim', closed: true } as const] : []),
      ...folds_mm.map((points): Line => ({ points, style: 'fold' })),
      { points: cut_mm, style: 'cut', closed: true },
      ...marks.flatMap((m) => cross(m.at)),
      {
        points: [
          [at, bar],
          [at + FOIL_BAR_MM, bar],
        ],
        style: 'mark',
      },
      ...[0, FOIL_BAR_MM].map((d): Line => ({
        points: [
          [at + d, bar - 1.5],
          [at + d, bar + 1.5],
        ],
        style: 'mark',
      })),
    ],
    words: [
      ...marks.map(({ at: [x, y], name }) => ({ text: name, at: [x + 1, y - 1] as const, size_mm: TEXT_MM })),
      ...words.map((text, i) => ({ text, at: [at, bar + 6 + 4.5 * i] as const, size_mm: TEXT_MM })),
    ],
  };
}
