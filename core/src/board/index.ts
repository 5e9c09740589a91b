export {
  boardBounds,
  boardModelSchema,
  OPENING_KINDS,
  partName,
  type BoardModel,
  type PlacedPart,
  type Side,
} from './boardModel.ts';
export { boxOnBoard, cornersOnBoard, solderedTerminals, toBoard, toLocal } from './placement.ts';
