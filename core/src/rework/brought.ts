/** What work brings into the joints of a package. */
import { packageById } from '../packages/index.ts';
import { isLeadFree } from './kit.ts';
import type { Brought } from './phases/declaration.ts';
import { kindOf } from './phases/index.ts';
import type { Phase } from './phases/schema.ts';

/** Of a phase, by terminal; nothing where it brings nothing. */
export function broughtBy(phase: Phase, packageId: string): Brought {
  const own_mm3 = new Map(packageById(packageId).terminals.map((t) => [t.id, t.volume_mm3]));
  return kindOf(phase).brings?.(phase.settings, packageId, own_mm3) ?? new Map();
}

/** Whether there is lead in it. */
export const bringsLead = (phase: Phase, packageId: string): boolean =>
  [...broughtBy(phase, packageId).values()].some(({ alloy }) => !isLeadFree(alloy));
