import {
  alloyAmount,
  alloyAmountInput,
  alloyAmountOutput,
  alloyMix,
  alloyMixInput,
  alloyMixOutput,
  alloyProperties,
  alloyPropertiesInput,
  alloyPropertiesOutput,
  cleanUp,
  cleanUpInput,
  cleanUpOutput,
  elementsOf,
  mixed,
} from '../alloys/index.ts';
import { defineCalc } from '../ground/index.ts';

const LEAD_FREE = { Sn: 96.5, Ag: 3, Cu: 0.5 };
const LOW_MELT = { Bi: 52.5, Pb: 32, Sn: 15.5 };

/** Seconds for the phases of so many elements, measured. */
const phasesCost = (elements: number) => 0.02 * elements ** 2.5;

export const alloyPropertiesCalc = defineCalc({
  name: 'alloy.properties',
  summary: 'Melting range, last liquid, density, hazards of a solder composition, and how sure that is.',
  input: alloyPropertiesInput,
  output: alloyPropertiesOutput,
  example: { wt: { Sn: 63, Pb: 37 } },
  cost: ({ wt }) => phasesCost(elementsOf(wt).length),
  run: alloyProperties,
});

export const alloyMixCalc = defineCalc({
  name: 'alloy.mix',
  summary: 'What several solders make when they are molten together.',
  input: alloyMixInput,
  output: alloyMixOutput,
  example: {
    parts: [
      { wt: LEAD_FREE, mass_mg: 10 },
      { wt: { Sn: 63, Pb: 37 }, mass_mg: 8 },
    ],
  },
  cost: ({ parts }) => phasesCost(elementsOf(mixed(parts)).length),
  run: alloyMix,
});

export const alloyAmountCalc = defineCalc({
  name: 'alloy.amount',
  summary:
    'How much of an alloy a joint needs: by composition, by a bead along the rows, by the time it has to stay liquid.',
  input: alloyAmountInput,
  output: alloyAmountOutput,
  example: { joint: { wt: LEAD_FREE, mass_mg: 10 }, alloy: { wt: LOW_MELT }, targetLiquidus_C: 180 },
  cost: ({ hold }) => (hold ? 3 : 0.8),
  run: alloyAmount,
});

export const alloyCleanUpCalc = defineCalc({
  name: 'alloy.cleanup',
  summary: 'What is left of an alloy after braid and flood, or how many rounds it takes.',
  input: cleanUpInput,
  output: cleanUpOutput,
  example: { c0_wt: 25, m0: 1, wick: 0.1, add: 1, limit_wt: 0.25 },
  run: cleanUp,
});
