/** What a composition does between cold and molten: the phase-diagram model read out for people. */
import { z } from 'zod';
import { ZERO_CELSIUS_K } from '../ground/index.ts';
import { trustIn } from './confidence.ts';
import {
  compositionSchema,
  density_g_cm3,
  elementsOf,
  moleFractions,
  normalised,
  type Composition,
} from './elements.ts';
import { Equilibria, scheilOf, solidusOf } from './equilibrium.ts';
import { hazardsOf } from './hazards.ts';
import { liquidusOf } from './liquidus.ts';
import { systemOf } from './phases.ts';
import { publishedFor } from './published.ts';

export const alloyPropertiesInput = z.strictObject({
  wt: compositionSchema,
  /** Temperatures of the curve of what is solid, evenly from solidus to liquidus; 0: none. */
  curve: z.int().min(0).max(60).default(0),
});
export type AlloyPropertiesInput = z.infer<typeof alloyPropertiesInput>;

const celsius = z.number();
export const alloyPropertiesOutput = z.strictObject({
  wt: compositionSchema,
  /** All but stray hard grains are molten: what has to be reached before a part can be moved. */
  matrixLiquidus_C: celsius,
  /** The last grain is gone. */
  trueLiquidus_C: celsius,
  solidus_C: celsius,
  /** Where the last liquid freezes when nothing evens out in the solid; null when less than a thousandth is left before. */
  scheilEnd_C: celsius.nullable(),
  /** Share of liquid (atoms) just before that. */
  scheilLast: z.number(),
  /** Liquidus of the matrix minus where two hundredths are still liquid on real cooling. */
  freezingRange_K: z.number(),
  density_g_cm3: z.number(),
  confidence: z.enum(['high', 'medium', 'low']),
  /** What the liquidus may be off by. */
  plusMinus_K: z.number(),
  notes: z.array(z.string()),
  published: z.strictObject({ solidus_C: celsius, liquidus_C: celsius, sure: z.enum(['A', 'B', 'C']) }).optional(),
  hazards: z.array(z.strictObject({ element: z.string(), says: z.string(), refused: z.boolean() })),
  /** Share of atoms that is solid, by equilibrium and by real cooling. */
  curve: z.array(z.strictObject({ T_C: celsius, solid: z.number(), scheilSolid: z.number() })).optional(),
});
export type AlloyProperties = z.infer<typeof alloyPropertiesOutput>;

/** Below this share an element is dirt: it is left out of the phases, wt%. */
const TRACE = 1e-4;

/** Mole fractions and phases of a composition, traces left out. */
function phasesOf(wt: Composition) {
  const share = normalised(wt);
  const elements = elementsOf(share).filter((e) => (share[e] ?? 0) >= TRACE);
  return { system: systemOf(elements), x: moleFractions(share, elements) };
}

const toCelsius = (K: number) => K - ZERO_CELSIUS_K;

/** Matrix liquidus alone, °C: what a search over mixtures asks for hundreds of times. */
export function matrixLiquidus_C(wt: Composition): number {
  const { system, x } = phasesOf(wt);
  return toCelsius(liquidusOf(system, x).matrix_K);
}

/** Solidus and matrix liquidus alone, °C. */
export function meltingRange_C(wt: Composition): { solidus_C: number; liquidus_C: number } {
  const { system, x } = phasesOf(wt);
  const { true_K, matrix_K } = liquidusOf(system, x);
  const solidus_K = Math.min(solidusOf(system, x, true_K), true_K);
  return { solidus_C: toCelsius(solidus_K), liquidus_C: toCelsius(Math.max(matrix_K, solidus_K)) };
}

/** Liquid share on real cooling at a temperature, between the points of the curve. */
function liquidAt(curve: readonly { T_K: number; liquid: number }[], T_K: number): number {
  const n = curve.findIndex((p) => p.T_K <= T_K);
  if (n < 0) return curve[curve.length - 1].liquid;
  if (n === 0) return 1;
  const [hot, cold] = [curve[n - 1], curve[n]];
  return cold.liquid + ((hot.liquid - cold.liquid) * (T_K - cold.T_K)) / (hot.T_K - cold.T_K);
}

export function alloyProperties({ wt, curve: points }: AlloyPropertiesInput): AlloyProperties {
  const { system, x } = phasesOf(wt);
  const { true_K, matrix_K } = liquidusOf(system, x);
  const solidus_K = Math.min(solidusOf(system, x, true_K), true_K);
  const matrix = Math.max(matrix_K, solidus_K);
  const scheil = scheilOf(system, x, true_K);
  const last = scheil.curve.findLast((p) => p.liquid > 0);
  const nearlyFrozen = scheil.curve.find((p) => p.liquid <= 0.02)?.T_K ?? solidus_K;
  const published = publishedFor(wt);
  const { confidence, plusMinus_K, notes } = trustIn(wt);
  const properties: AlloyProperties = {
    wt: normalised(wt),
    matrixLiquidus_C: toCelsius(matrix),
    trueLiquidus_C: toCelsius(true_K),
    solidus_C: toCelsius(solidus_K),
    scheilEnd_C: scheil.end_K === null ? null : toCelsius(scheil.end_K),
    scheilLast: last?.liquid ?? 0,
    freezingRange_K: Math.max(0, matrix - nearlyFrozen),
    density_g_cm3: density_g_cm3(wt),
    confidence,
    plusMinus_K,
    notes,
    ...(published
      ? {
          published: {
            solidus_C: published.solidus_C,
            liquidus_C: published.liquidus_C,
            sure: published.sure,
          },
        }
      : {}),
    hazards: hazardsOf(wt),
  };
  if (points > 0) {
    const equilibria = new Equilibria(system, x);
    const cold = Math.min(solidus_K, scheil.end_K ?? solidus_K) - 2;
    const hot = matrix + 2;
    properties.curve = Array.from({ length: points }, (_, i) => {
      const T_K = hot - ((hot - cold) * i) / Math.max(1, points - 1);
      return {
        T_C: toCelsius(T_K),
        solid: 1 - Math.min(1, equilibria.at(T_K).liquid),
        scheilSolid: 1 - liquidAt(scheil.curve, T_K),
      };
    });
  }
  return properties;
}
