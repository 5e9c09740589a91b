/**
 * A hidden bench: a simulated truth that plays the board, so that "predicted against actual" is never the model
 * against itself. It has its own grid (coarse, long steps), a station, a hand and copper that differ from what the
 * plan believes by amounts of its own, and noise on every joint; which ones follows from the seed alone.
 */
import { z } from 'zod';
import { type CalcContext, randomOf } from '../ground/index.ts';
import { packageById } from '../packages/index.ts';
import {
  handsClock,
  inTurn,
  kindOf,
  mainPhase,
  type Phase,
  type PlanInput,
  planInputSchema,
  runPlan,
  stuckShare,
  turnsOf,
  uncertainOf,
  wetAt,
} from '../rework/index.ts';

export const hiddenBenchInput = z.strictObject({
  plan: planInputSchema,
  /** So many of its phases were done before, by work that was given up. */
  before: z.int().min(0).max(11).optional(),
  seed: z
    .int()
    .min(0)
    .max(2 ** 32 - 1),
});
export type HiddenBenchInput = z.infer<typeof hiddenBenchInput>;

export const hiddenTruthSchema = z.strictObject({
  /** When each joint turns wet, s from heat on; null when it never does. */
  joints: z.array(z.strictObject({ terminal: z.string(), wet_s: z.number().nullable() })),
  /** Where a tool goes from pin to pin: what each takes at its first turn, null when it never melts, and whether it stays plugged then. */
  pins: z
    .array(z.strictObject({ terminal: z.string(), takes_s: z.number().nullable(), stuck: z.boolean() }))
    .optional(),
  /** When the last of them is wet, s. */
  allWet_s: z.number().nullable(),
  /** When joints freeze again although nothing was said, s. */
  freezes_s: z.number().nullable(),
  /** How a part that goes on all at once comes to lie. */
  sits: z.enum(['flat', 'tilted']).optional(),
  /** Neighbours that go over their limit, and when. */
  hurt: z.array(z.strictObject({ partId: z.string(), at_s: z.number() })),
});
export type HiddenTruth = z.infer<typeof hiddenTruthSchema>;

/** How far a joint's surface lags or leads the model, part of its time and s. */
const NOISE = { part: 0.03, seconds: 0.6 };

type Joint = HiddenTruth['joints'][number];

const median = (values: readonly number[]): number | null =>
  values.length === 0 ? null : [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** Joints done one after another: each one's own time changes, and with it all that come later; their order stays. */
function oneAfterAnother(joints: readonly Joint[], change: (own_s: number | null) => number | null): Joint[] {
  const own = inTurn(joints);
  let done = 0;
  const times = new Map<string, number | null>();
  for (const { terminal } of [...joints].sort((a, b) => (a.wet_s ?? Infinity) - (b.wet_s ?? Infinity))) {
    const takes = change(own.get(terminal) ?? null);
    if (takes !== null) done += takes;
    times.set(terminal, takes === null ? null : done);
  }
  return joints.map(({ terminal }) => ({ terminal, wet_s: times.get(terminal) ?? null }));
}

/** With more than this on a pad under the body it floats on its middle, against a usual joint; lands as fat as this tilt what is not pressed (estimates). */
const TILTS = { pad: 0.65, lands: 1.3 } as const;
function tilts(phases: readonly Phase[], { board, target }: Pick<PlanInput, 'board' | 'target'>): boolean {
  const part = board.parts.find((p) => p.partId === target);
  const hasPad = part !== undefined && packageById(part.package).terminals.some((t) => t.kind === 'pad');
  const pressed = phases.some((p) => p.kind === 'press');
  return phases.some((p) => {
    if (p.kind !== 'tin' && p.kind !== 'paste') return false;
    const pad = ('pad_share' in p.settings ? p.settings.pad_share : undefined) ?? p.settings.share;
    // paste on a pad is printed with half of it bare
    const film = p.kind === 'paste' ? pad / 2 : pad;
    return (hasPad && film > TILTS.pad) || (!pressed && p.settings.share > TILTS.lands);
  });
}

export async function playHiddenBench(
  { plan, before = 0, seed }: HiddenBenchInput,
  context: CalcContext,
): Promise<HiddenTruth> {
  const random = randomOf(seed);
  /** Roughly normal with standard deviation 1, within ± 2.4. */
  const deviate = () => (random() + random() + random() + random() - 2) * 1.7;
  const usual: PlanInput = { ...plan, quality: 'search', frames: false, ambient_C: plan.ambient_C + deviate() };
  // a plus-minus is two standard deviations
  const truth = uncertainOf(plan.phases).reduce((input, u) => u.off(input, 0.5 * deviate()), usual);
  // which pins stay plugged nobody knows
  const found = usual.board.parts.find((p) => p.partId === usual.target);
  const share = plan.phases.some((p) => kindOf(p).opensHoles) ? stuckShare(usual.board) : 0;
  const stuck = (found ? packageById(found.package).terminals : []).flatMap((t) => (random() < share ? [t.id] : []));
  const run = await runPlan({ ...truth, stuck }, context);
  const surface = (s: number | null) => {
    const noise = 1 + NOISE.part * deviate();
    return s === null ? null : Math.max(0.5, s * noise + NOISE.seconds * deviate());
  };
  const clock = handsClock(run, plan);
  const modelled = run.joints.map((j) => ({ terminal: j.terminal, wet_s: clock(wetAt(j)) }));
  const oneByOne = kindOf(mainPhase(plan)).inTurn === true;
  const joints = oneByOne
    ? oneAfterAnother(modelled, surface)
    : modelled.map((j) => ({ ...j, wet_s: surface(j.wet_s) }));
  const wet = joints.map((j) => j.wet_s);
  const allWet = clock(run.allWet_s);
  const turns = turnsOf(run, { phases: plan.phases.slice(before) });
  const usualTurn_s = median(turns?.flatMap((t) => t.takes_s ?? []) ?? []);
  const pins = turns?.map(({ terminal, takes_s }) => {
    const plugged = stuck.includes(terminal);
    // one that stays plugged has melted like the others
    return { terminal, takes_s: surface(takes_s ?? (plugged ? usualTurn_s : null)), stuck: plugged };
  });
  return {
    joints,
    ...(pins ? { pins } : {}),
    allWet_s: allWet === null || wet.includes(null) ? null : Math.max(allWet, ...wet.map((s) => s ?? 0)),
    freezes_s: clock(run.freezes_s),
    ...(plan.fitting && !oneByOne
      ? { sits: tilts(truth.phases, usual) ? ('tilted' as const) : ('flat' as const) }
      : {}),
    hurt: run.neighbours.flatMap((n) => {
      const at_s = clock(n.over_s);
      return at_s === null ? [] : [{ partId: n.partId, at_s }];
    }),
  };
}
