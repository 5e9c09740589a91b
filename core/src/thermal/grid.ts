/**
 * A board as a tensor grid: cell sizes along x, y and through the thickness, properties per cell.
 * Index c = (l·ny + j)·stride + i with l = 0 on the working side; `stride` is nx padded.
 */
import { createGridKernel, paddedRow, type GridKernel, type SweepOrder, type Sweeps } from './gridKernel.ts';

export interface BoardGrid {
  /** Cell widths, m. */
  dx: Float64Array;
  dy: Float64Array;
  dz: Float64Array;
  stride: number;
  /** In-plane and through-thickness conductivity, W/(m·K). */
  kx: Float64Array;
  ky: Float64Array;
  kz: Float64Array;
  /** Heat capacity per volume, J/(m³·K). */
  rhoc: Float64Array;
  /** How deep below the upper face each layer's temperature is meant, m: in its middle where nothing is said, else where its foil lies. */
  depth?: Float64Array;
}

/** Allocates a grid of the given spacings with all properties zero. */
export function emptyGrid(dx: Float64Array, dy: Float64Array, dz: Float64Array): BoardGrid {
  const stride = paddedRow(dx.length);
  const cells = stride * dy.length * dz.length;
  const field = () => new Float64Array(cells);
  return { dx, dy, dz, stride, kx: field(), ky: field(), kz: field(), rhoc: field() };
}

export function cellCount(g: BoardGrid): number {
  return g.dx.length * g.dy.length * g.dz.length;
}

/** Edges of the cells (n + 1 values from 0), m. */
export function cellEdges(d: Float64Array): Float64Array {
  const edges = new Float64Array(d.length + 1);
  for (let i = 0; i < d.length; i++) edges[i + 1] = edges[i] + d[i];
  return edges;
}

/** The cell that holds position x; positions outside belong to the nearest cell. */
export function cellAt(edges: Float64Array, x: number): number {
  let lo = 0;
  let hi = edges.length - 2;
  while (lo < hi) {
    const mid = (lo + hi + 1) >> 1;
    if (edges[mid] <= x) lo = mid;
    else hi = mid - 1;
  }
  return lo;
}

/**
 * Calls `visit(column, area)` with the overlap (m²) of an axis-parallel rectangle with every column
 * it touches; `column` = j·stride + i.
 */
export function overlapRectangle(
  g: BoardGrid,
  ex: Float64Array,
  ey: Float64Array,
  rect: { x0: number; x1: number; y0: number; y1: number },
  visit: (column: number, area: number) => void,
): void {
  const i1 = cellAt(ex, rect.x1);
  const j1 = cellAt(ey, rect.y1);
  for (let j = cellAt(ey, rect.y0); j <= j1; j++) {
    const h = Math.min(rect.y1, ey[j + 1]) - Math.max(rect.y0, ey[j]);
    if (h <= 0) continue;
    for (let i = cellAt(ex, rect.x0); i <= i1; i++) {
      const w = Math.min(rect.x1, ex[i + 1]) - Math.max(rect.x0, ex[i]);
      if (w > 0) visit(j * g.stride + i, w * h);
    }
  }
}

/** Makes a kernel with the grid's conductances (in series from where one temperature is meant to the next) and its cell capacities, J/K. */
export function assemble(
  g: BoardGrid,
  options: { sweeps: Sweeps; order: SweepOrder },
): { kernel: GridKernel; capacity: Float64Array } {
  const [nx, ny, nl] = [g.dx.length, g.dy.length, g.dz.length];
  const kernel = createGridKernel(nx, ny, nl, options);
  const { stride } = g;
  const plane = stride * ny;
  const faces = cellEdges(g.dz);
  const depth = g.depth ?? g.dz.map((d, l) => faces[l] + d / 2);
  const capacity = new Float64Array(plane * nl).fill(1);
  for (let l = 0; l < nl; l++)
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) {
        const c = (l * ny + j) * stride + i;
        const [wx, wy, wz] = [g.dx[i], g.dy[j], g.dz[l]];
        capacity[c] = g.rhoc[c] * wx * wy * wz;
        if (i < nx - 1) kernel.GX[c] = (wy * wz) / (wx / (2 * g.kx[c]) + g.dx[i + 1] / (2 * g.kx[c + 1]));
        if (j < ny - 1) kernel.GY[c] = (wx * wz) / (wy / (2 * g.ky[c]) + g.dy[j + 1] / (2 * g.ky[c + stride]));
        if (l < nl - 1)
          kernel.GZ[c] =
            (wx * wy) / ((faces[l + 1] - depth[l]) / g.kz[c] + (depth[l + 1] - faces[l + 1]) / g.kz[c + plane]);
      }
  return { kernel, capacity };
}
