export { type CoverInput, coverInput, type CoverSheet, coverSheet, coverSheetSchema } from './cover.ts';
export { type FoilInput, foilInput, type FoilSheet, foilSheet, foilSheetSchema } from './foil.ts';
export { FOIL_BAR_MM, type Point } from './outline.ts';
