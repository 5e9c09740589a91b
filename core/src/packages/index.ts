export { PACKAGES, packageById } from './library.ts';
export {
  terminalSides,
  type PackageModel,
  type Polarity,
  type Rect,
  type Terminal,
  type Texture,
} from './packageModel.ts';
