export { cleanUpInput, PLACES, residualLimits, roundsUntil, type CleanUpOutput, type CleanUpPlace } from './cleanUp.ts';
export { density_g_cm3, readComposition, writeComposition, type Composition } from './elements.ts';
export { hazardsOf, isRefused } from './hazards.ts';
export { ALLOY_LIBRARY } from './library.ts';
export { type AlloyAmount } from './mixing.ts';
export { type AlloyProperties } from './properties.ts';
