/** The metal of a joint as heat sees it: any composition, from its elements and the phase-diagram model. */
import { SOLDER_ALLOYS } from './solder.ts';
import { ZERO_CELSIUS_K } from '../ground/index.ts';
import {
  density_g_cm3,
  elementsOf,
  normalised,
  SOLDER_ELEMENTS,
  writeComposition,
  type Composition,
} from './elements.ts';
import { meltingRange_C } from './properties.ts';
import { publishedFor } from './published.ts';

export interface JointMetal {
  wt: Composition;
  /** Solidus and matrix liquidus, °C. */
  Ts: number;
  Tl: number;
  /** Heat of the solid and of the liquid, J/(m³·K), and of melting, J/m³. */
  cs: number;
  cl: number;
  latent: number;
}

/** The liquid takes up a little more than the solid. */
const LIQUID = 1.05;
const known = new Map<string, JointMetal>();

/**
 * Melting range as published where the composition is, else by the model. Specific heat is the sum of the elements' (Neumann and
 * Kopp), the heat of melting that of the elements with their entropies kept down to the alloy's liquidus (Richards): within 15 % of
 * the rows of `materials/solder`, which themselves are used where the composition is theirs.
 */
export function jointMetal(wt: Composition): JointMetal {
  const share = normalised(wt);
  const key = writeComposition(share);
  let metal = known.get(key);
  if (!metal) known.set(key, (metal = rowOf(key) ?? computed(share)));
  return metal;
}

function rowOf(key: string): JointMetal | undefined {
  for (const { wt, Ts, Tl, cs, cl, latent } of SOLDER_ALLOYS.values())
    if (writeComposition(normalised(wt)) === key)
      return { wt, Ts: Ts.value, Tl: Tl.value, cs: cs.value, cl: cl.value, latent: latent.value };
  return undefined;
}

function computed(wt: Composition): JointMetal {
  const published = publishedFor(wt);
  const range = published ? { solidus_C: published.solidus_C, liquidus_C: published.liquidus_C } : meltingRange_C(wt);
  const density = 1000 * density_g_cm3(wt);
  let [heat, latent] = [0, 0];
  for (const e of elementsOf(wt)) {
    const { molar, fusion, melting, specificHeat } = SOLDER_ELEMENTS[e];
    const w = (wt[e] ?? 0) / 100;
    heat += w * specificHeat.value;
    latent += (w * (1000 * fusion.value * (range.liquidus_C + ZERO_CELSIUS_K))) / (molar.value * melting.value);
  }
  return {
    wt,
    Ts: range.solidus_C,
    Tl: range.liquidus_C,
    cs: density * heat,
    cl: LIQUID * density * heat,
    latent: density * latent,
  };
}

/** Metal of a joint of `own` with others worked in, each by its volume as a multiple of the own. */
export function mixedByVolume(own: Composition, others: readonly { alloy: Composition; ratio: number }[]): Composition {
  const sum: Composition = {};
  for (const { alloy, ratio } of [{ alloy: own, ratio: 1 }, ...others]) {
    const share = normalised(alloy);
    for (const e of elementsOf(share)) sum[e] = (sum[e] ?? 0) + (share[e] ?? 0) * ratio * density_g_cm3(share);
  }
  return normalised(sum);
}
