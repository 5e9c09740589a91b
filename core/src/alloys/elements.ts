import { z } from 'zod';
import { property, type Property } from '../materials/index.ts';

interface SolderElement {
  molar: Property;
  melting: Property;
  /** Heat of fusion, effective: heat capacities of solid and liquid are taken as equal. */
  fusion: Property;
  density: Property;
  specificHeat: Property;
}

const row = (
  molar: number,
  melting_K: number,
  fusion: number,
  density: number,
  specificHeat: number,
): SolderElement => ({
  molar: property(molar, 'g/mol', 0.001 * molar, 'standard atomic weight'),
  melting: property(melting_K, 'K', 0.1, 'published melting point'),
  fusion: property(fusion, 'J/mol', 0.03 * fusion, 'published heat of fusion, effective'),
  density: property(density, 'g/cm³', 0.02 * density, 'handbook density at 25 °C'),
  specificHeat: property(specificHeat, 'J/(kg·K)', 0.03 * specificHeat, 'handbook value at 25 °C'),
});

/** The elements a solder may be made of. Nothing is extrapolated to others. */
export const SOLDER_ELEMENTS = {
  Sn: row(118.71, 505.08, 7060, 7.29, 227),
  Pb: row(207.2, 600.61, 4720, 11.34, 129),
  Bi: row(208.98, 544.55, 11275, 9.79, 122),
  In: row(114.818, 429.75, 3283, 7.31, 233),
  Ag: row(107.868, 1234.93, 11056, 10.49, 235),
  Cu: row(63.546, 1357.77, 12994, 8.96, 385),
  Sb: row(121.76, 903.78, 19874, 6.7, 207),
  Cd: row(112.414, 594.22, 6192, 8.65, 232),
  Zn: row(65.38, 692.68, 7212, 7.14, 388),
} as const satisfies Record<string, SolderElement>;

export type Element = keyof typeof SOLDER_ELEMENTS;
const share = z.number().nonnegative().max(1e6).optional();

/** Weight percent by element; need not sum to 100, but something must be there. */
export const compositionSchema = z
  .strictObject(
    Object.fromEntries(Object.keys(SOLDER_ELEMENTS).map((e) => [e, share])) as Record<Element, typeof share>,
  )
  .refine((wt) => Object.values(wt).some((v) => (v ?? 0) > 0), {
    error: 'needs at least one element above zero',
  });
export type Composition = z.infer<typeof compositionSchema>;

/** Density of a mixture of weight shares, g/cm³: Σw / Σ(w/ρ) (ideal mixing of volumes). */
export function density_g_cm3(wt: Composition): number {
  let [mass, volume] = [0, 0];
  for (const [element, w] of Object.entries(wt) as [Element, number | undefined][]) {
    mass += w ?? 0;
    volume += (w ?? 0) / SOLDER_ELEMENTS[element].density.value;
  }
  return mass / volume;
}

/** A composition as it is written: `Sn96.5Ag3Cu0.5`, `Sn 63 Pb 37`, decimal comma or point; null when it is none. */
export function readComposition(text: string): Composition | null {
  const rest = text.trim().replaceAll(',', '.');
  if (!/^(?:[A-Z][a-z]?\s*\d*\.?\d+\s*)+$/.test(rest)) return null;
  const wt: Composition = {};
  for (const [, element, share] of rest.matchAll(/([A-Z][a-z]?)\s*(\d*\.?\d+)/g)) {
    if (!(element in SOLDER_ELEMENTS) || wt[element as Element] !== undefined) return null;
    wt[element as Element] = Number(share);
  }
  return Object.values(wt).some((v) => v > 0) ? wt : null;
}

/** Written with at most two decimals. */
export const writeComposition = (wt: Composition): string =>
  elementsOf(wt)
    .map((e) => `${e}${Number((wt[e] ?? 0).toFixed(2))}`)
    .join('');

/** Elements of a composition that are really there, in the order of the table. */
export function elementsOf(wt: Composition): Element[] {
  return (Object.keys(SOLDER_ELEMENTS) as Element[]).filter((e) => (wt[e] ?? 0) > 0);
}

/** Weight percent that sum to 100. */
export function normalised(wt: Composition): Composition {
  const total = Object.values(wt).reduce((sum, w) => sum + (w ?? 0), 0);
  return Object.fromEntries(elementsOf(wt).map((e) => [e, (100 * (wt[e] ?? 0)) / total]));
}

/** Mole fractions of `elements`, from weight shares. */
export function moleFractions(wt: Composition, elements: readonly Element[]): Float64Array {
  const moles = Float64Array.from(elements, (e) => (wt[e] ?? 0) / SOLDER_ELEMENTS[e].molar.value);
  const total = moles.reduce((a, b) => a + b, 0);
  return moles.map((m) => m / total);
}
