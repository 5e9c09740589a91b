/** Paints a scene's display list on a canvas. Shapes are batched by style into paths, once per scene. */
import type { CopperShape } from '@orthos/core/copper';
import type { Scene, SceneLabel, SceneShape, SceneStyle } from '@orthos/core/scene';
import { toScreen, type Box, type StageView } from './view';

export interface Batch {
  style: PaintStyle;
  /** Made when it is first painted: a large board has hundreds. */
  path: () => Path2D;
  box: Box;
  /** Width of strokes, mm; without it shapes are filled. */
  stroke_mm?: number;
  /** An area with holes. */
  evenOdd?: true;
}

/** Styles of a scene, and those that only the painter knows. */
type PaintStyle = SceneStyle | 'track' | 'lit' | 'bare' | 'ghost';

const BATCH_SIZE = 120;

function addShape(path: Path2D, shape: SceneShape): void {
  const [[x, y], ...rest] = shape.points;
  if (shape.r !== undefined) {
    path.moveTo(x + shape.r, y);
    path.arc(x, y, shape.r, 0, 2 * Math.PI);
    return;
  }
  path.moveTo(x, y);
  for (const [px, py] of rest) path.lineTo(px, py);
  path.closePath();
}

function grow(box: Box, shape: SceneShape): void {
  const r = shape.r ?? 0;
  for (const [x, y] of shape.points) {
    box.x0 = Math.min(box.x0, x - r);
    box.x1 = Math.max(box.x1, x + r);
    box.y0 = Math.min(box.y0, y - r);
    box.y1 = Math.max(box.y1, y + r);
  }
}

const emptyBox = (): Box => ({ x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity });

/** A batch of shapes whose path is made at its first use. */
function batchOf<S>(style: PaintStyle, shapes: readonly S[], box: Box, add: (path: Path2D, shape: S) => void): Batch {
  let path: Path2D | undefined;
  return {
    style,
    box,
    path: () => {
      if (!path) {
        path = new Path2D();
        for (const shape of shapes) add(path, shape);
      }
      return path;
    },
  };
}

function batchShapes(shapes: readonly SceneShape[], styleOf: (s: SceneShape) => PaintStyle = (s) => s.style): Batch[] {
  const batches: Batch[] = [];
  let run: SceneShape[] = [];
  const close = () => {
    if (run.length === 0) return;
    const box = emptyBox();
    for (const shape of run) grow(box, shape);
    batches.push(batchOf(styleOf(run[0]), run, box, addShape));
    run = [];
  };
  for (const shape of shapes) {
    if (run.length >= BATCH_SIZE || (run.length > 0 && run[0].style !== shape.style)) close();
    run.push(shape);
  }
  close();
  return batches;
}

function addCopper(path: Path2D, s: CopperShape): void {
  if (s.k === 'disc') {
    path.moveTo(s.x + s.d / 2, s.y);
    path.arc(s.x, s.y, s.d / 2, 0, 2 * Math.PI);
    return;
  }
  for (const p of s.k === 'line' ? [s.p] : s.r) {
    path.moveTo(p[0], p[1]);
    for (let i = 2; i < p.length; i += 2) path.lineTo(p[i], p[i + 1]);
    if (s.k === 'area') path.closePath();
  }
}

function copperBox(shapes: readonly CopperShape[]): Box {
  const box = emptyBox();
  const take = (x: number, y: number, r: number) => {
    box.x0 = Math.min(box.x0, x - r);
    box.x1 = Math.max(box.x1, x + r);
    box.y0 = Math.min(box.y0, y - r);
    box.y1 = Math.max(box.y1, y + r);
  };
  for (const s of shapes) {
    if (s.k === 'disc') take(s.x, s.y, s.d / 2);
    else
      for (const p of s.k === 'line' ? [s.p] : s.r)
        for (let i = 0; i < p.length; i += 2) take(p[i], p[i + 1], s.k === 'line' ? s.w / 2 : 0);
  }
  return box;
}

/** Edge of the squares that strokes are gathered by, mm. */
const TILE_MM = 15;

/**
 * Equal strokes together, neighbours together: a path is painted in the time its box takes, and what is out of sight
 * is left out as a whole.
 */
function byKindAndPlace(shapes: readonly CopperShape[], kind: (s: CopperShape) => string): CopperShape[] {
  const rank = (s: CopperShape): number => {
    const [x, y] = s.k === 'disc' ? [s.x, s.y] : s.k === 'line' ? s.p : s.r[0];
    return Math.floor(y / TILE_MM) * 1000 + Math.floor(x / TILE_MM);
  };
  return shapes
    .map((shape) => ({ shape, kind: kind(shape), rank: rank(shape) }))
    .sort((a, b) => (a.kind < b.kind ? -1 : a.kind > b.kind ? 1 : a.rank - b.rank))
    .map((s) => s.shape);
}

/**
 * Copper of one layer in batches. Where copper is taken away again the order counts; elsewhere equal widths go
 * together.
 */
export function batchCopper(shapes: readonly CopperShape[], style: 'track' | 'lit'): Batch[] {
  const kind = (s: CopperShape) =>
    `${s.e ? 'e' : ''}${s.k === 'line' ? s.w : s.k === 'disc' ? 'disc' : s.r.length > 1 ? 'holed' : 'area'}`;
  const ordered = shapes.some((s) => s.e) ? shapes : byKindAndPlace(shapes, kind);
  const batches: Batch[] = [];
  let run: CopperShape[] = [];
  let points = 0;
  const close = () => {
    if (run.length === 0) return;
    const [first] = run;
    const batch = batchOf(first.e ? 'bare' : style, run, copperBox(run), addCopper);
    if (first.k === 'line') batch.stroke_mm = first.w;
    else if (first.k === 'area' && first.r.length > 1) batch.evenOdd = true;
    batches.push(batch);
    run = [];
    points = 0;
  };
  for (const s of ordered) {
    if (run.length > 0 && (points > 800 || run.length >= 120 || kind(run[0]) !== kind(s))) close();
    run.push(s);
    points += s.k === 'disc' ? 2 : s.k === 'line' ? s.p.length : s.r.reduce((n, r) => n + r.length, 0);
    // an area with holes has a path of its own: the even-odd rule would cut others out of it
    if (s.k === 'area' && s.r.length > 1) close();
  }
  close();
  return batches;
}

/** What lies under the heat (board, copper, holes) and what lies over it (parts). */
export interface SceneBatches {
  ground: Batch[];
  parts: Batch[];
  labels: SceneLabel[];
  /** Labels stand on dark copper: with a rim of the board's colour. */
  rimmed?: true;
  shapeCount: number;
}

const isGround = (s: SceneShape) => s.style === 'board' || s.style === 'copper' || s.style === 'hole';

export function batchScene(scene: Scene): SceneBatches {
  return {
    ground: batchShapes(scene.shapes.filter(isGround)),
    parts: batchShapes(scene.shapes.filter((s) => !isGround(s))),
    labels: scene.labels,
    shapeCount: scene.shapes.length,
  };
}

const BODIES: ReadonlySet<string> = new Set(['mould', 'ceramic', 'metal', 'plastic', 'glass']);

/** The board with one layer's copper, parts as outlines over it; `lit` is what is lit up. */
export function batchCopperScene(scene: Scene, copper: Batch[], lit: Batch[], shapeCount: number): SceneBatches {
  const bare = scene.shapes.filter((s) => s.style === 'board' || s.style === 'hole');
  const bodies = scene.shapes.filter((s) => BODIES.has(s.style));
  return {
    ground: [...batchShapes(bare), ...copper, ...lit],
    parts: batchShapes(bodies, () => 'ghost'),
    labels: scene.labels,
    rimmed: true,
    shapeCount: scene.shapes.length + shapeCount,
  };
}

export interface Palette {
  fill: Record<PaintStyle, string>;
  line: string;
  faint: string;
  ink: string;
  bench: string;
  scope: boolean;
}

/** Reads the theme's colours from the page. */
export function readPalette(): Palette {
  const css = getComputedStyle(document.documentElement);
  const v = (name: string) => css.getPropertyValue(`--${name}`).trim();
  const part = v('part');
  return {
    fill: {
      board: v('board'),
      hole: v('bench'),
      copper: v('copper'),
      land: v('copper'),
      lead: v('lead'),
      mould: part,
      ceramic: part,
      metal: v('metal'),
      plastic: v('plastic'),
      glass: v('sheet'),
      mark: v('drawn'),
      landmark: 'transparent',
      track: v('lead'),
      lit: v('evidence'),
      bare: v('board'),
      ghost: 'transparent',
    },
    line: v('drawn'),
    faint: v('ink3'),
    ink: v('ink'),
    bench: v('bench'),
    scope: document.documentElement.dataset.theme === 'scope',
  };
}

const LINE_WIDTH: Partial<Record<PaintStyle, number>> = { board: 1, hole: 1, lead: 0.5, landmark: 1.5 };
const UNSTROKED = new Set<PaintStyle>(['copper', 'land', 'mark', 'track', 'lit', 'bare']);

function hatch(colour: string): HTMLCanvasElement {
  const size = 8;
  const tile = document.createElement('canvas');
  tile.width = tile.height = size;
  const c = tile.getContext('2d');
  if (c) {
    c.strokeStyle = colour;
    c.globalAlpha = 0.35;
    c.lineWidth = 1;
    c.beginPath();
    for (const d of [-size, 0, size]) {
      c.moveTo(d, size);
      c.lineTo(d + size, 0);
    }
    c.stroke();
  }
  return tile;
}

const outside = (box: Box, seen: Box) => box.x1 < seen.x0 || box.x0 > seen.x1 || box.y1 < seen.y0 || box.y0 > seen.y1;

/** Paints one batch; `clearness` below 1 lets what lies under a part's body show through. */
export function paintBatch(
  ctx: CanvasRenderingContext2D,
  batch: Batch,
  v: StageView,
  dpr: number,
  palette: Palette,
  seen: Box,
  clearness: number,
): void {
  if (outside(batch.box, seen)) return;
  const s = v.scale * dpr;
  if (v.mirrored) ctx.setTransform(-s, 0, 0, s, (v.ox + v.scale * 2 * v.axis) * dpr, v.oy * dpr);
  else ctx.setTransform(s, 0, 0, s, v.ox * dpr, v.oy * dpr);
  const body = BODIES.has(batch.style);
  if (batch.stroke_mm !== undefined) {
    ctx.strokeStyle = palette.fill[batch.style];
    // what is lit up must be seen on the whole board
    ctx.lineWidth = Math.max(batch.stroke_mm, (batch.style === 'lit' ? 3 : 0.7) / s);
    ctx.lineCap = ctx.lineJoin = 'round';
    ctx.stroke(batch.path());
    return;
  }
  const path = batch.path();
  ctx.globalAlpha = body ? clearness : 1;
  ctx.fillStyle = palette.fill[batch.style];
  if (batch.style !== 'ghost') ctx.fill(path, batch.evenOdd ? 'evenodd' : 'nonzero');
  ctx.globalAlpha = 1;
  if (batch.style === 'plastic') {
    const pattern = ctx.createPattern(hatch(palette.line), 'repeat');
    pattern?.setTransform(ctx.getTransform().inverse());
    if (pattern) {
      ctx.fillStyle = pattern;
      ctx.fill(path);
    }
  }
  if (UNSTROKED.has(batch.style)) return;
  ctx.strokeStyle = batch.style === 'board' || batch.style === 'hole' ? palette.faint : palette.line;
  ctx.lineWidth = (LINE_WIDTH[batch.style] ?? 1.1) / v.scale;
  ctx.stroke(path);
}

const isUpright = (w: number, h: number): boolean => h > w * 1.6 && h * 0.85 > 9;

/** How large a name is written into a box, pixels; null where it has no room. */
export function labelSize(w: number, h: number, text: string): number | null {
  const size = isUpright(w, h)
    ? Math.min(15, w * 0.8, (h * 1.5) / text.length)
    : Math.min(15, Math.max(h, w) * 0.3, h * 0.85, (w * 1.5) / text.length);
  return size < 8 ? null : size;
}

/** Labels of the parts that have room for them at this scale. */
export function paintLabels(
  ctx: CanvasRenderingContext2D,
  labels: readonly SceneLabel[],
  v: StageView,
  dpr: number,
  palette: Palette,
  seen: Box,
  rimmed = false,
): void {
  ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
  ctx.strokeStyle = palette.fill.board;
  ctx.lineWidth = 4;
  ctx.lineJoin = 'round';
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.fillStyle = palette.ink;
  for (const label of labels) {
    if (label.x < seen.x0 || label.x > seen.x1 || label.y < seen.y0 || label.y > seen.y1) continue;
    const [w, h] = [label.w * v.scale, label.h * v.scale];
    const fitted = labelSize(w, h, label.text);
    if (fitted === null) continue;
    const upright = isUpright(w, h);
    const [x, y] = toScreen(v, label.x, label.y);
    ctx.save();
    ctx.fillStyle = label.through ? palette.faint : palette.ink;
    ctx.translate(x, y);
    if (upright) ctx.rotate(-Math.PI / 2);
    ctx.font = `600 ${fitted.toFixed(1)}px 'Archivo Variable', sans-serif`;
    if (rimmed) ctx.strokeText(label.text, 0, 0);
    ctx.fillText(label.text, 0, 0);
    ctx.restore();
  }
}
