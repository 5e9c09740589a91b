export { copperCoverage, type CoverageGrid, coverageReader, type Outline, ringArea } from './coverage.ts';
export { type CopperDrawing, copperDrawingSchema, type CopperShape, moveShape } from './drawing.ts';
