/**
 * Paints scene batches on a canvas within a frame's time. Small scenes are painted at once. Large ones
 * show the last finished picture, moved and scaled, while a sharp one is made in slices between frames.
 */
import { paintBatch, paintLabels, type Batch, type Palette } from './painter';
import type { SceneLabel } from '@orthos/core';
import { toBoardPoint, type Box, type StageView } from './view';

/** Milliseconds of painting per frame; leaves the rest of the frame to everything else. */
const SLICE_MS = 5;
/** Below this many shapes a scene is simply painted. */
export const PAINT_AT_ONCE = 6000;

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
  private finished: { picture: HTMLCanvasElement; view: StageView } | null = null;
  private frame = 0;

  constructor(canvas: HTMLCanvasElement) {
    this.canvas = canvas;
  }

  draw(job: RasterJob): void {
    cancelAnimationFrame(this.frame);
    const ctx = this.canvas.getContext('2d');
    if (!ctx) return;
    if (!job.large) {
      clear(ctx);
      paintAll(ctx, job, this.canvas);
      return;
    }
    if (this.finished && this.finished.view.mirrored === job.view.mirrored) this.blit(ctx, job.view);
    this.refine(job);
  }

  stop(): void {
    cancelAnimationFrame(this.frame);
  }

  /** Shows the last finished picture where it would be in `view`. */
  private blit(ctx: CanvasRenderingContext2D, view: StageView): void {
    if (!this.finished) return;
    const { picture, view: old } = this.finished;
    const f = view.scale / old.scale;
    const dpr = devicePixelRatio;
    clear(ctx);
    ctx.setTransform(f, 0, 0, f, (view.ox - old.ox * f) * dpr, (view.oy - old.oy * f) * dpr);
    ctx.drawImage(picture, 0, 0);
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
      this.finished = { picture, view: job.view };
      const shown = this.canvas.getContext('2d');
      if (shown) this.blit(shown, job.view);
    };
    this.frame = requestAnimationFrame(slice);
  }
}

function clear(ctx: CanvasRenderingContext2D): void {
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.clearRect(0, 0, ctx.canvas.width, ctx.canvas.height);
}

function paintAll(ctx: CanvasRenderingContext2D, job: RasterJob, canvas: HTMLCanvasElement): void {
  const dpr = devicePixelRatio;
  const seen = seenBox(job.view, canvas.width / dpr, canvas.height / dpr);
  for (const batch of job.batches) paintBatch(ctx, batch, job.view, dpr, job.palette, seen, job.clearness);
  paintLabels(ctx, job.labels, job.view, dpr, job.palette, seen);
}
