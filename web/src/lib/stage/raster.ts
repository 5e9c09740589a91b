/**
 * Paints scene batches on a canvas without holding the page up. Small scenes are painted at once. A large
 * one is painted in slices when the view has come to rest; while it moves, the finished picture is only
 * shifted and scaled as an element, which costs the main thread nothing.
 */
import { paintBatch, paintLabels, type Batch, type Palette } from './painter';
import type { SceneLabel } from '@orthos/core';
import { toBoardPoint, type Box, type StageView } from './view';

/** Milliseconds of painting per frame. */
const SLICE_MS = 3;
/** A view that has not changed for this long is at rest, ms. */
const REST_MS = 110;
/** Below this many shapes a scene is simply painted. */
export const PAINT_AT_ONCE = 1500;

export interface RasterJob {
  batches: readonly Batch[];
  labels: readonly SceneLabel[];
  view: StageView;
  palette: Palette;
  clearness: number;
  large: boolean;
}

/** The part of the board that a canvas of this size shows, mm. */
function seenBox(v: StageView, width: number, height: number): Box {
  const [xa, y0] = toBoardPoint(v, 0, 0);
  const [xb, y1] = toBoardPoint(v, width, height);
  return { x0: Math.min(xa, xb), x1: Math.max(xa, xb), y0, y1 };
}

export class Raster {
  private readonly canvas: HTMLCanvasElement;
  private shown: RasterJob | null = null;
  private frame = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(canvas: HTMLCanvasElement) {
    this.canvas = canvas;
    canvas.style.transformOrigin = '0 0';
  }

  draw(job: RasterJob): void {
    this.stop();
    if (!job.large) {
      paintAll(this.canvas, job);
      this.show(job);
      return;
    }
    // the same picture seen from elsewhere: move it now, sharpen it when at rest
    const moved =
      this.shown?.batches === job.batches &&
      this.shown.palette === job.palette &&
      this.shown.view.mirrored === job.view.mirrored;
    if (moved) {
      this.place(job.view);
      this.timer = setTimeout(() => this.refine(job), REST_MS);
    } else this.refine(job);
  }

  stop(): void {
    cancelAnimationFrame(this.frame);
    clearTimeout(this.timer);
  }

  private show(job: RasterJob): void {
    this.shown = job;
    this.canvas.style.transform = '';
  }

  /** Puts the finished picture where it belongs in `view`. */
  private place(view: StageView): void {
    if (!this.shown) return;
    const old = this.shown.view;
    const f = view.scale / old.scale;
    this.canvas.style.transform = `translate(${view.ox - old.ox * f}px, ${view.oy - old.oy * f}px) scale(${f})`;
  }

  private refine(job: RasterJob): void {
    const picture = document.createElement('canvas');
    picture.width = this.canvas.width;
    picture.height = this.canvas.height;
    const ctx = picture.getContext('2d');
    if (!ctx) return;
    const seen = seenBox(job.view, picture.width / devicePixelRatio, picture.height / devicePixelRatio);
    let next = 0;
    const slice = () => {
      const start = performance.now();
      while (next < job.batches.length && performance.now() - start < SLICE_MS)
        paintBatch(ctx, job.batches[next++], job.view, devicePixelRatio, job.palette, seen, job.clearness);
      if (next < job.batches.length) {
        this.frame = requestAnimationFrame(slice);
        return;
      }
      paintLabels(ctx, job.labels, job.view, devicePixelRatio, job.palette, seen);
      const target = this.canvas.getContext('2d');
      if (!target) return;
      clear(target);
      target.drawImage(picture, 0, 0);
      this.show(job);
    };
    this.frame = requestAnimationFrame(slice);
  }
}

function clear(ctx: CanvasRenderingContext2D): void {
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.clearRect(0, 0, ctx.canvas.width, ctx.canvas.height);
}

function paintAll(canvas: HTMLCanvasElement, job: RasterJob): void {
  const ctx = canvas.getContext('2d');
  if (!ctx) return;
  clear(ctx);
  const dpr = devicePixelRatio;
  const seen = seenBox(job.view, canvas.width / dpr, canvas.height / dpr);
  for (const batch of job.batches) paintBatch(ctx, batch, job.view, dpr, job.palette, seen, job.clearness);
  paintLabels(ctx, job.labels, job.view, dpr, job.palette, seen);
}
