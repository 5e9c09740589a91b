export { type ChoiceParam, type Family, type NumberParam, PackageParamError } from './family.ts';
export { FAMILIES } from './families/index.ts';
export { gripOf, type Grip } from './grip.ts';
export { packageById, packageDesignation, PACKAGES, packageTrouble, readDesignation } from './library.ts';
export {
  extentOf,
  limitOfPackage,
  mountOf,
  solderVolume,
  terminalSides,
  type PackageModel,
  type Polarity,
  type Rect,
  type Terminal,
  type TerminalKind,
  type Texture,
} from './packageModel.ts';
export { findPackages, readPackage } from './search.ts';
