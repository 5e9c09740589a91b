/**
 * A method with its range: the nominal run and two more with the station hotter and cooler than it
 * says. The spread is the honest answer of an uncalibrated station.
 */
import { z } from 'zod';
import type { CalcContext } from '../calc/defineCalc.ts';
import { planRunSchema, type PlanInput, type PlanRun } from './method.ts';
import { runPlan } from './planRun.ts';

const range = z.strictObject({ from: z.number().nullable(), to: z.number().nullable() });

export const planResultSchema = planRunSchema.extend({
  /** All joints wet: earliest (hot station) and latest (cool station) time; null where it never happens. */
  allWetRange_s: range,
  /** When the window closes (first neighbour over its limit, or joints frozen again), over the same spread. */
  closesRange_s: range,
  /** Shift of the last joint per input, s, largest first. */
  matters: z.array(z.strictObject({ input: z.string(), shift_s: z.number().nullable() })),
  calibrated: z.boolean(),
});
export type PlanResult = z.infer<typeof planResultSchema>;

/** How much a hand's contact differs from a well wetted one (estimate). */
const CONTACT_PLUS_MINUS = 0.35;

/** The station (or iron) off by its uncertainty in one direction. */
function shifted(input: PlanInput, sign: 1 | -1): PlanInput {
  const s = input.station;
  const method =
    input.method.kind === 'low-melt'
      ? {
          ...input.method,
          set_C: input.method.set_C + sign * s.ironPlusMinus_K,
          contact: input.method.contact * (1 + sign * CONTACT_PLUS_MINUS),
        }
      : input.method;
  return {
    ...input,
    method,
    frames: false,
    station: {
      ...s,
      efficiency: Math.min(1, s.efficiency + sign * s.efficiencyPlusMinus),
      handFactor: s.handFactor + sign * s.handFactorPlusMinus,
    },
  };
}

function moreCopper(input: PlanInput): PlanInput {
  const more = (c: number) => Math.min(1, c + 0.15);
  const { board } = input;
  return {
    ...input,
    frames: false,
    board: {
      ...board,
      stack: board.stack.map((l) => ({ ...l, coverage: more(l.coverage) })),
      copper: board.copper.map((p) => ({ ...p, coverage: more(p.coverage) })),
    },
  };
}

/** End of the window of one run: a neighbour over its limit or the joints solid again. */
export function windowEnd(run: PlanRun): number | null {
  const ends = [run.closes?.at_s, run.freezes_s].filter((t) => typeof t === 'number');
  return ends.length ? Math.min(...ends) : null;
}

export async function planHeat(input: PlanInput, context: CalcContext): Promise<PlanResult> {
  const part = (from: number, share: number): CalcContext => ({
    ...context,
    progress: (done, partial) => context.progress?.(from + share * done, partial),
  });
  const nominal = await runPlan(input, part(0, 0.25));
  context.progress?.(0.25, nominal);
  const hot = await runPlan(shifted(input, 1), part(0.25, 0.25));
  const cool = await runPlan(shifted(input, -1), part(0.5, 0.25));
  const copper = await runPlan(moreCopper(input), part(0.75, 0.25));
  const wet = nominal.allWet_s;
  const shift = (other: PlanRun) => (wet === null || other.allWet_s === null ? null : other.allWet_s - wet);
  const matters = [
    {
      input: input.method.kind === 'air' ? 'station temperature and hand' : 'iron temperature and contact',
      shift_s: shift(cool),
    },
    { input: 'copper 15 % denser than drawn', shift_s: shift(copper) },
  ].sort((a, b) => Math.abs(b.shift_s ?? Infinity) - Math.abs(a.shift_s ?? Infinity));
  return {
    ...nominal,
    allWetRange_s: { from: hot.allWet_s, to: cool.allWet_s },
    closesRange_s: { from: windowEnd(hot), to: windowEnd(cool) },
    matters,
    calibrated: input.station.calibrated,
  };
}
