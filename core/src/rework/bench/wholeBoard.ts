/**
 * The whole board between runs: coarse, cooling with what stands on it. It takes over the heat that a run leaves, as much as there was, and hands the
 * next one a field to start from. Runs have meshes of their own, fine at their target and cut off far from it; this one carries between them.
 */
import type { PlacedPart } from '../../board/index.ts';
import { packageById } from '../../packages/index.ts';
import { type BoardMesh, columnAt, HeatRun, meshWhole } from '../../thermal/index.ts';
import type { ReworkCase } from './caseForm.ts';
import { mergeLinks } from './buildLumps.ts';
import { limitOf } from './limitOf.ts';
import type { Lumps } from './lumps.ts';
import { addBody } from './neighbours.ts';
import type { ReworkRun } from './reworkRun.ts';
import { depths, inMm, type RunState, sharesOf } from './runState.ts';
import { applySurroundings, heldShare } from './surroundings.ts';

/** Cells, mm, and steps, s: a board without tools on it changes slowly. 38 000 cells on 200 × 300 mm; roughly, where only the order of things is asked. */
const FINENESS = { usual: { cell_mm: 2.5, step_s: 1 }, rough: { cell_mm: 5, step_s: 4 } } as const;
/** Surroundings are renewed every so many steps. */
const RENEW = 4;
/** Bodies that hold less take the temperature of the board below them, J/K. */
const LEAST_J_K = 0.2;

const NOTHING = { seconds: [], peak_C: null };

type Found = Pick<ReworkCase, 'board' | 'ambient_C' | 'under' | 'held' | 'draught'>;

interface Options {
  absent?: Iterable<string>;
  /** How warm everything is, °C: as the room without. */
  from_C?: number;
  fineness?: keyof typeof FINENESS;
}

export class WholeBoard {
  readonly mesh: BoardMesh;
  /** s since it was made. */
  time = 0;
  private readonly found: Found;
  private readonly step_s: number;
  private readonly held: Float64Array | undefined;
  private readonly scratch: [Float64Array, Float64Array];
  /** Parts that are off the board. */
  private readonly off: Set<string>;
  private lumps: Lumps;
  private heat: HeatRun;

  /** Everything at `from_C`; `absent`: parts that are off the board from the beginning. */
  constructor(found: Found, { absent = [], from_C = found.ambient_C, fineness = 'usual' }: Options = {}) {
    this.found = found;
    this.off = new Set(absent);
    this.step_s = FINENESS[fineness].step_s;
    this.mesh = meshWhole(found.board, FINENESS[fineness].cell_mm);
    this.held = heldShare(found.held, this.mesh);
    const cells = this.mesh.grid.kx.length;
    this.scratch = [new Float64Array(cells), new Float64Array(cells)];
    this.lumps = this.lumpsOf(from_C);
    this.heat = this.heatFrom(from_C);
  }

  /** Time passes without tools on it. */
  cool(s: number): void {
    let left = s;
    for (let n = 0; left > 1e-9; n++) {
      const dt = Math.min(this.step_s, left);
      if (n % RENEW === 0) this.surround();
      this.heat.step(dt);
      left -= dt;
    }
    this.time += s;
  }

  /** Cools until it is so, `most_s` at the longest: how long that took, s. */
  coolUntil(isCool: () => boolean, most_s: number): number {
    const from = this.time;
    while (!isCool() && this.time < from + most_s - 1e-9) this.cool(this.step_s);
    return this.time - from;
  }

  /** The hottest of the board under a part, on its side, and of its body, °C. */
  temperatureOf(part: PlacedPart): number {
    const { heat, mesh } = this;
    const pkg = packageById(part.package);
    const slab = part.side === 'bottom' ? (mesh.grid.dz.length - 1) * mesh.columns : 0;
    const at = (x: number, y: number) => heat.cells_C[columnAt(mesh, x, y) + slab];
    const [l, w] = [pkg.body.l / 2, pkg.body.w / 2];
    const r = (part.rotation_deg * Math.PI) / 180;
    const corners = [
      [0, 0],
      [l, w],
      [-l, w],
      [l, -w],
      [-l, -w],
    ].map(([x, y]) => at(part.x_mm + x * Math.cos(r) + y * Math.sin(r), part.y_mm - x * Math.sin(r) + y * Math.cos(r)));
    return Math.max(...corners, ...this.nodesOf(part.partId).map((n) => heat.T[n]));
  }

  /** Mean rise of the board over ambient at a place, all layers, K. */
  riseAt(x_mm: number, y_mm: number): number {
    const { mesh, heat, found } = this;
    const { dz } = mesh.grid;
    const column = columnAt(mesh, x_mm, y_mm);
    const sum = dz.reduce((s, d, l) => s + d * heat.cells_C[column + l * mesh.columns], 0);
    return sum / dz.reduce((s, d) => s + d, 0) - found.ambient_C;
  }

  /** A part has come off, or gone on: its body is no longer there, or is again, as warm as the room. */
  change(partId: string, there: boolean): void {
    if (there) this.off.delete(partId);
    else this.off.add(partId);
    const cells = this.cells();
    const bodies = this.bodies();
    this.lumps = this.lumpsOf(this.found.ambient_C);
    for (const { part, nodes } of this.lumps.neighbours)
      nodes.forEach((node, n) => (this.lumps.nodes[node].T0 = bodies.get(part.partId)?.[n] ?? this.found.ambient_C));
    this.heat = this.heatFrom(cells);
  }

  /** What a run on `target` starts from. */
  state(target: string): RunState {
    const { mesh, heat } = this;
    const { grid, columns } = mesh;
    const T_C: number[] = [];
    for (let l = 0; l < grid.dz.length; l++)
      for (let j = 0; j < grid.dy.length; j++)
        for (let i = 0; i < grid.dx.length; i++) T_C.push(heat.cells_C[l * columns + j * grid.stride + i]);
    const bodies = [...this.bodies()].map(([partId, C]) => ({ partId, C: Math.max(...C) }));
    return {
      ...{ v: 1, target: '', side: 'top' },
      ...{ x_mm: inMm(mesh.ex), y_mm: inMm(mesh.ey), z_mm: depths(mesh), T_C },
      body_C: bodies.find((b) => b.partId === target)?.C ?? this.found.ambient_C,
      neighbours: bodies,
      ...{ joints: [], lands: [], body: NOTHING, board: NOTHING },
    };
  }

  /** A run on this board has ended: its time passes for what lay beyond it, the rest is as warm as it left it. */
  take(run: ReworkRun): void {
    const { mesh, found } = this;
    const from = run.mesh;
    if (Object.values(from.cut).some(Boolean)) this.cool(run.time);
    else this.time += run.time;
    const depth = depths(mesh);
    const thickness = depth[depth.length - 1];
    const turned = run.target.side === 'bottom';
    const down = depths(from);
    const layers = down.length - 1;
    const z = sharesOf(turned ? [...down].reverse().map((v) => thickness - v) : down, depth);
    const [ys, xs] = [sharesOf(inMm(from.ey), inMm(mesh.ey)), sharesOf(inMm(from.ex), inMm(mesh.ex))];
    const cells = this.cells();
    const rhoc = from.grid.rhoc;
    for (const [l, inZ] of z.entries())
      for (const [j, inY] of ys.entries())
        for (const [i, inX] of xs.entries()) {
          let [heat, capacity, share] = [0, 0, 0];
          for (const [k, wz] of inZ)
            for (const [r, wy] of inY)
              for (const [c, wx] of inX) {
                const cell = (turned ? layers - 1 - k : k) * from.columns + r * from.grid.stride + c;
                const w = wz * wy * wx;
                share += w;
                capacity += w * rhoc[cell];
                heat += w * rhoc[cell] * run.heat.cells_C[cell];
              }
          if (share === 0) continue;
          const cell = l * mesh.columns + j * mesh.grid.stride + i;
          // what a run reaches only in part is in part as it was
          cells[cell] = share * (heat / capacity) + (1 - share) * cells[cell];
        }
    const bodies = this.bodies();
    for (const { part, nodes } of run.lumps.neighbours)
      if (nodes.length > 0)
        bodies.set(
          part.partId,
          nodes.map((n) => run.heat.T[n]),
        );
    const target = run.heat.T[run.lumps.body];
    for (const { part, nodes } of this.lumps.neighbours)
      nodes.forEach((node, n) => {
        const own = part.partId === run.target.partId ? target : bodies.get(part.partId)?.[n];
        this.lumps.nodes[node].T0 = own ?? found.ambient_C;
      });
    this.heat = this.heatFrom(cells);
  }

  /** Heat over ambient in board and bodies, J. */
  heat_J(): number {
    const { mesh, heat, lumps, found } = this;
    const { grid } = mesh;
    let sum = 0;
    for (let l = 0; l < grid.dz.length; l++)
      for (let j = 0; j < grid.dy.length; j++)
        for (let i = 0; i < grid.dx.length; i++) {
          const cell = l * mesh.columns + j * grid.stride + i;
          sum += grid.rhoc[cell] * grid.dx[i] * grid.dy[j] * grid.dz[l] * (heat.cells_C[cell] - found.ambient_C);
        }
    for (const [n, node] of lumps.nodes.entries())
      if (node.type === 'body') sum += node.C * (heat.T[n] - found.ambient_C);
    return sum;
  }

  private cells(): Float64Array {
    return Float64Array.from(this.heat.cells_C.subarray(0, this.mesh.grid.kx.length));
  }

  private bodies(): Map<string, number[]> {
    return new Map(
      this.lumps.neighbours.map(({ part, nodes }) => [part.partId, nodes.map((n) => this.heat.T[n])] as const),
    );
  }

  private nodesOf(partId: string): readonly number[] {
    return this.lumps.neighbours.find((n) => n.part.partId === partId)?.nodes ?? [];
  }

  /** Bodies that hold heat of their own. */
  private lumpsOf(T0: number): Lumps {
    const { found, mesh, off } = this;
    const lumps: Lumps = {
      ...{ nodes: [], links: [], exposed: [], body: 0, joints: [], neighbours: [], tips: [], gaps: [], glue: [] },
      ...{ shaded: new Map(), ownShade: new Map(), covered: new Map() },
    };
    for (const part of found.board.parts) {
      if (off.has(part.partId) || packageById(part.package).C_J_K < LEAST_J_K) continue;
      const far = part.side === 'bottom';
      const nodes = addBody(lumps, mesh, part, T0, far ? mesh.grid.dz.length - 1 : 0);
      lumps.neighbours.push({ part, limit: limitOf(part, found), nodes, distance_mm: 0, far });
    }
    mergeLinks(lumps);
    return lumps;
  }

  private heatFrom(initial: number | Float64Array): HeatRun {
    const { nodes, links } = this.lumps;
    return new HeatRun(
      { grid: this.mesh.grid, nodes, links, quick: true, uneven: { longestStep_s: this.step_s } },
      initial,
    );
  }

  private surround(): void {
    applySurroundings(this.heat, this.mesh, this.lumps, undefined, this.found, this.held, this.scratch);
  }
}
