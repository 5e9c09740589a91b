import { z } from 'zod';

export const cutSettings = z.strictObject({
  /** Small cutters from outside, or a blade along the body. */
  with: z.enum(['cutters', 'blade']),
});
export type CutSettings = z.infer<typeof cutSettings>;
