/** What has to lie within reach before heat, and what each tool must be set to. */
import { writeComposition } from '../alloys/index.ts';
import { type JointState, kindOf, type LayOut, type Method, type StationModel } from '../rework/index.ts';

/** `solder`: what lands are flooded with (`floodSolder`); `joints`: what the plan says is worked into them. */
export function layOutFor(
  { phases }: Method,
  station: Pick<StationModel, 'air'>,
  solder = 'leaded solder',
  joints: readonly JointState[] = [],
): LayOut {
  const alloys = [...new Set(joints.flatMap((j) => (j.with ?? []).map((w) => writeComposition(w.alloy))))];
  const needs = phases.map((p) => kindOf(p).needs(p.settings, station));
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
    setPoints: needs.flatMap((n) => n.setPoints),
  };
}
