/** How a part goes on with the tool that took its like off. */
import { kindOf, type Phase } from '../phases/index.ts';
import { mainPhase, type Method } from './method.ts';

/** The method with which a part is put on; null where an iron does it joint by joint, which needs no prediction. */
export function fittingMethod(method: Method): Method | null {
  const phase = mainPhase(method);
  const { fits } = kindOf(phase);
  return fits ? { id: method.id, phases: [{ ...phase, settings: fits.settings(phase.settings) } as Phase] } : null;
}
