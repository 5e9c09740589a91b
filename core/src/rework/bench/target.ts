/** The target's body and joints as lumps: what is in each joint, and where its heat can go. */
import { jointMetal, mixedByVolume, SOLDER_ALLOYS } from '../../alloys/index.ts';
import { bodyRect, boxOnBoard, type PlacedPart, solderedTerminals, toBoard } from '../../board/index.ts';
import { packageById, solderVolume, type Terminal, type TerminalKind } from '../../packages/index.ts';
import type { BoardMesh, JointEnthalpy } from '../../thermal/index.ts';
import { exposedBody, type JointMetal, linkToBoard, shade, throughGap, type Lumps } from './lumps.ts';
import type { ReworkCase } from './caseForm.ts';
import type { Metal } from './wetting.ts';

/** Conductance joint to land, W/(m²·K), and what the state of the metal puts in series, m²K/W (estimates). */
export const JOINT_TO_LAND = 2e5;
const CRUST_R: Record<Metal, number> = { sound: 0, corroded: 5e-5, leaking: 2e-4 };
/** Traces of a flex tail lead heat away as fins: W/K each, copper 18 µm × 0.3 mm losing 2 × 20 W/(m²·K) over 0.5 mm of film. */
const TAIL_PER_WAY = 2e-4;

/** Share of a joint's land that the jet sees. */
const OPEN_TO_AIR: Record<TerminalKind, number> = {
  gull: 1,
  leg: 1,
  chip: 0.7,
  flex: 0.7,
  castellation: 0.6,
  can: 0.6,
  jlead: 0.5,
  pin: 0.5,
  leadless: 0.25,
  // the stub beyond the body, its face and its three sides
  tab: 0.3,
  ball: 0,
  pad: 0,
};

/** What is known of one joint: the board's usual, changed by every statement that names it. */
function stateOf({ board, joints = [] }: ReworkCase, terminal: string) {
  const row = SOLDER_ALLOYS.get(board.jointAlloy);
  if (!row) throw new Error(`No solder "${board.jointAlloy}"; known: ${[...SOLDER_ALLOYS.keys()].join(', ')}`);
  const state = {
    alloy: row.wt,
    with: [] as { alloy: typeof row.wt; ratio: number }[],
    volume: 1,
    surface: 'sound' as Metal,
  };
  for (const j of joints) {
    if (j.terminals && !j.terminals.includes(terminal)) continue;
    state.alloy = j.alloy ?? state.alloy;
    state.with = j.with ?? state.with;
    state.volume = j.volume ?? state.volume;
    if (j.leaking) state.surface = 'leaking';
    else if (j.corroded !== undefined) state.surface = j.corroded ? 'corroded' : 'sound';
  }
  return state;
}

/** Enthalpy of a joint with what came into it, and with the metal at terminal `t` that goes along. */
export function enthalpyOf({ alloy, own_mm3, with: others }: JointMetal, t: Terminal): JointEnthalpy {
  const metal = jointMetal(others.length > 0 ? mixedByVolume(alloy, others) : alloy);
  const volume = own_mm3 * 1e-9 * (1 + others.reduce((sum, o) => sum + o.ratio, 0));
  return {
    Ts: metal.Ts,
    Tl: metal.Tl,
    Cs: metal.cs * volume + t.C_add_J_K,
    Cl: metal.cl * volume + t.C_add_J_K,
    latent: metal.latent * volume + t.C_add_J_K * (metal.Tl - metal.Ts),
  };
}

export function addTarget(lumps: Lumps, input: ReworkCase, mesh: BoardMesh, part: PlacedPart): void {
  const { ambient_C: T0 } = input;
  const pkg = packageById(part.package);
  const rect = bodyRect(part);
  const box = boxOnBoard(part, rect);
  lumps.body = lumps.nodes.push({ id: part.partId, type: 'body', C: pkg.C_J_K, T0 }) - 1;
  lumps.exposed.push(exposedBody(lumps.body, part, pkg, rect));
  linkToBoard(lumps, mesh, lumps.body, box, throughGap(pkg.body.gap));
  shade(lumps, mesh, box);
  for (const t of solderedTerminals(part)) addJoint(lumps, input, mesh, part, t);
  const ways = lumps.joints.filter((j) => j.terminal.kind === 'flex').length;
  if (ways > 0) {
    const away = lumps.nodes.push({ id: 'tail', type: 'fixed', T0 }) - 1;
    lumps.links.push({ a: lumps.body, node: away, G: TAIL_PER_WAY * ways });
  }
}

function addJoint(lumps: Lumps, input: ReworkCase, mesh: BoardMesh, part: PlacedPart, t: Terminal): void {
  const { alloy, with: others, volume, surface } = stateOf(input, t.id);
  const metal = { alloy, own_mm3: solderVolume(t, input.board.thickness_mm) * volume, with: others };
  const enthalpy = enthalpyOf(metal, t);
  const node = lumps.nodes.push({ id: `${part.partId}/${t.id}`, type: 'joint', enthalpy, T0: input.ambient_C }) - 1;
  const perArea = 1 / (1 / JOINT_TO_LAND + CRUST_R[surface]);
  const onLand = (area: number) => perArea * area;
  const land = boxOnBoard(part, t.land);
  const columns = linkToBoard(lumps, mesh, node, land, onLand);
  if (t.kind === 'pin') throughHole(lumps, mesh, part, t, node, perArea);
  const lead = lumps.links.push({ a: node, node: lumps.body, G: t.G_W_K }) - 1;
  if (t.kind === 'tab') shade(lumps, mesh, land);
  const [x, y] = toBoard(part, t.land.x, t.land.y);
  lumps.joints.push({ node, terminal: t, x, y, columns, surface, metal, lead });
  const open = OPEN_TO_AIR[t.kind];
  if (open > 0)
    lumps.exposed.push({
      node,
      x,
      y,
      height: 0,
      top: t.land.w * t.land.h * 1e-6 * open,
      sides: 0,
      half: [0, 0],
      factor: 1.5,
    });
}

/**
 * What a hole gives to a layer inside, W/K: planes are met by four spokes of 35 µm, 0.3 mm wide and long, as boards that are to be soldered have it.
 * A hole that lies in a plane without them drains faster, one that meets none slower.
 */
const SPOKES = 4 * 390 * 35e-6;

/** A plated hole touches every slab: its wall the inner ones (planes drain it there), a land the far face too. */
function throughHole(
  lumps: Lumps,
  mesh: BoardMesh,
  part: PlacedPart,
  t: Terminal,
  node: number,
  perArea: number,
): void {
  const drill = t.drill_mm ?? 0.6 * Math.min(t.land.w, t.land.h);
  const hole = boxOnBoard(part, { x: t.land.x, y: t.land.y, w: drill, h: drill });
  const section = (hole.x1 - hole.x0) * (hole.y1 - hole.y0) * 1e-6;
  const slabs = mesh.grid.dz.length;
  for (let l = 1; l < slabs; l++) {
    const wall = Math.PI * drill * 1e-3 * mesh.grid.dz[l];
    const G = 1 / (1 / (perArea * wall) + 1 / SPOKES);
    linkToBoard(lumps, mesh, node, hole, (area) => (G * area) / section, l);
  }
  linkToBoard(lumps, mesh, node, boxOnBoard(part, t.land), (area) => perArea * area, slabs - 1);
}
