/**
 * What is left of an alloy in a joint after braid and flood. Braid takes solder away, not its composition; fresh solder
 * thins it. Mass balance: wick m ← w·m; add c ← (m·c + f·c_f)/(m + f), m ← m + f.
 */
import { z } from 'zod';
import type { Composition } from './elements.ts';
import { normalised } from './elements.ts';

const percent = z.number().min(0).max(100);
const mass = z.number().min(0).max(1e6);
const left = z.number().min(0).max(1);

const step = z
  .strictObject({
    /** Share that stays after the braid. */
    wick: left.optional(),
    /** Fresh solder, in the units of `m0`. */
    add: mass.optional(),
    /** How much of the element that brings. */
    c_wt: percent.optional(),
  })
  .refine((s) => (s.wick === undefined) !== (s.add === undefined), { error: 'give either wick or add' })
  .refine((s) => s.c_wt === undefined || s.add !== undefined, { error: 'c_wt goes with add' });

export const cleanUpInput = z
  .strictObject({
    c0_wt: percent,
    m0: mass.positive(),
    /** What was done, one after the other. */
    steps: z.array(step).min(1).max(200).optional(),
    /** Or: rounds of braid and fresh solder until the share is under the limit. */
    limit_wt: percent.positive('above nothing: dilution never reaches 0').optional(),
    wick: left.optional(),
    add: mass.positive('fresh solder has to come, else nothing is thinned').optional(),
  })
  .superRefine((v, ctx) => {
    if ((v.steps === undefined) === (v.limit_wt === undefined))
      ctx.addIssue({ code: 'custom', path: ['limit_wt'], message: 'give either steps or limit_wt' });
    if (v.steps && (v.wick !== undefined || v.add !== undefined))
      ctx.addIssue({ code: 'custom', path: ['steps'], message: 'wick and add belong to limit_wt' });
  });
export type CleanUpInput = z.infer<typeof cleanUpInput>;

const state = z.strictObject({ c_wt: z.number(), mass: z.number() });
export const cleanUpOutput = z.union([
  z.strictObject({ c_wt: z.number(), mass: z.number(), trace: z.array(state) }),
  z.strictObject({ cycles: z.int(), c_wt: z.number(), trace: z.array(state) }),
]);
export type CleanUpOutput = z.infer<typeof cleanUpOutput>;

interface Residue {
  c_wt: number;
  mass: number;
}

const wicked = ({ c_wt, mass: m }: Residue, share: number): Residue => ({ c_wt, mass: m * share });
const flooded = ({ c_wt, mass: m }: Residue, add: number, fresh = 0): Residue => ({
  c_wt: m + add > 0 ? (m * c_wt + add * fresh) / (m + add) : 0,
  mass: m + add,
});

/** More rounds than anybody works. */
const MOST_CYCLES = 500;

/** Rounds of braid and fresh solder until a share is under the limit, and what is left then. */
export function roundsUntil(start: Residue, { wick, add, limit_wt }: { wick: number; add: number; limit_wt: number }) {
  const trace = [start];
  let now = start;
  while (now.c_wt > limit_wt && trace.length <= MOST_CYCLES) {
    now = flooded(wicked(now, wick), add);
    trace.push(now);
  }
  return { cycles: trace.length - 1, c_wt: now.c_wt, trace };
}

export function cleanUp(input: CleanUpInput): CleanUpOutput {
  const start: Residue = { c_wt: input.c0_wt, mass: input.m0 };
  const { steps, limit_wt = Infinity, wick = PLACES.lands.wick, add = 1 } = input;
  if (!steps) return roundsUntil(start, { wick, add, limit_wt });
  const trace = [start];
  for (const s of steps) {
    const now = trace[trace.length - 1];
    trace.push(s.wick === undefined ? flooded(now, s.add ?? 0, s.c_wt) : wicked(now, s.wick));
  }
  const end = trace[trace.length - 1];
  return { c_wt: end.c_wt, mass: end.mass, trace };
}

/** Where solder of the old joint stays, and how much of it the braid leaves there. Bench judgement, lands 0.2 ± 0.08. */
export const PLACES = {
  lands: { label: 'lands', wick: 0.2 },
  legs: { label: 'legs of the part', wick: 0.25 },
  holes: { label: 'plated holes', wick: 0.35 },
} as const;
export type CleanUpPlace = keyof typeof PLACES;

export interface Residual {
  element: 'Bi' | 'In' | 'Pb' | 'Cd';
  limit_wt: number;
  why: string;
}

/**
 * What may stay of what, by what the joint will be: limits of solder baths and new alloys used as a guide; no limit is
 * published for one repaired joint.
 */
export function residualLimits(wt: Composition, leadFree: boolean): Residual[] {
  const share = normalised(wt);
  const has = (e: 'Bi' | 'In' | 'Pb' | 'Cd') => (share[e] ?? 0) > 0;
  const rows: Residual[] = [];
  if (has('Bi'))
    rows.push(
      has('Pb') || !leadFree
        ? { element: 'Bi', limit_wt: 0.25, why: 'with lead it leaves a last liquid at 96 °C' }
        : { element: 'Bi', limit_wt: 2, why: 'more makes a lead-free joint brittle' },
    );
  if (has('In')) rows.push({ element: 'In', limit_wt: 0.1, why: 'it lowers the solidus and makes the joint soft' });
  if (leadFree && has('Pb')) rows.push({ element: 'Pb', limit_wt: 0.1, why: 'the joint is no longer lead-free above' });
  return rows;
}
