import { z } from 'zod';
import { RANGES } from '../../ranges.ts';
import { jointSettings } from '../joint/settings.ts';

export const dragSettings = jointSettings.extend({
  /** The hand along the row, mm/s: as fast as that, and no faster than joints melt. */
  mm_s: z.number().min(RANGES.fit.mm_s[0]).max(RANGES.fit.mm_s[1]),
});
export type DragSettings = z.infer<typeof dragSettings>;
