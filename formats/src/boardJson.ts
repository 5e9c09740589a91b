/**
 * A board model as our own documented JSON file: `{ "orthos": "board", "board": { … } }`, the document of
 * core's `boardModelSchema`. Files come from outside: size first, then text, then form.
 */
import { type BoardModel, boardModelSchema, looseEnds } from '@orthos/core/board';
import { CalcInputError, parseInput } from '@orthos/core/ground';
import { BoardFileError } from './fileError.ts';

const MAX_BYTES = 5_000_000;

export function writeBoardJson(board: BoardModel): string {
  return `${JSON.stringify({ orthos: 'board', board }, null, 1)}\n`;
}

/** Reads such a file; throws `BoardFileError` with what is wrong. */
export function readBoardJson(text: string): BoardModel {
  if (text.length > MAX_BYTES) throw new BoardFileError(`larger than ${MAX_BYTES / 1e6} MB`);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new BoardFileError(`not JSON: ${(error as Error).message}`);
  }
  if (typeof value !== 'object' || value === null || (value as { orthos?: unknown }).orthos !== 'board')
    throw new BoardFileError('not a board file: "orthos": "board" is missing');
  try {
    const board = parseInput(boardModelSchema, (value as { board?: unknown }).board);
    const [loose] = looseEnds(board);
    if (loose) throw new BoardFileError(loose);
    return board;
  } catch (error) {
    if (error instanceof CalcInputError) throw new BoardFileError(error.message);
    throw error;
  }
}
