export { copperCoverage, coverageReader, ringArea, type CoverageGrid, type Outline } from './coverage.ts';
export { copperDrawingSchema, moveShape, type CopperDrawing, type CopperShape } from './drawing.ts';
