/** Target body and joints, irons, neighbours, what lies on them: everything in a plan that is no board. */
import type { PlacedPart } from '../../board/index.ts';
import type { BoardMesh, HeatLink } from '../../thermal/index.ts';
import { addSinks, layCovers } from './covers.ts';
import type { Stint } from './drive.ts';
import type { Lumps, Tip } from './lumps.ts';
import { addNeighbours } from './neighbours.ts';
import type { ReworkCase } from './caseForm.ts';
import { addTarget } from './target.ts';

export function buildLumps(input: ReworkCase, stints: readonly Stint[], mesh: BoardMesh, target: PlacedPart): Lumps {
  const lumps: Lumps = {
    nodes: [],
    links: [],
    exposed: [],
    body: 0,
    joints: [],
    neighbours: [],
    tips: [],
    gaps: [],
    glue: [],
    shaded: new Map(),
    ownShade: new Map(),
    covered: new Map(),
  };
  addTarget(lumps, input, mesh, target);
  lumps.ownShade = new Map(lumps.shaded);
  for (const stint of stints) lumps.tips.push(addTips(lumps, stint, input.ambient_C));
  if (stints.some((s) => s.bridges)) addGaps(lumps);
  addNeighbours(lumps, input, mesh, target);
  addSinks(lumps, input, mesh, target);
  mergeLinks(lumps);
  layCovers(lumps, input, mesh, target);
  return lumps;
}

/** Heat of a tip, J/K, its regulation, W/K, and what it loses to the air, W/K. */
const TIP = { C: 1.2, gain: 5, hA: 0.02 };

/** Tips touch nothing until their phase puts them down. */
function addTips({ nodes, links, joints }: Lumps, { tips }: Stint, ambient_C: number): Tip[] {
  return tips.map(({ power_W, set_C }, n) => {
    const node =
      nodes.push({ id: `iron:${n}`, type: 'iron', Pmax: power_W, Tset: set_C, T0: set_C, Tinf: ambient_C, ...TIP }) - 1;
    return { node, contact: joints.map((j) => links.push({ a: node, node: j.node, G: 0 }) - 1) };
  });
}

/** Joints of a row no further apart than this share the bead, mm. */
const BEAD_REACH = 1.5;

/** A bead that may come is a link without conductance until it does. */
function addGaps({ joints, links, gaps }: Lumps): void {
  for (let n = 1; n < joints.length; n++) {
    const [a, b] = [joints[n - 1], joints[n]];
    const pitch_mm = Math.hypot(a.x - b.x, a.y - b.y);
    if (pitch_mm <= BEAD_REACH)
      gaps.push({ link: links.push({ a: a.node, node: b.node, G: 0 }) - 1, pitch_mm, joints: [n - 1, n] });
  }
}

/**
 * One link per node and cell: gap and lands of a neighbour add up; on the target's lands the joint
 * alone counts, the air gap beside it is nothing.
 */
export function mergeLinks(lumps: Lumps): void {
  const landed = new Set(lumps.joints.flatMap((j) => j.columns));
  const seen = new Map<string, HeatLink>();
  const kept: HeatLink[] = [];
  const renumbered = new Map<number, number>();
  for (const [i, link] of lumps.links.entries()) {
    if ('cell' in link) {
      if (link.a === lumps.body && landed.has(link.cell)) continue;
      const key = `${link.a}:${link.cell}`;
      const first = seen.get(key);
      if (first) {
        first.G += link.G;
        continue;
      }
      seen.set(key, link);
    }
    renumbered.set(i, kept.push(link) - 1);
  }
  lumps.links = kept;
  // links between lumps are all kept
  const now = (link: number) => renumbered.get(link) as number;
  for (const tip of lumps.tips.flat()) tip.contact = tip.contact.map(now);
  for (const gap of lumps.gaps) gap.link = now(gap.link);
  lumps.glue = lumps.glue.map(now);
  for (const joint of lumps.joints) joint.lead = now(joint.lead);
}
