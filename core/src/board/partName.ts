import type { PlacedPart } from './boardModel.ts';

/** How a part is called on screen: its reference, else what it is. */
export function partName(part: Pick<PlacedPart, 'partId' | 'ref' | 'what'>): string {
  return part.ref ?? part.what ?? part.partId;
}
