/** From pieces of an outline to the board and what is cut out of it. */
import { ringArea } from '@orthos/core/copper';
import { BoardFileError } from './fileError.ts';
import { chainLoops, insideRing } from './geometry.ts';
import type { ParsedBoard } from './parsedBoard.ts';

/** The largest loop is the board; loops inside it are cut-outs, round ones holes. */
export function boardFromLoops(board: ParsedBoard, pieces: readonly (readonly number[])[]): void {
  const { loops, open } = chainLoops(pieces);
  if (loops.length === 0)
    throw new BoardFileError(`the outline is not closed: ${open} pieces, none of which make a loop`);
  if (open > 0) board.notes.push(`${open} pieces of the outline belong to no closed loop and were left out.`);
  const sorted = loops.map((ring) => ({ ring, area: ringArea(ring) })).sort((a, b) => b.area - a.area);
  board.outline = sorted[0].ring;
  let elsewhere = 0;
  for (const { ring } of sorted.slice(1)) {
    if (!insideRing(board.outline, ring[0], ring[1])) elsewhere++;
    else board.cutouts.push(ring);
  }
  if (elsewhere)
    board.notes.push(`${elsewhere} more outlines lie outside the largest: a panel? Only the largest board was taken.`);
}
