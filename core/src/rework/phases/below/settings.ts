/** How a board is heated from below. */
import { z } from 'zod';
import { RANGES, type Range } from '../../ranges.ts';

const { below } = RANGES;
const number = ([min, max]: Range) => z.number().min(min).max(max);

export const belowSettings = z.strictObject({
  /** A hot plate the board lies on, infrared that shines at it, warm air that streams against it. */
  source: z.enum(['plate', 'infrared', 'air']),
  /** Of plate or air; of infrared what its dial says. */
  T_C: number(below.T_C),
  /** Heat transfer of plate or air, W/(m²·K); what is usual for the source when nothing is said. */
  h: number(below.h).optional(),
  /** Infrared that arrives, W/m²; black-body radiation of the dial's temperature over what a source fills of the view when nothing is said. */
  flux_W_m2: number(below.flux_W_m2).optional(),
  /** Heat reaches the board only here, mm on the board as seen from its upper side. */
  window: z
    .strictObject({
      x_mm: z.number().min(-2000).max(2000),
      y_mm: z.number().min(-2000).max(2000),
      w_mm: number(below.window_mm),
      h_mm: number(below.window_mm),
    })
    .optional(),
});
export type BelowSettings = z.infer<typeof belowSettings>;
