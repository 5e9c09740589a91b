/** What has to lie within reach before heat, and what each tool must be set to. */
import { writeComposition } from '../alloys/index.ts';
import { type Dials, type JointState, kindOf, type LayOut, type Method, type SetPoint } from '../rework/index.ts';

/** `solder`: what lands are flooded with (`floodSolder`); `joints`: what the plan says is worked into them. */
export function layOutFor(
  { phases }: Method,
  dials: Pick<Dials, 'air'>,
  solder = 'leaded solder',
  joints: readonly JointState[] = [],
): LayOut {
  const alloys = [...new Set(joints.flatMap((j) => (j.with ?? []).map((w) => writeComposition(w.alloy))))];
  const needs = phases.map((p) => kindOf(p).needs(p.settings, dials));
  return {
    tools: [
      ...alloys.map((name) => `${name} to work in, and an iron for it`),
      'flux',
      'tweezers',
      'braid',
      solder,
      'alcohol and wipes',
      'heat-proof rest for the part',
      ...new Set(needs.flatMap((n) => n.tools)),
    ],
    setPoints: apart(needs.flatMap((n) => n.setPoints)),
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
