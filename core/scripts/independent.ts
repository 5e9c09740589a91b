/**
 * Computes the boards of core/test/independentBoards.ts by a general-purpose finite-element program and writes core/test/independent.json, which the
 * tests compare the heat model with: npx tsx core/scripts/independent.ts [PROGRAM]. PROGRAM is FreeFem++ (Debian's package freefem++); for
 * developers, the product does not depend on it. Linear tetrahedra, foils as layers of their own, copper pixel by pixel of 0.25 mm,
 * Crank–Nicolson with half a second; a few minutes a board.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  AMBIENT_C,
  INDEPENDENT_BOARDS,
  JET,
  PIXEL_MM,
  pixelsOf,
  PLACES_MM,
  SIZE_MM,
  STILL,
  TIMES_S,
  type IndependentBoard,
  type Reading,
} from '../test/independentBoards.ts';
import { COPPER, LAMINATE } from '../src/materials/laminate.ts';

const program = process.argv[2] ?? 'FreeFem++';
const STEP_S = 0.5;
const [NX, NY] = SIZE_MM.map((v) => Math.round(v / PIXEL_MM));
const TABLE = { step: 1e-4, places: 500 };

/** Elements through the thickness, from the top: their height, m, and the copper layer they are, or -1. */
function levels(board: IndependentBoard): { dz: number; layer: number }[] {
  return board.layers.flatMap((l, layer) => {
    const sheets = l.laminate_mm === 0 ? 0 : Math.max(2, Math.round(l.laminate_mm / 0.25));
    return [
      { dz: l.foil_um * 1e-6, layer },
      ...Array.from({ length: sheets }, () => ({ dz: (l.laminate_mm * 1e-3) / sheets, layer: -1 })),
    ];
  });
}

function script(board: IndependentBoard, dir: string): string {
  const sheets = levels(board);
  const numbers = (name: string, values: Iterable<number>) => {
    const list = [...values];
    writeFileSync(join(dir, name), `${list.length}\n${list.join('\n')}\n`);
  };
  // z runs from the top downwards
  const z = sheets.reduce<number[]>((all, s) => [...all, all[all.length - 1] + s.dz], [0]);
  numbers('z', z);
  numbers(
    'layer',
    sheets.map((s) => s.layer),
  );
  numbers(
    'copper',
    board.layers.flatMap((l) => [...pixelsOf(l)]),
  );
  const radii = Array.from({ length: TABLE.places }, (_, i) => i * TABLE.step);
  const blown = (r: number) => JET.h(r) > STILL.top;
  numbers(
    'h',
    radii.map((r) => (blown(r) ? JET.h(r) : STILL.top)),
  );
  numbers(
    'air',
    radii.map((r) => (blown(r) ? JET.wall_C(r) : AMBIENT_C)),
  );
  const [lx, ly] = SIZE_MM.map((v) => v / 1000);
  const file = (name: string) => JSON.stringify(join(dir, name));
  const probe = (t: number) =>
    PLACES_MM.map(
      (mm) =>
        `cout << "READ ${t} ${mm} " << T(${lx / 2 + mm / 1000}, ${ly / 2}, 0) << " " << T(${lx / 2 + mm / 1000}, ${ly / 2}, zs(nz)) << endl;`,
    ).join(' ');
  return `
load "msh3" load "MUMPS_seq"
int nx = ${NX}, ny = ${NY}, nz = ${sheets.length};
func real[int] take(string name) { int n; ifstream f(name); f >> n; real[int] v(n); for (int i = 0; i < n; i++) f >> v[i]; return v; }
real[int] zs = take(${file('z')}); real[int] layer = take(${file('layer')}); real[int] copper = take(${file('copper')});
real[int] hs = take(${file('h')}); real[int] airs = take(${file('air')});
mesh3 Th = cube(nx, ny, nz, [x * ${lx}, y * ${ly}, zs[int(z * nz + 0.5)]]);
func int sheet(real zz) { int s = 0; while (s < nz - 1 && zz > zs[s + 1]) s++; return s; }
func real cu(real xx, real yy, real zz) {
  int l = layer[sheet(zz)]; if (l < 0) return 0.;
  int i = min(nx - 1, int(xx / ${PIXEL_MM / 1000})), j = min(ny - 1, int(yy / ${PIXEL_MM / 1000}));
  return copper[l * nx * ny + j * nx + i];
}
func real table(real[int] &v, real r) { real a = min(r / ${TABLE.step}, ${TABLE.places - 1.001}); int i = int(a); return v[i] + (a - i) * (v[i + 1] - v[i]); }
func real radius(real xx, real yy) { return sqrt((xx - ${lx / 2})^2 + (yy - ${ly / 2})^2); }
fespace P0(Th, P03d); fespace V(Th, P13d);
P0 c = cu(x, y, z);
P0 kxy = ${LAMINATE.kInPlane.value} + (${COPPER.k.value} - ${LAMINATE.kInPlane.value}) * c, kz = ${LAMINATE.kThrough.value} + (${COPPER.k.value} - ${LAMINATE.kThrough.value}) * c;
P0 rc = ${LAMINATE.rhoc.value} + (${COPPER.rhoc.value} - ${LAMINATE.rhoc.value}) * c;
V h = table(hs, radius(x, y)), air = table(airs, radius(x, y));
V T = ${AMBIENT_C}, u, v;
// zero is the top face of the cube's numbering when z = 0: label 5; the bottom is label 6
varf keeps(u, v) = int3d(Th)(rc * u * v / ${STEP_S});
varf flows(u, v) = int3d(Th)(kxy * (dx(u) * dx(v) + dy(u) * dy(v)) + kz * dz(u) * dz(v)) + int2d(Th, 5)(h * u * v) + int2d(Th, 6)(${STILL.bottom} * u * v);
varf gains(u, v) = int2d(Th, 5)(h * air * v) + int2d(Th, 6)(${STILL.bottom * AMBIENT_C} * v);
matrix C = keeps(V, V), K = flows(V, V);
real[int] b = gains(0, V);
matrix A = C + 0.5 * K, B = C + (-0.5) * K;
set(A, solver = sparsesolver, sym = 1, positive = 1);
cout << "SIZE " << V.ndof << endl;
for (int n = 1; n <= ${TIMES_S[TIMES_S.length - 1] / STEP_S}; n++) {
  real[int] rhs = B * T[]; rhs += b; real[int] sol = T[]; sol = A^-1 * rhs; T[] = sol;
${TIMES_S.map((t) => `  if (n == ${t / STEP_S}) { ${probe(t)} }`).join('\n')}
}
`;
}

function byTheirs(board: IndependentBoard): Reading[] {
  const dir = mkdtempSync(join(tmpdir(), 'orthos-independent-'));
  try {
    writeFileSync(join(dir, 'board.edp'), script(board, dir).replaceAll('zs(nz)', 'zs[nz]'));
    const { stdout, status, error } = spawnSync(program, ['-nw', '-v', '0', join(dir, 'board.edp')], {
      encoding: 'utf8',
      maxBuffer: 1e8,
      // where Debian keeps its plug-ins
      env: { FF_LOADPATH: '/usr/lib/freefem++', ...process.env },
    });
    if (error ?? status !== 0)
      throw new Error(`${program} failed on "${board.name}": ${error ? String(error) : stdout.slice(-2000)}`);
    return [...stdout.matchAll(/^READ (\S+) (\S+) (\S+) (\S+)$/gm)].map(([, t_s, x_mm, top_C, bottom_C]) => ({
      t_s: Number(t_s),
      x_mm: Number(x_mm),
      top_C: Number(top_C),
      bottom_C: Number(bottom_C),
    }));
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

const results: Record<string, Reading[]> = {};
for (const board of INDEPENDENT_BOARDS) {
  process.stderr.write(`${board.name}\n`);
  results[board.name] = byTheirs(board);
  process.stderr.write(`${JSON.stringify(results[board.name])}\n`);
}
writeFileSync(new URL('../test/independent.json', import.meta.url), `${JSON.stringify(results, null, 2)}\n`);
