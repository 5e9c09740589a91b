/** Bare lands as the log keeps them. */
import type { LandMark } from '../hands/index.ts';

/** A land by its terminal; of a hole the far face has one of its own. */
export const landKey = ({ terminal, far }: { terminal: string; far?: true | undefined }): string =>
  far ? `${terminal} far` : terminal;

/** Whether a land can take solder as it is: clean, by design without copper, or bare beside it, which is varnished after the part. */
export const landIsGood = (state: LandMark): boolean =>
  state === 'good' || state === 'no-copper' || state === 'mask-gone';
