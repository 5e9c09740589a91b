import type { SourceKind } from '@orthos/core/board';

/** What can feed a board, in words. */
export const SOURCE_NAMES: Record<SourceKind, string> = {
  lead: 'lead or plug',
  cell: 'cell',
  capacitor: 'large capacitor',
  mains: 'mains',
  none: 'nothing can feed it',
};
