/** How joints are spiked: with what, how much of it, and how long the iron may stay. */
import { z } from 'zod';
import { compositionSchema } from '../../../alloys/index.ts';
import { RANGES, type Range } from '../../ranges.ts';
import { tipShape } from '../tip.ts';

const number = ([min, max]: Range) => z.number().min(min).max(max);

export const spikeSettings = z.strictObject({
  ...tipShape,
  /** What is worked in; leaded solder when nothing is said. */
  alloy: compositionSchema.optional(),
  /** How much of it, against the solder that is in a joint. */
  ratio: number(RANGES.spike.ratio),
  /** Longest stay on one place; what has not melted by then stays as it is, s. */
  most_s: number(RANGES.spike.most_s),
});
export type SpikeSettings = z.infer<typeof spikeSettings>;
