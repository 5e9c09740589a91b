/**
 * What a run leaves: heat in board and parts, metal of the joints, and what lands, laminate and the part's own body have been through. A later run
 * on the same board starts from it, on a mesh of its own.
 */
import { z } from 'zod';
import { compositionSchema } from '../../alloys/index.ts';
import type { Side } from '../../board/index.ts';
import { exposureRecordSchema } from '../../materials/index.ts';
import { type BoardMesh, columnAt, type HeatRun } from '../../thermal/index.ts';
import type { ReworkCase } from './caseForm.ts';
import type { Lumps } from './lumps.ts';
import { enthalpyOf } from './target.ts';

const celsius = z.number().min(-100).max(2000);
const edges = z.array(z.number()).min(2).max(2000);

export const runStateSchema = z
  .strictObject({
    v: z.literal(1),
    /** The part that was worked at, and the side it was worked from. */
    target: z.string(),
    side: z.enum(['top', 'bottom']),
    /** Cell edges, mm: on the board, and down from the working side. */
    x_mm: edges,
    y_mm: edges,
    z_mm: edges,
    /** Cells, layer by layer from the working side, each ny × nx row-major, °C. */
    T_C: z.array(celsius).max(200_000),
    body_C: celsius,
    /** Hottest segment of every part round it. */
    neighbours: z.array(z.strictObject({ partId: z.string(), C: celsius })).max(5000),
    joints: z
      .array(
        z.strictObject({
          terminal: z.string(),
          C: celsius,
          alloy: compositionSchema,
          own_mm3: z.number().positive(),
          with: z.array(z.strictObject({ alloy: compositionSchema, ratio: z.number().positive() })).max(50),
        }),
      )
      .max(2000),
    lands: z
      .array(
        z.strictObject({
          terminal: z.string(),
          aboveTg_s: z.number().min(0),
          exposure_K_s: z.number().min(0),
          peak_C: celsius,
        }),
      )
      .max(2000),
    /** Seconds by temperature of the part's body, and of the hottest land. */
    body: exposureRecordSchema,
    board: exposureRecordSchema,
  })
  .refine((s) => s.T_C.length === (s.x_mm.length - 1) * (s.y_mm.length - 1) * (s.z_mm.length - 1), {
    error: 'wants a temperature for every cell',
    path: ['T_C'],
  });
export type RunState = z.infer<typeof runStateSchema>;

export const inMm = (edges_m: Float64Array) => Array.from(edges_m, (v) => v * 1000);

/** Edges of the layers, mm from the face that layer 0 has. */
export function depths({ grid }: BoardMesh): number[] {
  const at = [0];
  for (const dz of grid.dz) at.push(at[at.length - 1] + dz * 1000);
  return at;
}

/** What a run has come to. */
export function stateOf(
  heat: HeatRun,
  mesh: BoardMesh,
  lumps: Lumps,
  history: Pick<RunState, 'lands' | 'body' | 'board'>,
  { target, side }: { target: string; side: Side },
): RunState {
  const { grid, columns } = mesh;
  const [nx, ny] = [grid.dx.length, grid.dy.length];
  const T_C: number[] = [];
  for (let l = 0; l < grid.dz.length; l++)
    for (let j = 0; j < ny; j++) for (let i = 0; i < nx; i++) T_C.push(heat.cells_C[l * columns + j * grid.stride + i]);
  return {
    v: 1,
    target,
    side,
    x_mm: inMm(mesh.ex),
    y_mm: inMm(mesh.ey),
    z_mm: depths(mesh),
    T_C,
    body_C: heat.T[lumps.body],
    neighbours: lumps.neighbours
      .filter((n) => n.nodes.length > 0)
      .map((n) => ({ partId: n.part.partId, C: Math.max(...n.nodes.map((i) => heat.T[i])) })),
    joints: lumps.joints.map(({ terminal, node, metal }) => ({
      terminal: terminal.id,
      C: heat.T[node],
      alloy: metal.alloy,
      own_mm3: metal.own_mm3,
      with: [...metal.with],
    })),
    ...history,
  };
}

/** Puts a state into lumps that were just built, and returns the temperatures of the cells of their mesh, °C. */
export function putState(state: RunState, input: ReworkCase, side: Side, mesh: BoardMesh, lumps: Lumps): Float64Array {
  const field = remap(state, input.ambient_C, side, mesh);
  const same = state.target === input.target;
  const at = (x_mm: number, y_mm: number) => field[columnAt(mesh, x_mm, y_mm)];
  // what was never looked at is as warm as the board below it
  for (const e of lumps.exposed) lumps.nodes[e.node].T0 = at(e.x, e.y);
  if (same) lumps.nodes[lumps.body].T0 = state.body_C;
  for (const { part, nodes } of lumps.neighbours) {
    const C = state.neighbours.find((n) => n.partId === part.partId)?.C ?? at(part.x_mm, part.y_mm);
    for (const node of nodes) lumps.nodes[node].T0 = C;
  }
  for (const joint of lumps.joints) {
    const node = lumps.nodes[joint.node];
    const before = same ? state.joints.find((j) => j.terminal === joint.terminal.id) : undefined;
    node.T0 = before?.C ?? at(joint.x, joint.y);
    if (!before || node.type !== 'joint') continue;
    const { alloy, own_mm3, with: others } = before;
    joint.metal = { alloy, own_mm3, with: others };
    node.enthalpy = enthalpyOf(joint.metal, joint.terminal);
  }
  return field;
}

/** Means over the cells of another mesh of the same board; what lay beyond the first is at ambient. */
function remap(state: RunState, ambient_C: number, side: Side, mesh: BoardMesh): Float64Array {
  const { grid, columns } = mesh;
  const nx = state.x_mm.length - 1;
  const ny = state.y_mm.length - 1;
  // worked from the other side, the layers count from the other face
  const turned = state.side !== side;
  const depth = state.z_mm[state.z_mm.length - 1];
  const z_mm = turned ? [...state.z_mm].reverse().map((z) => depth - z) : state.z_mm;
  const layer = (l: number) => (turned ? z_mm.length - 2 - l : l);
  const [xs, ys, zs] = [
    sharesOf(state.x_mm, inMm(mesh.ex)),
    sharesOf(state.y_mm, inMm(mesh.ey)),
    sharesOf(z_mm, depths(mesh)),
  ];
  const field = new Float64Array(columns * grid.dz.length).fill(ambient_C);
  for (const [l, inZ] of zs.entries())
    for (const [j, inY] of ys.entries())
      for (const [i, inX] of xs.entries()) {
        let [sum, share] = [0, 0];
        for (const [k, wz] of inZ)
          for (const [r, wy] of inY)
            for (const [c, wx] of inX) {
              const w = wz * wy * wx;
              sum += w * state.T_C[(layer(k) * ny + r) * nx + c];
              share += w;
            }
        field[l * columns + j * grid.stride + i] = sum + (1 - share) * ambient_C;
      }
  return field;
}

/** For each interval of `to`: which intervals of `from` lie in it, and what share of it each fills. */
export function sharesOf(from: readonly number[], to: readonly number[]): [number, number][][] {
  return to.slice(1).map((end, i) => {
    const start = to[i];
    return from.slice(1).flatMap((b, n): [number, number][] => {
      const overlap = Math.min(end, b) - Math.max(start, from[n]);
      return overlap > 0 ? [[n, overlap / (end - start)]] : [];
    });
  });
}
