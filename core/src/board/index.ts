export { boardBounds, boardModelSchema, partName, type BoardModel, type PlacedPart, type Side } from './boardModel.ts';
export { boxOnBoard, cornersOnBoard, toBoard } from './placement.ts';
