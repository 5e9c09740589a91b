/** Why the last joint is last: what drains it, and in what it differs from the others. */
import { type BoardMesh, type HeatRun, sheetConductance } from '../../thermal/index.ts';
import type { Lumps } from './lumps.ts';
import type { Drive } from './drive.ts';
import type { Paths } from './runForm.ts';

/** Where the heat of one joint comes from and goes to at this moment, W. */
export function pathsOf(run: HeatRun, lumps: Lumps, joint: number): Paths {
  const paths = { tool_W: 0, air_W: 0, body_W: 0, board_W: 0 };
  const { air, cells } = run.heatInto(lumps.joints[joint].node, (watts, from) => {
    if (from === lumps.body) paths.body_W += watts;
    else if (from !== undefined) paths.tool_W += watts;
    else paths.board_W += watts;
  });
  paths.air_W = air;
  paths.board_W += cells;
  return paths;
}

/** What takes most of the heat that a joint gets, in words; empty where nothing drains it. */
function drained(paths: Paths | undefined): string {
  if (!paths) return '';
  const all = [
    { name: 'the copper under it', W: paths.board_W },
    { name: 'the body', W: paths.body_W },
    { name: 'the air', W: paths.air_W },
  ];
  const gets = all.reduce((sum, p) => sum + Math.max(0, p.W), Math.max(0, paths.tool_W));
  const worst = all.reduce((a, b) => (b.W < a.W ? b : a));
  if (gets <= 0 || -worst.W < 0.2 * gets) return '';
  // a joint that cools gives away more than it gets
  if (-worst.W >= gets) return `; ${worst.name} takes all the heat it gets`;
  return `; ${worst.name} takes ${Math.round((100 * -worst.W) / gets)} % of the heat it gets`;
}

type Feature = 'copper' | 'mass' | 'far' | 'tip';

/** The input in which it differs most from the others, and what drains it. */
export function reasonFor(
  last: number,
  lumps: Lumps,
  mesh: BoardMesh,
  at: { x: number; y: number },
  drive: Drive,
  paths: Paths | undefined,
): string {
  return `${difference(last, lumps, mesh, at, drive)}${drained(paths)}`;
}

function difference(last: number, lumps: Lumps, mesh: BoardMesh, at: { x: number; y: number }, drive: Drive): string {
  const features = lumps.joints.map((j, i) => ({
    copper: j.columns.reduce((s, c) => s + sheetConductance(mesh, c), 0) / Math.max(1, j.columns.length),
    mass: j.terminal.volume_mm3,
    far: Math.hypot(j.x / 1000 - at.x, j.y / 1000 - at.y),
    tip: drive.touched?.[i] ?? 0,
  }));
  const others = features.filter((_, i) => i !== last);
  const mine = features[last];
  const mean = (key: Feature) => others.reduce((s, f) => s + f[key], 0) / Math.max(1, others.length);
  const ratio = (key: Feature) => mine[key] / (mean(key) || 1);
  const times = (v: number) => `${v.toFixed(v < 10 ? 1 : 0)} ×`;
  const joint = lumps.joints[last];
  if (joint.terminal.kind === 'pad') return 'it lies hidden under the body and heats through it and the board';
  if (joint.surface === 'leaking') return 'what leaked has crusted it: it takes heat badly and hardly wets';
  if (joint.surface === 'corroded' && lumps.joints.some((j) => j.surface === 'sound'))
    return 'it is corroded: it takes heat badly and wets slowly';
  if (joint.clipped && lumps.joints.some((j) => !j.clipped)) return 'a clip on its lead takes the heat';
  if (ratio('mass') > 2) return `it holds ${times(ratio('mass'))} the solder of the others`;
  if (ratio('copper') > 1.15) return `the copper under it carries ${times(ratio('copper'))} the heat away`;
  return drive.lastBecause({ tip: ratio('tip'), far_mm: mine.far * 1000, others_mm: mean('far') * 1000 });
}
