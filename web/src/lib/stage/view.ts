/** Where the board lies on the screen: scale and offset, mirrored about an upright axis for the bottom. */
export interface StageView {
  /** CSS pixels per millimetre. */
  scale: number;
  ox: number;
  oy: number;
  mirrored: boolean;
  /** Board x of the mirror axis, mm. */
  axis: number;
}

/** Least and greatest scale of a stage, px per mm. */
export const SCALES: [number, number] = [0.5, 400];
/** Room kept free below the board for scale bar and legend, pixels. */
const FOOT = 52;

const unfold = (v: StageView, x: number) => (v.mirrored ? 2 * v.axis - x : x);

export function toScreen(v: StageView, x: number, y: number): [number, number] {
  return [v.ox + v.scale * unfold(v, x), v.oy + v.scale * y];
}

export function toBoardPoint(v: StageView, px: number, py: number): [number, number] {
  return [unfold(v, (px - v.ox) / v.scale), (py - v.oy) / v.scale];
}

/** Scales by `factor` and keeps the screen point (px, py) where it is. */
export function zoomAt(v: StageView, px: number, py: number, factor: number): StageView {
  const scale = Math.min(SCALES[1], Math.max(SCALES[0], v.scale * factor));
  const f = scale / v.scale;
  return { ...v, scale, ox: px - (px - v.ox) * f, oy: py - (py - v.oy) * f };
}

export interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** Fits `box` (board mm) into a width × height area with a margin, all in pixels. */
export function fitView(
  box: Box,
  width: number,
  height: number,
  margin: number,
  mirrored: boolean,
  axis: number,
): StageView {
  const scale = Math.min(
    SCALES[1],
    Math.max(
      SCALES[0],
      Math.min((width - 2 * margin) / (box.x1 - box.x0), (height - margin - FOOT) / (box.y1 - box.y0)),
    ),
  );
  const centre = (box.x0 + box.x1) / 2;
  const folded = mirrored ? 2 * axis - centre : centre;
  return {
    scale,
    ox: width / 2 - scale * folded,
    oy: (height + margin - FOOT) / 2 - (scale * (box.y0 + box.y1)) / 2,
    mirrored,
    axis,
  };
}

/** Turns the board over and keeps what lies in the middle of the screen in the middle. */
export function flipped(v: StageView, width: number): StageView {
  const [x] = toBoardPoint(v, width / 2, 0);
  const next = { ...v, mirrored: !v.mirrored };
  return { ...next, ox: width / 2 - v.scale * unfold(next, x) };
}

/** A round length for a scale bar of at most `pixels`. */
export function scaleBar(v: StageView, pixels: number): { mm: number; px: number } {
  const most = pixels / v.scale;
  const power = 10 ** Math.floor(Math.log10(most));
  const mm = [5, 2, 1].map((m) => m * power).find((m) => m <= most) ?? power;
  return { mm, px: mm * v.scale };
}

/** Where the pointer is on the board. */
export interface StagePoint {
  x_mm: number;
  y_mm: number;
  /** Millimetres per screen pixel. */
  mm_px: number;
  alt: boolean;
  shift: boolean;
}

/** What the pointer does instead of selecting and moving the view; true: taken. */
export interface StageTool {
  /** Shows a cross for a pointer. */
  cross?: boolean;
  down?: (p: StagePoint) => boolean;
  move?: (p: StagePoint) => boolean;
  up?: (p: StagePoint) => boolean;
}
