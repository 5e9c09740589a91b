export { readBoardJson, writeBoardJson } from './boardJson.ts';
export { CALCS, runCalc } from './calcs.ts';
export { boardSvg } from './exports/boardSvg.ts';
export { BoardFileError } from './fileError.ts';
export { LAYER_ROLES, type FileRole, type LayerRole } from './gerber/readSet.ts';
export { importBoard, type BoardImport, type ImportOptions } from './importBoard.ts';
export type { NamedFile } from './zip.ts';
export { frameFor } from './tables/frame.ts';
export { mergeNets, mergePlacement, type MergeResult } from './tables/merge.ts';
export {
  COLUMN_ROLES,
  guessPlacement,
  PLACEMENT_UNITS,
  readPlacement,
  writePlacement,
  type ColumnRole,
  type PlacementReading,
  type PlacementUnit,
} from './tables/placement.ts';
export { readReadings, writeReadings, type ReadingRow } from './tables/readingsCsv.ts';
export { readIpc356 } from './tables/readIpc356.ts';
export { decodeText } from './text.ts';
export type { FootprintMatch } from './toModel.ts';
