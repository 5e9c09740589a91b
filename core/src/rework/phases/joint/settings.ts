import { z } from 'zod';
import { compositionSchema } from '../../../alloys/index.ts';
import { RANGES, type Range } from '../../ranges.ts';
import { tipShape } from '../tip.ts';

const number = ([min, max]: Range) => z.number().min(min).max(max);

export const jointSettings = z.strictObject({
  ...tipShape,
  /** Solder in each joint afterwards, as a share of what it usually has. */
  share: number(RANGES.fit.share),
  /** Longest on one joint, s: what is not through by then stays as it is. */
  most_s: number(RANGES.iron.most_s),
  /** Leaded solder when nothing is said. */
  alloy: compositionSchema.optional(),
});
export type JointSettings = z.infer<typeof jointSettings>;
