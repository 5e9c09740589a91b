/** How a pool of solder bridges all joints of a small part. */
import { z } from 'zod';
import { compositionSchema } from '../../../alloys/index.ts';
import { RANGES } from '../../ranges.ts';
import { tipShape } from '../tip.ts';

const { pool_mm3 } = RANGES.pool;

export const poolSettings = z.strictObject({
  ...tipShape,
  /** Solder that makes the pool, mm³ in all. */
  pool_mm3: z.number().min(pool_mm3[0]).max(pool_mm3[1]),
  /** What it is; leaded solder when nothing is said. */
  alloy: compositionSchema.optional(),
});
export type PoolSettings = z.infer<typeof poolSettings>;
