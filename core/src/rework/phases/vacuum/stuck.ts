/** Pins that suction leaves plugged at the first try. */
import type { BoardModel } from '../../../board/index.ts';
import { PLANE_FROM } from '../../../materials/index.ts';
import { STUCK } from '../../handTimes.ts';

/** Share of the pins of a board that are not free at once. */
export function stuckShare({ stack }: Pick<BoardModel, 'stack'>): number {
  return stack.some((l) => l.coverage >= PLANE_FROM) ? STUCK.planes : STUCK.light;
}

/** So many pins as usual, evenly along them: nobody knows which. */
export function usuallyStuck(board: Pick<BoardModel, 'stack'>, pins: number): number[] {
  const n = Math.round(stuckShare(board) * pins);
  return Array.from({ length: n }, (_, i) => Math.floor(((i + 0.5) * pins) / n));
}
