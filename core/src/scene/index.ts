export {
  boardScene,
  partAt,
  type Scene,
  type SceneLabel,
  type SceneShape,
  type SceneStyle,
  terminalAt,
} from './boardScene.ts';
export { schematicGraph, type SchematicGraph, type SchematicNode, type SchematicPort } from './schematic.ts';
