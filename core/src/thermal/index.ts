export { YARDSTICK_CELLS, runYardstick } from './yardstick.ts';
export {
  type BoardMesh,
  columnAt,
  meshBoard,
  meshWhole,
  overlapOnMesh,
  sheetConductance,
  targetBox,
} from './boardMesh.ts';
export { ENGINE_VERSION } from './engine.ts';
export type { JointEnthalpy } from './enthalpy.ts';
export { heatFieldWork, runHeatField } from './field.ts';
export { heatFieldInput, heatFieldOutput } from './fieldForm.ts';
export { cellCount } from './grid.ts';
export type { HeatLink, HeatNode } from './heatNodes.ts';
export { HeatRun, OutOfBoundsError } from './heatRun.ts';
export { HAND_FACTOR, type Jet, jetOf, type JetSetting, tabulated } from './jet.ts';
export { blowAway, blowAwayInput, blowAwayOutput, jetProfile, jetProfileInput, jetProfileOutput } from './jetForms.ts';
