export { BoardFileError, readBoardJson, writeBoardJson } from './boardJson.ts';
