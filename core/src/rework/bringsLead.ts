/** Whether lead comes into joints with work. */
import { packageById } from '../packages/index.ts';
import { isLeadFree } from './kit.ts';
import { kindOf } from './phases/index.ts';
import type { Phase } from './phases/schema.ts';

export function bringsLead(phase: Phase, packageId: string): boolean {
  const own = new Map(packageById(packageId).terminals.map((t) => [t.id, t.volume_mm3]));
  const brought = kindOf(phase).brings?.(phase.settings, packageId, own) ?? new Map<string, never>();
  return [...brought.values()].some(({ alloy }) => !isLeadFree(alloy));
}
