/** How much of a board's surface is copper, per layer: as one figure and on an even grid for the heat model. */
import { decodeBytes, encodeBytes } from './bytes.ts';
import type { CopperShape } from './drawing.ts';
import { emptyBitmap, fillRings, paintCopper } from './raster.ts';

export interface CoverageGrid {
  layer: number;
  /** Corner of the grid and cell size, mm. */
  x_mm: number;
  y_mm: number;
  cell_mm: number;
  nx: number;
  ny: number;
  /** ny × nx bytes, row-major, base64: copper over the board inside a cell, 0 … 255. */
  data: string;
}

export interface Outline {
  /** Closed ring x0, y0, x1, y1, … of the board and of what is cut out of it. */
  board: readonly number[];
  cutouts: readonly (readonly number[])[];
}

const MOST_CELLS = 40_000;
const MOST_PIXELS = 5e6;
const PIXEL_MM = 0.05;

const boxOf = (ring: readonly number[]) => {
  const box = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  for (let i = 0; i < ring.length; i += 2) {
    box.x0 = Math.min(box.x0, ring[i]);
    box.x1 = Math.max(box.x1, ring[i]);
    box.y0 = Math.min(box.y0, ring[i + 1]);
    box.y1 = Math.max(box.y1, ring[i + 1]);
  }
  return box;
};

/** Area of a ring, mm² (shoelace). */
export function ringArea(ring: readonly number[]): number {
  let sum = 0;
  const n = ring.length;
  for (let i = 0; i < n; i += 2) sum += ring[i] * ring[(i + 3) % n] - ring[(i + 2) % n] * ring[i + 1];
  return Math.abs(sum) / 2;
}

/**
 * Coverage of each layer: copper inside the outline over the outline's area (drills not removed), and the same
 * per cell of an even grid with at most 40,000 cells. Pixels of 0.05 mm, coarser only above 5 million of them.
 */
export function copperCoverage(
  outline: Outline,
  layers: readonly (readonly CopperShape[])[],
  progress: (done: number) => void = () => {},
): { fraction: number[]; grids: CoverageGrid[] } {
  const box = boxOf(outline.board);
  const [w, h] = [box.x1 - box.x0, box.y1 - box.y0];
  const perCell = Math.max(10, Math.ceil(Math.sqrt((w * h) / MOST_CELLS) / PIXEL_MM));
  const pixel = Math.max(PIXEL_MM, Math.sqrt((w * h) / MOST_PIXELS));
  const board = emptyBitmap(box, pixel);
  fillRings(board, [outline.board], 1);
  for (const ring of outline.cutouts) fillRings(board, [ring], 0);
  const nx = Math.ceil(board.nx / perCell);
  const ny = Math.ceil(board.ny / perCell);
  const inside = countCells(board.data, board.nx, board.ny, perCell, nx);
  const whole = inside.reduce((a, b) => a + b, 0);
  const grids: CoverageGrid[] = [];
  const fraction: number[] = [];
  for (const [layer, shapes] of layers.entries()) {
    const copper = emptyBitmap(box, pixel);
    paintCopper(copper, shapes);
    const counts = countCells(copper.data, board.nx, board.ny, perCell, nx, board.data);
    fraction.push(whole > 0 ? counts.reduce((a, b) => a + b, 0) / whole : 0);
    const bytes = Uint8Array.from(counts, (c, i) => (inside[i] > 0 ? Math.round((255 * c) / inside[i]) : 0));
    grids.push({ layer, x_mm: box.x0, y_mm: box.y0, cell_mm: pixel * perCell, nx, ny, data: encodeBytes(bytes) });
    progress((layer + 1) / layers.length);
  }
  return { fraction, grids };
}

/** Pixels that are set (and set in `within` as well) per cell of `per` × `per` pixels. */
function countCells(
  data: Uint8Array,
  nx: number,
  ny: number,
  per: number,
  cells: number,
  within: Uint8Array = data,
): Float64Array {
  const counts = new Float64Array(cells * Math.ceil(ny / per));
  for (let j = 0; j < ny; j++) {
    const row = Math.floor(j / per) * cells;
    for (let c = 0; c < cells; c++) {
      let sum = 0;
      const end = j * nx + Math.min(nx, (c + 1) * per);
      for (let k = j * nx + c * per; k < end; k++) sum += data[k] & within[k];
      counts[row + c] += sum;
    }
  }
  return counts;
}

type Reader = (x0: number, y0: number, x1: number, y1: number) => number;
const readers = new WeakMap<CoverageGrid, Reader>();

/** Mean coverage in any rectangle (board mm), from a summed table; outside the grid counts as no copper. A grid is summed once: it must not change. */
export function coverageReader(grid: CoverageGrid): Reader {
  const known = readers.get(grid) ?? summed(grid);
  readers.set(grid, known);
  return known;
}

function summed(grid: CoverageGrid): Reader {
  const bytes = decodeBytes(grid.data);
  const { nx, ny, cell_mm: d } = grid;
  const sum = new Float64Array((nx + 1) * (ny + 1));
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++)
      sum[(j + 1) * (nx + 1) + i + 1] =
        (bytes[j * nx + i] ?? 0) / 255 +
        sum[j * (nx + 1) + i + 1] +
        sum[(j + 1) * (nx + 1) + i] -
        sum[j * (nx + 1) + i];
  // integral of coverage from the corner to (u, v) in cells, linear inside a cell
  const integral = (u: number, v: number) => {
    const [a, b] = [Math.min(nx, Math.max(0, u)), Math.min(ny, Math.max(0, v))];
    const [i, j] = [Math.min(nx - 1, Math.floor(a)), Math.min(ny - 1, Math.floor(b))];
    const [fi, fj] = [a - i, b - j];
    const at = j * (nx + 1) + i;
    return (
      sum[at] * (1 - fi) * (1 - fj) +
      sum[at + 1] * fi * (1 - fj) +
      sum[at + nx + 1] * (1 - fi) * fj +
      sum[at + nx + 2] * fi * fj
    );
  };
  return (x0, y0, x1, y1) => {
    const [u0, u1] = [(x0 - grid.x_mm) / d, (x1 - grid.x_mm) / d];
    const [v0, v1] = [(y0 - grid.y_mm) / d, (y1 - grid.y_mm) / d];
    const area = (u1 - u0) * (v1 - v0);
    return area > 0 ? (integral(u1, v1) - integral(u0, v1) - integral(u1, v0) + integral(u0, v0)) / area : 0;
  };
}
