import { z } from 'zod';
import { compositionSchema } from '../../../alloys/index.ts';
import { RANGES } from '../../ranges.ts';
import { tipShape } from '../tip.ts';

const [least, most] = RANGES.fit.share;

export const tinSettings = z.strictObject({
  ...tipShape,
  /** Solder on each land afterwards, as a share of what a joint has; what lies there counts. */
  share: z.number().min(least).max(most),
  /** The same on a pad under the body: a film, or the rim does not touch. */
  pad_share: z.number().min(least).max(most).optional(),
  /** On one land only: of the first joint. */
  one: z.literal(true).optional(),
  /** Leaded solder when nothing is said. */
  alloy: compositionSchema.optional(),
});
export type TinSettings = z.infer<typeof tinSettings>;
