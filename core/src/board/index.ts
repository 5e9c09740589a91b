export {
  boardBounds,
  type BoardModel,
  boardModelSchema,
  OPENING_KINDS,
  type OpeningKind,
  type PlacedPart,
  type Side,
  SOURCE_KINDS,
  type SourceKind,
} from './boardModel.ts';
export { edgeMap, type EdgeMap, type Snap, snapToEdges } from './edgeSnap.ts';
export {
  addPart,
  blankBoard,
  type BoardChange,
  changePart,
  compareBoards,
  layerName,
  nextRef,
  paintCopperPatch,
  refPrefix,
  removeParts,
  repeatRow,
  stackOf,
} from './editing.ts';
export { looseEnds } from './loose.ts';
export { isGroundNet, voltsOf } from './netNames.ts';
export { partName } from './partName.ts';
export { CLASS_NAMES, classOfPart, isPolarised, PART_CLASSES, type PartClass } from './partClass.ts';
export {
  applyHomography,
  fitPhoto,
  type Homography,
  invertHomography,
  multiplyHomographies,
  type PhotoFit,
  type PointPair,
  provisionalFrame,
} from './photoFrame.ts';
export { bodyRect, boxOnBoard, cornersOnBoard, gapBetween, solderedTerminals, toBoard, toLocal } from './placement.ts';
