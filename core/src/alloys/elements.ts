import { z } from 'zod';
import { property, type Property } from '../materials/property.ts';

const at25 = (value: number) => property(value, 'g/cm³', 0.02 * value, 'handbook density at 25 °C');

/** Solid densities of the elements a solder may be made of. */
const SOLDER_ELEMENTS = {
  Sn: at25(7.29),
  Pb: at25(11.34),
  Bi: at25(9.79),
  In: at25(7.31),
  Ag: at25(10.49),
  Cu: at25(8.96),
  Sb: at25(6.7),
  Cd: at25(8.65),
  Zn: at25(7.14),
} as const satisfies Record<string, Property>;

type Element = keyof typeof SOLDER_ELEMENTS;
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
    volume += (w ?? 0) / SOLDER_ELEMENTS[element].value;
  }
  return mass / volume;
}
