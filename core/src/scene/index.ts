export { boardScene, type Scene, type SceneLabel, type SceneShape, type SceneStyle } from './boardScene.ts';
export { schematicGraph, type SchematicGraph, type SchematicNode, type SchematicPort } from './schematic.ts';
export { partAt, terminalAt } from './hits.ts';
