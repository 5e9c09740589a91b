export { FAMILIES } from './families/index.ts';
export { type ChoiceParam, type Family, type NumberParam, PackageParamError } from './family.ts';
export { type Grip, gripOf } from './grip.ts';
export { packageById, packageDesignation, PACKAGES, packageTrouble, readDesignation } from './library.ts';
export {
  extentOf,
  limitOfPackage,
  mountOf,
  type PackageModel,
  type Polarity,
  type Rect,
  solderVolume,
  type Terminal,
  type TerminalKind,
  terminalSides,
  type Texture,
} from './packageModel.ts';
export { type Counted, findPackages, packagesByLegs, readPackage } from './search.ts';
