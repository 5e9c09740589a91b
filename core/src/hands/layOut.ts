/** What has to lie within reach before heat, and what each tool must be set to. */
import { writeComposition } from '../alloys/index.ts';
import { type Dials, kindOf, type LayOut, type SetPoint } from '../rework/index.ts';
import { floodSolder } from './flood.ts';
import { fluxFor, melts_C } from './flux.ts';
import type { CleanUpOf } from './prepare.ts';
import { heatBelow, protectionTools } from './protection.ts';
import { ANY_SUPPLIES, CLEARS_WITH, placeOf } from './supplies.ts';
import type { Work } from './work.ts';

/** Of what the bench has: nothing is asked for that does not lie there. */
export function layOutFor(
  work: CleanUpOf & Pick<Work, 'supplies' | 'surroundings'>,
  dials: Pick<Dials, 'air'>,
): LayOut {
  const { joints = [], supplies = ANY_SUPPLIES, surroundings = {}, board, flood } = work;
  const below = heatBelow(surroundings);
  const { phases } = work.method;
  const flux = supplies.fluxes === null ? 'flux' : fluxFor(supplies.fluxes, melts_C(work))?.name;
  const alloys = [...new Set(joints.flatMap((j) => (j.with ?? []).map((w) => writeComposition(w.alloy))))];
  const needs = phases.map((p) => kindOf(p).needs(p.settings, dials));
  const tools = [
    ...alloys.map((name) => `${name} to work in, and an iron for it`),
    ...(flux ? [flux] : []),
    'tweezers',
    CLEARS_WITH[supplies.clears[placeOf(work.target)]],
    ...(supplies.floods ? [floodSolder(board, flood)] : []),
    'alcohol and wipes',
    'heat-proof rest for the part',
    ...needs.flatMap((n) => n.tools),
    ...protectionTools(surroundings),
  ];
  return {
    tools: [...new Set(tools)],
    setPoints: apart([...(below ? [below.setPoint] : []), ...needs.flatMap((n) => n.setPoints)]),
  };
}

/** A tool that is set alike twice is set once; one that has to be turned meanwhile has a set-point for each. */
function apart(points: readonly SetPoint[]): SetPoint[] {
  const found = new Map<string, SetPoint[]>();
  for (const p of points) {
    const of = found.get(p.id) ?? [];
    if (!of.some((q) => q.value === p.value)) found.set(p.id, [...of, p]);
  }
  return [...found.values()].flatMap((of) =>
    of.map((p, n) => (n === 0 ? p : { ...p, id: `${p.id}-${n + 1}`, label: `then ${p.label}` })),
  );
}
