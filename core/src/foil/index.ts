export {
  FOIL_BAR_MM,
  type FoilInput,
  foilInput,
  type FoilSheet,
  foilSheet,
  foilSheetSchema,
  type Point,
} from './foil.ts';
