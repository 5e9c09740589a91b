/** Paints a scene's display list on a canvas. Shapes are batched by style into paths, once per scene. */
import type { Scene, SceneLabel, SceneShape, SceneStyle } from '@orthos/core';
import { toScreen, type Box, type StageView } from './view';

export interface Batch {
  style: SceneStyle;
  path: Path2D;
  box: Box;
}

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

function batchShapes(shapes: readonly SceneShape[]): Batch[] {
  const batches: (Batch & { count: number })[] = [];
  for (const shape of shapes) {
    let batch = batches[batches.length - 1];
    if (!batch || batch.style !== shape.style || batch.count >= BATCH_SIZE) {
      batch = {
        style: shape.style,
        path: new Path2D(),
        box: { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity },
        count: 0,
      };
      batches.push(batch);
    }
    addShape(batch.path, shape);
    grow(batch.box, shape);
    batch.count++;
  }
  return batches;
}

/** What lies under the heat (board, copper, holes) and what lies over it (parts). */
export interface SceneBatches {
  ground: Batch[];
  parts: Batch[];
  labels: SceneLabel[];
  shapeCount: number;
}

export function batchScene(scene: Scene): SceneBatches {
  const isGround = (s: SceneShape) => s.style === 'board' || s.style === 'copper' || s.style === 'hole';
  return {
    ground: batchShapes(scene.shapes.filter(isGround)),
    parts: batchShapes(scene.shapes.filter((s) => !isGround(s))),
    labels: scene.labels,
    shapeCount: scene.shapes.length,
  };
}

export interface Palette {
  fill: Record<SceneStyle, string>;
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
    },
    line: v('drawn'),
    faint: v('ink3'),
    ink: v('ink'),
    bench: v('bench'),
    scope: document.documentElement.dataset.theme === 'scope',
  };
}

const LINE_WIDTH: Partial<Record<SceneStyle, number>> = { board: 1, hole: 1, lead: 0.5, landmark: 1.5 };
const UNSTROKED = new Set<SceneStyle>(['copper', 'land', 'mark']);

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
  const body = !['board', 'hole', 'copper', 'land', 'lead', 'mark', 'landmark'].includes(batch.style);
  ctx.globalAlpha = body ? clearness : 1;
  ctx.fillStyle = palette.fill[batch.style];
  ctx.fill(batch.path);
  ctx.globalAlpha = 1;
  if (batch.style === 'plastic') {
    const pattern = ctx.createPattern(hatch(palette.line), 'repeat');
    pattern?.setTransform(ctx.getTransform().inverse());
    if (pattern) {
      ctx.fillStyle = pattern;
      ctx.fill(batch.path);
    }
  }
  if (UNSTROKED.has(batch.style)) return;
  ctx.strokeStyle = batch.style === 'board' || batch.style === 'hole' ? palette.faint : palette.line;
  ctx.lineWidth = (LINE_WIDTH[batch.style] ?? 1.1) / v.scale;
  ctx.stroke(batch.path);
}

/** Labels of the parts that have room for them at this scale. */
export function paintLabels(
  ctx: CanvasRenderingContext2D,
  labels: readonly SceneLabel[],
  v: StageView,
  dpr: number,
  palette: Palette,
  seen: Box,
): void {
  ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.fillStyle = palette.ink;
  for (const label of labels) {
    if (label.x < seen.x0 || label.x > seen.x1 || label.y < seen.y0 || label.y > seen.y1) continue;
    const [w, h] = [label.w * v.scale, label.h * v.scale];
    const size = Math.min(15, Math.max(h, w) * 0.3, h * 0.85);
    const upright = h > w * 1.6 && h * 0.85 > 9;
    const fitted = upright
      ? Math.min(15, w * 0.8, (h * 1.5) / label.text.length)
      : Math.min(size, (w * 1.5) / label.text.length);
    if (fitted < 8) continue;
    const [x, y] = toScreen(v, label.x, label.y);
    ctx.save();
    ctx.translate(x, y);
    if (upright) ctx.rotate(-Math.PI / 2);
    ctx.font = `600 ${fitted.toFixed(1)}px 'Archivo Variable', sans-serif`;
    ctx.fillText(label.text, 0, 0);
    ctx.restore();
  }
}
