/** Target body and joints, irons, neighbours, what lies on them: everything in a plan that is no board. */
import type { PlacedPart } from '../board/index.ts';
import type { BoardMesh, HeatLink } from '../thermal/index.ts';
import { addSinks, layCovers } from './covers.ts';
import { addIrons } from './irons.ts';
import type { Lumps } from './lumps.ts';
import { addNeighbours } from './neighbours.ts';
import type { PlanInput } from './planForm.ts';
import { addTarget } from './target.ts';

export function buildLumps(input: PlanInput, mesh: BoardMesh, target: PlacedPart): Lumps {
  const lumps: Lumps = {
    nodes: [],
    links: [],
    exposed: [],
    body: 0,
    joints: [],
    neighbours: [],
    tips: [],
    shaded: new Map(),
    covered: new Map(),
  };
  addTarget(lumps, input, mesh, target);
  addIrons(lumps, input.method, input.ambient_C);
  addNeighbours(lumps, input, mesh, target);
  addSinks(lumps, input, mesh, target);
  mergeLinks(lumps);
  layCovers(lumps, input, mesh, target);
  return lumps;
}

/**
 * One link per node and cell: gap and lands of a neighbour add up; on the target's lands the joint
 * alone counts, the air gap beside it is nothing.
 */
function mergeLinks(lumps: Lumps): void {
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
  for (const tip of lumps.tips) tip.contact = tip.contact.map((i) => renumbered.get(i) as number);
}
