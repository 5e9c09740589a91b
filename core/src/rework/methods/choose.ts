/** The methods for a part on a board, as this station can be set. */
import { onUnmarkedDial } from '../phases/air/index.ts';
import { kindOf } from '../phases/index.ts';
import type { StationModel } from '../station.ts';
import type { Method } from './method.ts';
import { type Piece, RECIPES } from './recipes.ts';

export interface MethodChoice {
  method: Method;
  /** Why this method is not for this part; absent when it is. */
  unfit?: string;
}

/** What a method is called. */
export const methodName = (id: string): string => RECIPES.find((r) => r.id === id)?.name ?? id;

/** A method as this station can be set. */
export function onDial(method: Method, { air }: Pick<StationModel, 'air'>): Method {
  if (air !== 'unmarked') return method;
  return {
    ...method,
    phases: method.phases.map((p) => (p.kind === 'air' ? { ...p, settings: onUnmarkedDial(p.settings) } : p)),
  };
}

/** The methods computed for a part, with the reason where one does not apply. */
export function methodsFor(packageId: string, board: Omit<Piece, 'packageId'> = {}): MethodChoice[] {
  const piece = { packageId, ...board };
  return RECIPES.flatMap(({ id, phases, unfit }) => {
    const made = phases(piece);
    if (!made) return [];
    const why = unfit?.(piece) ?? made.map((p) => kindOf(p).unfit?.(packageId)).find(Boolean);
    return [{ method: { id, phases: made }, ...(why ? { unfit: why } : {}) }];
  });
}
