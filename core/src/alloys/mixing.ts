/** Alloys worked into joints: what the mixture is, and how much of one is needed. Mass balance and the phase model. */
import { z } from 'zod';
import { ZERO_CELSIUS_K } from '../ground/index.ts';
import { roundsUntil, residualLimits } from './cleanUp.ts';
import {
  compositionSchema,
  density_g_cm3,
  elementsOf,
  moleFractions,
  normalised,
  type Composition,
} from './elements.ts';
import { Equilibria } from './equilibrium.ts';
import { isRefused } from './hazards.ts';
import { liquidusOf } from './liquidus.ts';
import { systemOf } from './phases.ts';
import { alloyProperties, alloyPropertiesOutput, matrixLiquidus_C, type AlloyProperties } from './properties.ts';

const mg = z.number().positive().max(1e7);

export const alloyMixInput = z.strictObject({
  parts: z
    .array(z.strictObject({ wt: compositionSchema, mass_mg: mg }))
    .min(1)
    .max(20),
  curve: z.int().min(0).max(60).default(0),
});
export type AlloyMixInput = z.infer<typeof alloyMixInput>;
export const alloyMixOutput = alloyPropertiesOutput.extend({ mass_mg: z.number() });

/** Composition of a mixture, wt%: mass by mass, exact. */
export function mixed(parts: readonly { wt: Composition; mass_mg: number }[]): Composition {
  const sum: Composition = {};
  const total = parts.reduce((m, p) => m + p.mass_mg, 0);
  for (const { wt, mass_mg } of parts) {
    const share = normalised(wt);
    for (const e of elementsOf(share)) sum[e] = (sum[e] ?? 0) + ((share[e] ?? 0) * mass_mg) / total;
  }
  return sum;
}

export function alloyMix({ parts, curve }: AlloyMixInput): AlloyProperties & { mass_mg: number } {
  return {
    ...alloyProperties({ wt: mixed(parts), curve }),
    mass_mg: parts.reduce((m, p) => m + p.mass_mg, 0),
  };
}

const chosen = compositionSchema.refine((wt) => !isRefused(wt), {
  error: 'holds cadmium: its fume is highly toxic; no such alloy is offered here',
});

export const alloyAmountInput = z.strictObject({
  joint: z.strictObject({ wt: compositionSchema, mass_mg: mg }),
  alloy: z.strictObject({ wt: chosen }),
  targetLiquidus_C: z.number().min(-50).max(700),
  /** Part of the added alloy that really mixes: 0.8 to 0.95 with flux and two or three passes, 0.5 to 0.8 in one. */
  mixingEfficiency: z.number().min(0.05).max(1).default(0.75),
  wire: z
    .strictObject({ dia_mm: z.number().positive().max(10), coreVolumeFraction: z.number().min(0).max(0.5).default(0) })
    .default({ dia_mm: 1, coreVolumeFraction: 0 }),
  /** A continuous bead along the rows. */
  rows: z
    .strictObject({
      lengths_mm: z.array(z.number().positive().max(500)).min(1).max(20),
      section_mm2: z.number().min(0.05).max(10).default(0.9),
    })
    .optional(),
  /** How long the joints have to stay movable once the heat has gone. */
  hold: z
    .strictObject({
      seconds: z.number().positive().max(300),
      /** Cooling time of the joints with what hangs on them, s. */
      tau_s: z.number().positive().max(300).default(10),
      peak_C: z.number().min(60).max(450),
      ambient_C: z.number().min(-20).max(150).default(22),
      /** Below the peak by this much at least, K. */
      margin_K: z.number().min(0).max(200).default(20),
    })
    .refine((h) => h.peak_C > h.ambient_C + h.margin_K, { error: 'the peak has to lie above ambient and margin' })
    .optional(),
  leadFree: z.boolean().default(false),
  /** Points of the liquidus over the ratio, for a picture; 0: none. */
  path: z.int().min(0).max(60).default(0),
});
export type AlloyAmountInput = z.infer<typeof alloyAmountInput>;

const amount = z.strictObject({ ratio: z.number(), mass_mg: z.number(), wire_mm: z.number() });
const liquidusPath = z.array(z.strictObject({ ratio: z.number(), liquidus_C: z.number() })).optional();
export const alloyAmountOutput = z.union([
  amount.extend({
    reachable: z.literal(true),
    liquidus_C: z.number(),
    bead: amount.optional(),
    hold: amount.extend({ freezes_C: z.number(), seconds: z.number() }).nullable().optional(),
    /** Which of them asks for most, and how much that is. */
    rules: z.enum(['composition', 'bead', 'hold']),
    needed: amount,
    /** Rounds of braid and flood that the needed amount costs on lands, and for which element. */
    cleanUp: z.strictObject({ cycles: z.int(), element: z.string(), limit_wt: z.number(), why: z.string() }).nullable(),
    notes: z.array(z.string()),
    path: liquidusPath,
  }),
  z.strictObject({ reachable: z.literal(false), why: z.string(), path: liquidusPath }),
]);
export type AlloyAmount = z.infer<typeof alloyAmountOutput>;

const LEAST_RATIO = 0.02;
const MOST_RATIO = 20;

/** Smallest ratio from which `good` holds; scanned upward, then halved in. Null when none does. */
function smallestRatio(good: (ratio: number) => boolean, factor: number, halvings: number): number | null {
  if (good(0)) return 0;
  let bad = 0;
  for (let r = LEAST_RATIO; r <= MOST_RATIO; r *= factor) {
    if (!good(r)) {
      bad = r;
      continue;
    }
    let [low, high] = [bad, r];
    for (let i = 0; i < halvings; i++) {
      const mid = (low + high) / 2;
      if (good(mid)) high = mid;
      else low = mid;
    }
    return high;
  }
  return null;
}

/** A joint can be moved until about this share of it is solid. */
const STIFF = 0.3;

/** Where a mixture stiffens on cooling, °C: three tenths solid, by the lever rule. */
export function stiffens_C(wt: Composition): number {
  const share = normalised(wt);
  const elements = elementsOf(share);
  const x = moleFractions(share, elements);
  const system = systemOf(elements);
  const { matrix_K } = liquidusOf(system, x);
  const equilibria = new Equilibria(system, x);
  let [hot, cold] = [matrix_K, matrix_K - 150];
  while (hot - cold > 1) {
    const mid = (hot + cold) / 2;
    if (1 - equilibria.at(mid).liquid < STIFF) hot = mid;
    else cold = mid;
  }
  return (hot + cold) / 2 - ZERO_CELSIUS_K;
}

/** Time a joint cools from its peak until it stiffens, s; Newton's law with one time constant. */
export function holdSeconds(
  freezes_C: number,
  { peak_C, ambient_C, tau_s }: { peak_C: number; ambient_C: number; tau_s: number },
): number {
  if (freezes_C >= peak_C) return 0;
  return freezes_C <= ambient_C ? Infinity : tau_s * Math.log((peak_C - ambient_C) / (freezes_C - ambient_C));
}

export function alloyAmount(input: AlloyAmountInput): AlloyAmount {
  const { joint, alloy, targetLiquidus_C, mixingEfficiency, wire } = input;
  const mixAt = (ratio: number) =>
    ratio === 0
      ? joint.wt
      : mixed([
          { wt: joint.wt, mass_mg: 1 },
          { wt: alloy.wt, mass_mg: ratio },
        ]);
  // even steps of the share that the alloy has in the joint
  const path = input.path && {
    path: Array.from({ length: input.path }, (_, i) => {
      const share = (0.95 * i) / Math.max(1, input.path - 1);
      const r = share / (1 - share);
      return { ratio: r, liquidus_C: matrixLiquidus_C(mixAt(r)) };
    }),
  };
  const ratio = smallestRatio((r) => matrixLiquidus_C(mixAt(r)) <= targetLiquidus_C, 1.15, 24);
  if (ratio === null) {
    const own = matrixLiquidus_C(alloy.wt);
    return {
      reachable: false,
      ...path,
      why: `no share of this alloy brings the joint to ${targetLiquidus_C} °C: alone it melts at ${own.toFixed(0)} °C, and up to ${MOST_RATIO} times the joint was tried`,
    };
  }
  const density = density_g_cm3(alloy.wt);
  const section = (Math.PI / 4) * wire.dia_mm ** 2 * (1 - wire.coreVolumeFraction);
  const asAmount = (mass_mg: number) => ({
    ratio: (mass_mg * mixingEfficiency) / joint.mass_mg,
    mass_mg,
    // mm³ × g/cm³ is milligrams
    wire_mm: mass_mg / (density * section),
  });
  const byComposition = asAmount((ratio * joint.mass_mg) / mixingEfficiency);
  const notes: string[] = [];
  const bead =
    input.rows && asAmount(input.rows.lengths_mm.reduce((a, b) => a + b, 0) * input.rows.section_mm2 * density);
  const hold = input.hold && holdAmount(input.hold, mixAt, (r) => asAmount((r * joint.mass_mg) / mixingEfficiency));
  if (hold === null)
    notes.push('no amount of this alloy stays movable that long: keep heat on, or choose a lower-melting one');
  const candidates = [
    { rules: 'composition' as const, amount: byComposition },
    ...(bead ? [{ rules: 'bead' as const, amount: bead }] : []),
    ...(hold
      ? [{ rules: 'hold' as const, amount: { ratio: hold.ratio, mass_mg: hold.mass_mg, wire_mm: hold.wire_mm } }]
      : []),
  ];
  const most = candidates.reduce((a, b) => (b.amount.mass_mg > a.amount.mass_mg ? b : a));
  // all of it may have mixed: what has to come out again is the whole
  const left = mixed([joint, { wt: alloy.wt, mass_mg: Math.max(most.amount.mass_mg, 1e-9) }]);
  const rounds = residualLimits(alloy.wt, input.leadFree).map((r) => ({
    ...r,
    ...roundsUntil({ c_wt: left[r.element] ?? 0, mass: 1 }, { wick: 0.1, add: 1, limit_wt: r.limit_wt }),
  }));
  const worst = rounds.toSorted((a, b) => b.cycles - a.cycles)[0];
  return {
    reachable: true,
    ...path,
    ...byComposition,
    liquidus_C: matrixLiquidus_C(mixAt(ratio)),
    ...(bead ? { bead } : {}),
    ...(input.hold ? { hold } : {}),
    rules: most.rules,
    needed: most.amount,
    cleanUp: worst ? { cycles: worst.cycles, element: worst.element, limit_wt: worst.limit_wt, why: worst.why } : null,
    notes,
  };
}

/** The smallest amount with which the joints stay movable for as long as wanted; null when none does. */
function holdAmount(
  hold: NonNullable<AlloyAmountInput['hold']>,
  mixAt: (ratio: number) => Composition,
  asAmount: (ratio: number) => { ratio: number; mass_mg: number; wire_mm: number },
) {
  const known = new Map<number, number>();
  const freezes = (r: number) => {
    const before = known.get(r);
    if (before !== undefined) return before;
    const T = stiffens_C(mixAt(r));
    known.set(r, T);
    return T;
  };
  const good = (r: number) => {
    const T = freezes(r);
    return T <= hold.peak_C - hold.margin_K && holdSeconds(T, hold) >= hold.seconds;
  };
  const ratio = smallestRatio(good, 1.6, 6);
  if (ratio === null) return null;
  const freezes_C = freezes(ratio);
  return { ...asAmount(ratio), freezes_C, seconds: Math.min(holdSeconds(freezes_C, hold), 1e4) };
}
