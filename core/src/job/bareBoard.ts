/** A new board that all parts move to: what is checked of it before any does. */
import type { BoardModel } from '../board/index.ts';
import { type Judgement, met, unmet } from './gateRule.ts';
import type { JobState } from './jobState.ts';

/** Another thickness than drawn, as a share, changes how it heats and how screws and plugs fit. */
const NOTABLE = 0.05;

/** The same board is the same model: what was computed of it stays at hand. */
const made = new WeakMap<BoardModel, BoardModel>();

/** The board as it was measured: thicker or thinner than it is drawn. */
export function asMeasured(board: BoardModel, { bareBoard }: Pick<JobState, 'bareBoard'>): BoardModel {
  const thickness_mm = bareBoard?.thickness_mm ?? board.thickness_mm;
  if (thickness_mm === board.thickness_mm) return board;
  const known = made.get(board);
  const measured = known?.thickness_mm === thickness_mm ? known : { ...board, thickness_mm };
  made.set(board, measured);
  return measured;
}

/** How far its thickness is from the drawn one, mm; null where it was not measured or is as drawn. */
export function otherThickness(drawn_mm: number, { bareBoard }: Pick<JobState, 'bareBoard'>): number | null {
  const by = (bareBoard?.thickness_mm ?? drawn_mm) - drawn_mm;
  return Math.abs(by) > NOTABLE * drawn_mm ? by : null;
}

/** Null: nobody said that the board is a bare one. */
export function judgeBareBoard({ bareBoard: found }: Pick<JobState, 'bareBoard'>): Judgement | null {
  if (!found) return null;
  const open = [
    ...(found.dryFit
      ? []
      : [found.dryFit === false ? 'it does not fit its place' : 'tried in its place without solder']),
    ...(found.thickness_mm === undefined ? ['thickness measured'] : []),
    ...(found.masked ? [] : ['contacts masked']),
  ];
  return open.length === 0 ? met(`fits, ${found.thickness_mm} mm, contacts masked`) : unmet(`open: ${open.join(', ')}`);
}
