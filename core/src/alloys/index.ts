export {
  cleanUp,
  cleanUpInput,
  type CleanUpOutput,
  cleanUpOutput,
  type CleanUpPlace,
  PLACES,
  residualLimits,
  roundsUntil,
} from './cleanUp.ts';
export {
  type Composition,
  compositionSchema,
  density_g_cm3,
  elementsOf,
  normalised,
  readComposition,
  writeComposition,
} from './elements.ts';
export { hazardsOf, isRefused } from './hazards.ts';
export { jointMetal, mixedByVolume } from './jointMetal.ts';
export { jointVolume, jointVolumeInput, jointVolumeOutput } from './jointVolume.ts';
export { ALLOY_LIBRARY, LOW_MELT, LOW_MELT_LEAD_FREE } from './library.ts';
export {
  type AlloyAmount,
  type AlloyAmountInput,
  alloyAmount,
  alloyAmountInput,
  alloyAmountOutput,
  alloyMix,
  alloyMixInput,
  alloyMixOutput,
  mixed,
} from './mixing.ts';
export { type AlloyProperties, alloyProperties, alloyPropertiesInput, alloyPropertiesOutput } from './properties.ts';
export { SOLDER_ALLOYS } from './solder.ts';
