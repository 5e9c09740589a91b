/**
 * Three boards with copper as it is laid, for the comparison with a general-purpose finite-element program (core/scripts/independent.ts): a still jet
 * over the middle, air everywhere else, no parts. All copper lies on pixels of `PIXEL_MM`, so that both sides see the same.
 */
import type { BoardModel } from '../src/board/boardModel.ts';
import { copperCoverage, type CopperShape } from '../src/copper/index.ts';
import { emptyBitmap, paintCopper } from '../src/copper/raster.ts';
import { randomOf } from '../src/ground/numerics/random.ts';
import { meshBoard, type BoardMesh } from '../src/thermal/boardMesh.ts';
import { cellAt } from '../src/thermal/grid.ts';
import { HeatRun } from '../src/thermal/heatRun.ts';
import { jetOf, tabulated } from '../src/thermal/jet.ts';

export const PIXEL_MM = 0.25;
export const SIZE_MM = [50, 40] as const;
export const TIMES_S = [20, 60] as const;
export const AMBIENT_C = 22;
/** Still air and radiation, W/(m²·K), where the jet brings less. */
export const STILL = { top: 14, bottom: 12 } as const;
/** The nozzle stands over the middle. */
export const JET = tabulated(
  jetOf({
    flow_L_min: 45,
    nozzle_mm: 8,
    standoff_mm: 14,
    set_C: 390,
    ambient_C: AMBIENT_C,
    efficiency: 0.85,
    handFactor: 0.75,
  }),
);
/** Distances from the nozzle's axis at which top and bottom are compared, along x, mm. */
export const PLACES_MM = [0, 10] as const;

interface Layer {
  foil_um: number;
  /** Below this foil, mm; 0 for the last. */
  laminate_mm: number;
  shapes: CopperShape[];
}
export interface IndependentBoard {
  name: string;
  layers: Layer[];
}

const rectangle = (x0: number, y0: number, x1: number, y1: number): CopperShape => ({
  k: 'area',
  n: -1,
  r: [[x0, y0, x1, y0, x1, y1, x0, y1]],
});

/** Bent tracks of one or two pixels, none touching another but at a few crossings, until so much is covered. */
function tracks(seed: number, share: number): CopperShape[] {
  const random = randomOf(seed);
  const [w, h] = SIZE_MM.map((v) => v / PIXEL_MM);
  const taken = new Uint8Array(w * h);
  const shapes: CopperShape[] = [];
  let covered = 0;
  for (let tries = 0; covered < share * w * h && tries < 200_000; tries++) {
    const wide = random() < 0.3 ? 2 : 1;
    const length = 12 + Math.floor(60 * random());
    const flat = random() < 0.5;
    const [lx, ly] = flat ? [length, wide] : [wide, length];
    const [x, y] = [Math.floor(random() * (w - 2)), Math.floor(random() * (h - 2))];
    const [x1, y1] = [Math.min(w, x + lx), Math.min(h, y + ly)];
    let near = false;
    for (let j = Math.max(0, y - 1); j < Math.min(h, y1 + 1) && !near; j++)
      for (let i = Math.max(0, x - 1); i < Math.min(w, x1 + 1); i++) if (taken[j * w + i]) near = true;
    if (near && random() < 0.95) continue;
    for (let j = y; j < y1; j++)
      for (let i = x; i < x1; i++) {
        covered += 1 - taken[j * w + i];
        taken[j * w + i] = 1;
      }
    shapes.push(rectangle(x * PIXEL_MM, y * PIXEL_MM, x1 * PIXEL_MM, y1 * PIXEL_MM));
  }
  return shapes;
}

/** A plane with square openings round holes, until so much is covered: strips between them. */
function plane(seed: number, share: number): CopperShape[] {
  const random = randomOf(seed);
  const [w, h] = SIZE_MM.map((v) => v / PIXEL_MM);
  const open = new Uint8Array(w * h);
  let left = w * h;
  while (left > share * w * h) {
    const [x, y] = [Math.floor(random() * (w - 4)), Math.floor(random() * (h - 4))];
    for (let j = y; j < y + 4; j++)
      for (let i = x; i < x + 4; i++) {
        left -= 1 - open[j * w + i];
        open[j * w + i] = 1;
      }
  }
  const shapes: CopperShape[] = [];
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      if (open[j * w + i]) continue;
      let end = i;
      while (end < w && !open[j * w + end]) end++;
      shapes.push(rectangle(i * PIXEL_MM, j * PIXEL_MM, end * PIXEL_MM, (j + 1) * PIXEL_MM));
      i = end;
    }
  return shapes;
}

export const INDEPENDENT_BOARDS: readonly IndependentBoard[] = [
  {
    name: 'two layers of broken tracks',
    layers: [
      { foil_um: 35, laminate_mm: 1.53, shapes: tracks(1, 0.35) },
      { foil_um: 35, laminate_mm: 0, shapes: tracks(2, 0.4) },
    ],
  },
  {
    name: 'four layers with planes',
    layers: [
      { foil_um: 45, laminate_mm: 0.3, shapes: tracks(3, 0.4) },
      { foil_um: 35, laminate_mm: 0.84, shapes: plane(4, 0.88) },
      { foil_um: 35, laminate_mm: 0.3, shapes: plane(5, 0.85) },
      { foil_um: 45, laminate_mm: 0, shapes: tracks(6, 0.4) },
    ],
  },
  {
    name: 'six layers, heavy copper',
    layers: [
      { foil_um: 70, laminate_mm: 0.25, shapes: tracks(7, 0.45) },
      { foil_um: 105, laminate_mm: 0.3, shapes: plane(8, 0.85) },
      { foil_um: 70, laminate_mm: 0.3, shapes: tracks(9, 0.4) },
      { foil_um: 70, laminate_mm: 0.3, shapes: plane(10, 0.8) },
      { foil_um: 105, laminate_mm: 0.25, shapes: plane(11, 0.85) },
      { foil_um: 70, laminate_mm: 0, shapes: tracks(12, 0.45) },
    ],
  },
];

/** Copper of a layer pixel by pixel, ny × nx, 1 where there is some. */
export function pixelsOf(layer: Layer): Uint8Array {
  const bitmap = emptyBitmap({ x0: 0, y0: 0, x1: SIZE_MM[0], y1: SIZE_MM[1] }, PIXEL_MM);
  paintCopper(bitmap, layer.shapes);
  return bitmap.data;
}

/** The same board as a plan knows it: thickness, stack and coverage as an import reads them. */
function modelOf(board: IndependentBoard): BoardModel {
  const [w, h] = SIZE_MM;
  const { fraction, grids } = copperCoverage(
    { board: [0, 0, w, 0, w, h, 0, h], cutouts: [] },
    board.layers.map((l) => l.shapes),
  );
  return {
    v: 1,
    name: board.name,
    outline_mm: [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ],
    thickness_mm: board.layers.reduce((sum, l) => sum + l.foil_um / 1000 + l.laminate_mm, 0),
    stack: board.layers.map((l, i) => ({ name: `L${i + 1}`, foil_um: l.foil_um, coverage: fraction[i] })),
    coverage: grids,
    copper: [],
    vias: [],
    holes: [],
    parts: [{ partId: 'middle', package: 'SOIC-8', x_mm: w / 2, y_mm: h / 2, rotation_deg: 0, side: 'top' }],
    landmarks: [],
    flipAxis_mm: w / 2,
    powerSources: [],
    jointAlloy: 'SAC305',
  };
}

export interface Reading {
  t_s: number;
  x_mm: number;
  top_C: number;
  bottom_C: number;
}

/** Reads a layer (its first cell given) between the centres of cells, place in m. */
function interpolated({ grid, ex, ey }: BoardMesh) {
  const between = (edges: Float64Array, v: number): [number, number] => {
    const centre = (i: number) => (edges[i] + edges[i + 1]) / 2;
    let i = cellAt(edges, v);
    if (v < centre(i)) i--;
    return [i, (v - centre(i)) / (centre(i + 1) - centre(i))];
  };
  return (T: Float64Array, first: number, x: number, y: number) => {
    const [[i, u], [j, v]] = [between(ex, x), between(ey, y)];
    const at = (a: number, b: number) => T[first + b * grid.stride + a];
    return (1 - v) * ((1 - u) * at(i, j) + u * at(i + 1, j)) + v * ((1 - u) * at(i, j + 1) + u * at(i + 1, j + 1));
  };
}

/** Temperatures of a board by the heat model of plans, at their mesh and step. */
export function byOurs(board: IndependentBoard): Reading[] {
  const model = modelOf(board);
  const mesh = meshBoard(model, model.parts[0], 14_000);
  const { grid, columns } = mesh;
  const [cx, cy] = SIZE_MM.map((v) => v / 2000);
  const bottom = (grid.dz.length - 1) * columns;
  const run = new HeatRun({ grid, nodes: [], links: [], quick: true, uneven: { longestStep_s: 0.05 } }, AMBIENT_C);
  const conductance = new Float64Array(grid.kx.length);
  const constant = new Float64Array(grid.kx.length);
  for (let j = 0; j < grid.dy.length; j++)
    for (let i = 0; i < grid.dx.length; i++) {
      const c = j * grid.stride + i;
      const area = grid.dx[i] * grid.dy[j];
      const r = Math.hypot((mesh.ex[i] + mesh.ex[i + 1]) / 2 - cx, (mesh.ey[j] + mesh.ey[j + 1]) / 2 - cy);
      const blown = JET.h(r) > STILL.top;
      const [h, air] = blown ? [JET.h(r), JET.wall_C(r)] : [STILL.top, AMBIENT_C];
      [conductance[c], constant[c]] = [h * area, h * area * air];
      [conductance[c + bottom], constant[c + bottom]] = [STILL.bottom * area, STILL.bottom * area * AMBIENT_C];
    }
  run.setBoundary(conductance, constant);
  const readings: Reading[] = [];
  const read = interpolated(mesh);
  for (const t_s of TIMES_S) {
    while (run.time < t_s - 1e-9) run.step(0.05);
    for (const x_mm of PLACES_MM) {
      const T = run.kernel?.T ?? new Float64Array();
      const at = (first: number) => read(T, first, cx + x_mm / 1000, cy);
      readings.push({ t_s, x_mm, top_C: at(0), bottom_C: at(bottom) });
    }
  }
  run.checkBounds();
  return readings;
}
