/**
 * Paints scene batches on the stage's canvases without holding the page up. Small scenes are painted at once.
 * A large one is painted in slices when the view has come to rest; while it moves, the finished picture is only
 * shifted and scaled as one element, which costs the main thread nothing.
 */
import { paintBatch, paintLabels, type Palette, type SceneBatches } from './painter';
import { toBoardPoint, type Box, type StageView } from './view';

/** Milliseconds of painting per frame. */
const SLICE_MS = 3;
/** A view that has not changed for this long is at rest, ms. */
const REST_MS = 110;
/** Below this many shapes a scene is simply painted. */
const PAINT_AT_ONCE = 1500;

export interface RasterJob {
  scene: SceneBatches;
  view: StageView;
  palette: Palette;
  /** Below 1, what lies under the bodies of parts shows through. */
  clearness: number;
  /** The board itself is not filled: something lies below it. */
  clearBoard?: boolean;
}

/** The part of the board that a canvas of this size shows, mm. */
function seenBox(v: StageView, width: number, height: number): Box {
  const [xa, y0] = toBoardPoint(v, 0, 0);
  const [xb, y1] = toBoardPoint(v, width, height);
  return { x0: Math.min(xa, xb), x1: Math.max(xa, xb), y0, y1 };
}

/** The palette with the board's own surfaces left open. */
const clear = (p: Palette): Palette => ({
  ...p,
  fill: { ...p.fill, board: 'transparent', hole: 'transparent', copper: 'transparent' },
});

/** The painting of one job on a ground and a parts canvas, resumable. */
function* painting(job: RasterJob, ground: CanvasRenderingContext2D, parts: CanvasRenderingContext2D) {
  const dpr = devicePixelRatio;
  const { scene, view, palette } = job;
  const seen = seenBox(view, ground.canvas.width / dpr, ground.canvas.height / dpr);
  for (const batch of scene.ground)
    yield paintBatch(ground, batch, view, dpr, job.clearBoard ? clear(palette) : palette, seen, 1);
  for (const batch of scene.parts) yield paintBatch(parts, batch, view, dpr, palette, seen, job.clearness);
  const some = 100;
  for (let n = 0; n < scene.labels.length; n += some)
    yield paintLabels(parts, scene.labels.slice(n, n + some), view, dpr, palette, seen, scene.rimmed);
}

export class Raster {
  private shown: RasterJob | null = null;
  private frame = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  private readonly picture: HTMLElement;
  private readonly ground: HTMLCanvasElement;
  private readonly parts: HTMLCanvasElement;
  private readonly onshown: (view: StageView) => void;

  /** `picture` holds both canvases and is what moves; `onshown` is told the view of a finished picture. */
  constructor(
    picture: HTMLElement,
    ground: HTMLCanvasElement,
    parts: HTMLCanvasElement,
    onshown: (view: StageView) => void,
  ) {
    this.picture = picture;
    this.ground = ground;
    this.parts = parts;
    this.onshown = onshown;
  }

  draw(job: RasterJob): void {
    this.stop();
    if (job.scene.shapeCount <= PAINT_AT_ONCE) {
      const [ground, parts] = this.sheets(job).map(cleared);
      if (ground) Array.from(painting(job, ground, parts ?? ground));
      this.show(job);
      return;
    }
    // the same picture seen from elsewhere: move it now, sharpen it when at rest
    const moved =
      this.shown?.scene === job.scene &&
      this.shown.palette === job.palette &&
      this.shown.clearness === job.clearness &&
      this.shown.clearBoard === job.clearBoard &&
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

  /** The canvases that a job needs: parts have one of their own only when heat lies under them. */
  private sheets(job: RasterJob): HTMLCanvasElement[] {
    return job.clearness < 1 ? [this.ground, this.parts] : [this.ground];
  }

  private show(job: RasterJob): void {
    this.shown = job;
    this.parts.hidden = job.clearness === 1;
    this.picture.style.transform = '';
    this.onshown(job.view);
  }

  /** Puts the finished picture where it belongs in `view`. */
  private place(view: StageView): void {
    if (!this.shown) return;
    const old = this.shown.view;
    const f = view.scale / old.scale;
    this.picture.style.transform = `translate(${view.ox - old.ox * f}px, ${view.oy - old.oy * f}px) scale(${f})`;
  }

  private refine(job: RasterJob): void {
    const sheets = this.sheets(job);
    const [ground, parts] = sheets.map(aside);
    if (!ground) return;
    const steps = painting(job, ground, parts ?? ground);
    const slice = () => {
      const start = performance.now();
      while (performance.now() - start < SLICE_MS)
        if (steps.next().done) {
          for (const [n, done] of [ground, parts].entries()) if (done) cleared(sheets[n])?.drawImage(done.canvas, 0, 0);
          this.show(job);
          return;
        }
      this.frame = requestAnimationFrame(slice);
    };
    this.frame = requestAnimationFrame(slice);
  }
}

/** A canvas of the same size that is not on the page. */
function aside(like: HTMLCanvasElement): CanvasRenderingContext2D | null {
  const canvas = document.createElement('canvas');
  canvas.width = like.width;
  canvas.height = like.height;
  // read often: drawn at once and not saved up for one long moment, so that a slice is as long as it says
  return canvas.getContext('2d', { willReadFrequently: true });
}

function cleared(canvas: HTMLCanvasElement): CanvasRenderingContext2D | null {
  const ctx = canvas.getContext('2d');
  ctx?.setTransform(1, 0, 0, 1, 0, 0);
  ctx?.clearRect(0, 0, canvas.width, canvas.height);
  return ctx;
}
