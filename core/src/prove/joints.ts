/** What a joint looked at after fitting can be found to be, which of it matters, and how little mends it. */
import { type PlacedPart, solderedTerminals } from '../board/index.ts';

export const JOINT_FINDINGS = ['good', 'dull', 'lean', 'flux', 'bridge', 'open', 'lifted', 'ball'] as const;
export type JointFinding = (typeof JOINT_FINDINGS)[number];

export interface JointCriterion {
  /** Whether it stops the part from working, now or soon; what only looks wrong is left alone. */
  matters: boolean;
  /** The least that helps: nothing first, then flux and heat, solder last. */
  then: string;
}

/** By function, not by shine (bench judgement). */
export const JOINT_CRITERIA: Record<JointFinding, JointCriterion> = {
  good: { matters: false, then: '' },
  dull: { matters: false, then: 'leave it: wetted to the edge is enough, lead-free is dull' },
  lean: { matters: false, then: 'leave it if it stays firm under a needle; solder only where it gives' },
  flux: { matters: false, then: 'wash it off; it leaks where inputs are of high resistance or water comes' },
  bridge: { matters: true, then: 'fresh flux, a clean tip drawn outwards; braid only where it stays' },
  open: { matters: true, then: 'fresh flux and heat, no solder; solder only if no fillet comes' },
  lifted: { matters: true, then: 'do not heat it again: hold the leg down, or run a wire to its net' },
  ball: { matters: true, then: 'take it off with the tip of a needle under the lens; it rolls' },
};

/** Older logs know a weak joint. */
export const jointMatters = (state: string): boolean =>
  (JOINT_CRITERIA as Record<string, JointCriterion | undefined>)[state]?.matters ?? state !== 'good';

/** Legs that give under a needle when they are open: what lies flat under its body, or sits in a hole, tells nothing that way. */
export function legsToPush(part: PlacedPart): string[] {
  return solderedTerminals(part).flatMap((t) =>
    !t.drill_mm && (t.kind === 'gull' || t.kind === 'jlead' || t.kind === 'leg' || t.kind === 'flex') ? [t.id] : [],
  );
}
