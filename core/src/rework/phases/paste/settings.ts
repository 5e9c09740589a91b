import { z } from 'zod';
import { compositionSchema } from '../../../alloys/index.ts';
import { RANGES } from '../../ranges.ts';

const [least, most] = RANGES.fit.share;

export const pasteSettings = z.strictObject({
  /** Solder on each land afterwards, as a share of what a joint has. */
  share: z.number().min(least).max(most),
  /** What the paste melts to; leaded solder when nothing is said. */
  alloy: compositionSchema.optional(),
});
export type PasteSettings = z.infer<typeof pasteSettings>;
