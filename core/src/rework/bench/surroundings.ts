/** What board and lumps exchange with everything round them: air still or blown, radiation, what lies under the board. */
import { LAMINATE } from '../../materials/index.ts';
import { STEFAN_BOLTZMANN, ZERO_CELSIUS_K } from '../../ground/index.ts';
import { type BoardMesh, type HeatRun, overlapOnMesh, sheetConductance } from '../../thermal/index.ts';
import type { AirOn } from './drive.ts';
import type { Box, Lumps } from './lumps.ts';
import type { ReworkCase } from './caseForm.ts';

type Rectangle = { x_mm: number; y_mm: number; w_mm: number; h_mm: number };

/** Contact of the board with what holds it, m²K/W (dry, of metal or fibre), and how it passes heat on, W/(m²·K). Estimates. */
const HELD = { contact_R: 2e-3, h: 100 };

/** Natural convection from a plate, W/(m²·K): top 1.32, bottom 0.59 times (dT/L)^(1/4) (textbook). */
const natural = (factor: number, dT: number, L: number) => factor * Math.sqrt(Math.sqrt(Math.max(dT, 1) / L));

const GLOW = 4 * LAMINATE.emissivity.value * STEFAN_BOLTZMANN;

/** Radiation against surroundings, linearised, W/(m²·K). */
function radiative(surface_C: number, ambient_C: number): number {
  const mean = (surface_C + ambient_C) / 2 + ZERO_CELSIUS_K;
  return GLOW * mean * mean * mean;
}

/** Whether a place, mm, lies in the window of what heats from below. */
function covers(window: Rectangle | undefined, x: number, y: number): boolean {
  if (!window) return true;
  return x >= window.x_mm && x <= window.x_mm + window.w_mm && y >= window.y_mm && y <= window.y_mm + window.h_mm;
}

const inWindow = (window: Rectangle | undefined, { ex, ey }: BoardMesh, i: number, j: number) =>
  covers(window, 500 * (ex[i] + ex[i + 1]), 500 * (ey[j] + ey[j + 1]));

/** Whether what lies under the board heats it. */
export function heatsFromBelow(
  under: ReworkCase['under'],
): under is Extract<ReworkCase['under'], { kind: 'preheater' | 'infrared' }> {
  return under?.kind === 'preheater' || under?.kind === 'infrared';
}

/** Part of a column's lower face that rests on a frame or on props. */
export function heldShare(held: ReworkCase['held'], mesh: BoardMesh): Float64Array | undefined {
  // a housing holds it by its screws, far from the part
  if (!held || held.kind === 'housing') return undefined;
  const { grid, ex, ey, cut } = mesh;
  const share = new Float64Array(mesh.columns);
  const [nx, ny] = [grid.dx.length, grid.dy.length];
  const rest = (box: Box) =>
    overlapOnMesh(mesh, box, (c, area) => {
      share[c] = Math.min(1, share[c] + area / (grid.dx[c % grid.stride] * grid.dy[Math.floor(c / grid.stride)]));
    });
  if (held.kind === 'props') {
    const half = (held.d_mm / 2) * Math.sqrt(Math.PI / 4);
    for (const { x_mm, y_mm } of held.places)
      rest({ x0: x_mm - half, x1: x_mm + half, y0: y_mm - half, y1: y_mm + half });
    return share;
  }
  const [x0, x1, y0, y1] = [ex[0] * 1e3, ex[nx] * 1e3, ey[0] * 1e3, ey[ny] * 1e3];
  const w = held.width_mm;
  if (!cut.west) rest({ x0, x1: x0 + w, y0, y1 });
  if (!cut.east) rest({ x0: x1 - w, x1, y0, y1 });
  if (!cut.north) rest({ x0, x1, y0, y1: y0 + w });
  if (!cut.south) rest({ x0, x1, y0: y1 - w, y1 });
  return share;
}

/** Gives the cells at a cut through the board with their conductance to the rest, W/K: an endless fin that loses about 20 W/(m²·K) from both faces. */
function atCuts(mesh: BoardMesh, give: (cell: number, G: number) => void): void {
  const { grid, cut, columns } = mesh;
  const [nx, ny] = [grid.dx.length, grid.dy.length];
  const thickness = grid.dz.reduce((a, b) => a + b, 0);
  const rim = (i: number, j: number, width: number) => {
    const column = j * grid.stride + i;
    const G = width * Math.sqrt(sheetConductance(mesh, column) * 20);
    for (const [l, dz] of grid.dz.entries()) give(column + l * columns, G * (dz / thickness));
  };
  for (let j = 0; j < ny; j++) {
    if (cut.west) rim(0, j, grid.dy[j]);
    if (cut.east) rim(nx - 1, j, grid.dy[j]);
  }
  for (let i = 0; i < nx; i++) {
    if (cut.north) rim(i, 0, grid.dx[i]);
    if (cut.south) rim(i, ny - 1, grid.dx[i]);
  }
}

/** Everything round the board and the lumps at their present temperatures. */
export function applySurroundings(
  run: HeatRun,
  mesh: BoardMesh,
  lumps: Lumps,
  air: AirOn | undefined,
  { ambient_C, draught = 1, under }: Pick<ReworkCase, 'ambient_C' | 'draught' | 'under'>,
  held: Float64Array | undefined,
  scratch: [Float64Array, Float64Array],
): void {
  const { grid, columns } = mesh;
  const T = run.cells_C;
  const [conductance, constant] = scratch;
  conductance.fill(0);
  constant.fill(0);
  const [nx, ny] = [grid.dx.length, grid.dy.length];
  const size = 0.25 * Math.sqrt((mesh.ex[nx] - mesh.ex[0]) * (mesh.ey[ny] - mesh.ey[0]));
  const bottom = (grid.dz.length - 1) * columns;
  const through = 1 / (1 / HELD.h + HELD.contact_R);
  const exchange = (cell: number, area: number, h: number, wall: number, glow: number) => {
    conductance[cell] += area * (h + glow);
    constant[cell] += area * (h * wall + glow * ambient_C);
  };
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) {
      const column = j * grid.stride + i;
      const area = grid.dx[i] * grid.dy[j];
      // the foil is the surface: no laminate stands between it and the air
      const warm = T[column];
      const still = draught * natural(1.32, warm - ambient_C, size);
      const blown = air !== undefined && air.h[column] > still;
      const [hTop, wallTop] = blown ? [air.h[column], air.wall[column]] : [still, ambient_C];
      exchange(column, area, hTop, wallTop, radiative(warm, ambient_C));
      const c = column + bottom;
      let h = draught * natural(0.59, T[c] - ambient_C, size);
      let wall = ambient_C;
      let glow = radiative(T[c], ambient_C);
      if (under && (under.kind === 'mat' || inWindow(under.window, mesh, i, j))) {
        if (under.kind === 'infrared') constant[c] += under.flux_W_m2 * area;
        else {
          // the heater, or the mat, stands in place of the open air below
          h = under.kind === 'mat' ? 1 / (1 / under.h + under.contact_R) : under.h;
          wall = under.kind === 'mat' ? ambient_C : under.T_C;
          if (under.kind === 'mat') glow = 0;
        }
      }
      if (held && held[column] > 0) {
        // what holds the board stands between it and anything below
        const part = held[column];
        const open = (1 - part) * h;
        wall = (open * wall + part * through * ambient_C) / (open + part * through);
        h = open + part * through;
        glow *= 1 - part;
      }
      exchange(c, area, h, wall, glow);
    }
  // heated all over from below, the rest of the board is as warm as its rim
  if (!(heatsFromBelow(under) && !under.window))
    atCuts(mesh, (cell, G) => {
      conductance[cell] += G;
      constant[cell] += G * ambient_C;
    });
  run.setBoundary(conductance, constant);
  for (const e of lumps.exposed) {
    run.hA[e.node] = 0;
    run.Tinf[e.node] = ambient_C;
  }
  for (const [n, e] of lumps.exposed.entries()) {
    const T = run.T[e.node];
    const glow = radiative(T, ambient_C) * (e.top + e.sides);
    const a = air?.lumps[n];
    if (e.far && under?.kind === 'preheater' && covers(under.window, e.x, e.y)) {
      // it hangs into what heats from below
      run.hA[e.node] = under.h * (e.top + e.sides);
      run.Tinf[e.node] = under.T_C;
      continue;
    }
    const still = draught * natural(1.32, T - ambient_C, 3e-3);
    const top = Math.max(a?.h ?? 0, still) * e.top;
    const sides = Math.max(a?.hSide ?? 0, still) * e.sides;
    const wall = a && a.h > still ? a.wall : ambient_C;
    run.hA[e.node] = top + sides + glow;
    run.Tinf[e.node] = ((top + sides) * wall + glow * ambient_C) / (top + sides + glow);
  }
}
