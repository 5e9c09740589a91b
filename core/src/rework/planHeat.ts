/**
 * A procedure with its ranges: the run as set, and eight coarse ones (twelve above seven inputs) in which the inputs that matter are off by their
 * plus-minus, all at once (`design.ts`). Effects are taken on
 * rates (1/time, nothing where it never happens), on which heat acts evenly, and added in squares.
 */
import type { CalcContext } from '../ground/index.ts';
import { effectsOf } from './design.ts';
import { type Ensemble, ensembleOf, rateOf, timeOf } from './ensemble.ts';
import { lowestTip } from './lowestTip.ts';
import { kindOf } from './phases/index.ts';
import { runPlan } from './planRun.ts';
import type { PlanRun } from './bench/runForm.ts';
import { wetAt } from './bench/runTimes.ts';
import type { Phase, PhaseOf } from './phases/schema.ts';
import type { PlanInput } from './planForm.ts';
import { type PlanResult, type Range, windowEnd } from './planResult.ts';

/** Quick runs are a little off the full one; nothing is known better than to this share. */
const LEAST_SPREAD = 0.04;
/** The search for a bead's tip takes as long as so many quick runs. */
const TIP_COSTS = 9;
/** Nobody sees a joint turn to better than this (two standard deviations), s. */
const SEEN_S = 1;
/**
 * Of several that turn together the last is seen later than one alone would be, s: the latest of n normal errors stays below √(2² + 2 ln n) standard deviations
 * as surely as one of them below two (a bound, a tenth too far at sixteen).
 */
const lastSeen_s = (together: number): number => SEEN_S * Math.sqrt(1 + Math.log(Math.max(1, together)) / 2);

/** How many joints turn with the last of a run, as far as anybody sees. */
function turnTogether({ joints }: PlanRun): number {
  const times = joints.map((j) => wetAt(j) ?? Infinity);
  const last = Math.max(...times);
  return times.filter((t) => t > last - SEEN_S).length;
}

type Time = (run: PlanRun) => number | null | undefined;

/** What a time may be: effects of the inputs on its rate round the full run's. */
function spreadOf({ inputs, nominal, centre, members }: Ensemble, time: Time) {
  const effects = effectsOf(
    members.map((m) => rateOf(time(m))),
    inputs.length,
  );
  const rate = rateOf(time(nominal));
  // the quick centre is coarser than the full run: what it is off by scales the effects
  const quickRate = rateOf(time(centre));
  const scale = rate > 0 && quickRate > 0 ? rate / quickRate : 1;
  const middle = rate > 0 ? rate : quickRate;
  const half = Math.hypot(LEAST_SPREAD * middle, ...effects.map((e) => scale * e));
  return { effects: effects.map((e) => scale * e), rate, middle, half };
}

/** `late_s`: by how much later than it happens it may be seen. */
function rangeOf(ensemble: Ensemble, time: Time, late_s = SEEN_S): Range {
  const { nominal, centre, members, limit_s } = ensemble;
  const { middle, half } = spreadOf(ensemble, time);
  // never is said only when the whole ensemble never does
  const seen = [nominal, centre, ...members].flatMap((r) => time(r) ?? []);
  const from = seen.length === 0 ? null : (timeOf(middle + half, limit_s) ?? Math.min(...seen));
  const to = timeOf(middle - half, limit_s);
  return { from: from && Math.max(0.5, from - SEEN_S), to: to && to + late_s };
}

/** What each input shifts the last joint by when it is off to the worse, the largest first. */
function mattersOf(ensemble: Ensemble): PlanResult['matters'] {
  const { effects, rate } = spreadOf(ensemble, (r) => r.allWet_s);
  const shift = (effect: number) => {
    const worse = timeOf(rate - Math.abs(effect), ensemble.limit_s);
    return worse === null || rate === 0 ? null : worse - 1 / rate;
  };
  return ensemble.inputs
    .map((input, i) => ({ input, shift_s: shift(effects[i]), size: Math.abs(effects[i]) }))
    .sort((a, b) => b.size - a.size)
    .map(({ input, shift_s }) => ({ input, shift_s }));
}

function jointRanges(ensemble: Ensemble): PlanResult['jointRanges_s'] {
  return ensemble.nominal.joints.map(({ terminal }) => ({
    terminal,
    ...rangeOf(ensemble, (r) => {
      const joint = r.joints.find((j) => j.terminal === terminal);
      return joint && wetAt(joint);
    }),
  }));
}

function neighbourRanges(ensemble: Ensemble): PlanResult['neighbourRanges'] {
  const { nominal, members, inputs } = ensemble;
  const neighbour = (run: PlanRun, partId: string) => run.neighbours.find((n) => n.partId === partId);
  return nominal.neighbours.map(({ partId, atWet_C }) => ({
    partId,
    over_s: rangeOf(ensemble, (r) => neighbour(r, partId)?.over_s),
    atWetPlusMinus_K: Math.hypot(
      ...effectsOf(
        members.map((m) => neighbour(m, partId)?.atWet_C ?? atWet_C),
        inputs.length,
      ),
    ),
  }));
}

/** The strokes that end a procedure which works with irons and alloy alone. */
function strokesOf(phases: readonly Phase[]): PhaseOf<'stroke'> | undefined {
  const last = phases[phases.length - 1];
  const alone = phases.every((p) => p.kind === 'stroke' || p.kind === 'alloy');
  return alone && last.kind === 'stroke' ? last : undefined;
}

/** With how long what is left on the lands stays soft once the part is lifted and the heat has left; the part's own heat stays in the figure. Nothing where joints were freed one by one, or none is liquid. */
async function withFreezing(nominal: PlanRun, input: PlanInput, context: CalcContext): Promise<PlanRun> {
  if (input.fitting || nominal.allWet_s === null || input.phases.some((p) => kindOf(p).inTurn)) return nominal;
  const quickly: PlanInput = { ...input, quality: 'coarse', frames: false, books: false };
  const { sets } = await runPlan(quickly, { ...context, progress: () => undefined }, 'frozen');
  return { ...nominal, ...(sets ? { sets } : {}) };
}

export const planHeat = async (input: PlanInput, context: CalcContext): Promise<PlanResult> =>
  (await planEnsemble(input, context)).result;

/** A plan, and the ensemble it was read from. `ranges`: without, the run as set stands for all of it. */
export async function planEnsemble(
  input: PlanInput,
  context: CalcContext,
  ranges = true,
): Promise<{ result: PlanResult; ensemble: Ensemble }> {
  const strokes = ranges ? strokesOf(input.phases) : undefined;
  let lowestTip_C: number | null | undefined;
  const ensemble = await ensembleOf(
    input,
    {
      ...{ quality: 'coarse', nominalCosts: 4 },
      settled: ranges ? undefined : () => true,
      completed: ranges
        ? {
            costs: strokes ? TIP_COSTS : 1,
            async by(run, within) {
              if (strokes) lowestTip_C = await lowestTip(input, strokes, within);
              return withFreezing(run, input, context);
            },
          }
        : undefined,
    },
    context,
  );
  const { nominal } = ensemble;
  const allWetRange_s = rangeOf(ensemble, (r) => r.allWet_s, lastSeen_s(turnTogether(nominal)));
  // it has to be lifted before the last joint is surely loose
  const end = windowEnd(nominal);
  const early = end !== null && (allWetRange_s.to === null || allWetRange_s.to > end);
  const { outcomes } = nominal;
  const result = {
    ...nominal,
    ...(outcomes?.torn && early
      ? { outcomes: { ...outcomes, torn: { ...outcomes.torn, p: outcomes.torn.early_p } } }
      : {}),
    allWetRange_s,
    closesRange_s: rangeOf(ensemble, windowEnd),
    jointRanges_s: jointRanges(ensemble),
    neighbourRanges: neighbourRanges(ensemble),
    matters: mattersOf(ensemble),
    calibrated: input.station.calibrated,
    ...(lowestTip_C === undefined ? {} : { lowestTip_C }),
  };
  return { result, ensemble };
}
