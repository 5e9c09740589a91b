/** How a part goes on with the tool that took its like off. */
import { kindOf } from '../phases/index.ts';
import type { Phase } from '../phases/schema.ts';
import { mainPhase, type Method } from './method.ts';
import { fitsAs } from './names.ts';

/** The method with which a part is put on; null where an iron does it joint by joint, which needs no prediction. */
export function fittingMethod(method: Method): Method | null {
  const phase = mainPhase(method);
  const { fits } = kindOf(phase);
  const id = fitsAs(method.id);
  if (!fits || id === null) return null;
  return { id, phases: [{ ...phase, settings: fits.settings(phase.settings) } as Phase] };
}
