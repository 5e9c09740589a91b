export { boardBounds, boardModelSchema, partName, type BoardModel, type PlacedPart, type Side } from './boardModel.ts';
export { looseEnds } from './loose.ts';
export { edgeMap, snapToEdges, type EdgeMap, type Snap } from './edgeSnap.ts';
export {
  addPart,
  blankBoard,
  changePart,
  compareBoards,
  layerName,
  nextRef,
  paintCopperPatch,
  refPrefix,
  removeParts,
  repeatRow,
  stackOf,
  type BoardChange,
} from './editing.ts';
export {
  applyHomography,
  fitPhoto,
  invertHomography,
  multiplyHomographies,
  provisionalFrame,
  type Homography,
  type PhotoFit,
  type PointPair,
} from './photoFrame.ts';
export { boxOnBoard, cornersOnBoard, solderedTerminals, toBoard, toLocal } from './placement.ts';
